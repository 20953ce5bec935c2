"""Jobs and their immutable revisions."""

import sqlalchemy as sa
from alembic import op

revision = "0001"
down_revision = None
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "jobs",
        sa.Column("id", sa.String(96), primary_key=True),
        sa.Column("head", sa.Integer(), nullable=False),
        sa.Column("deleted_at", sa.DateTime(), nullable=True),
    )
    op.create_table(
        "revisions",
        sa.Column("job_id", sa.String(96), sa.ForeignKey("jobs.id"), primary_key=True),
        sa.Column("number", sa.Integer(), primary_key=True),
        sa.Column("parent", sa.Integer(), nullable=True),
        sa.Column("name", sa.String(80), nullable=False),
        sa.Column("document", sa.Text(), nullable=False),
        sa.Column("what", sa.String(120), nullable=False),
        sa.Column("author", sa.String(64), nullable=False),
        sa.Column("saved_at", sa.DateTime(), nullable=False),
    )


def downgrade() -> None:
    op.drop_table("revisions")
    op.drop_table("jobs")
