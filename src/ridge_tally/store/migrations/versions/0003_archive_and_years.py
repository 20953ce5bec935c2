"""Jobs put away in an archive, and the year of each design that was worked out."""

import sqlalchemy as sa
from alembic import op

revision = "0003"
down_revision = "0002"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column("jobs", sa.Column("archived_at", sa.DateTime(), nullable=True))
    op.create_table(
        "years",
        sa.Column("job_id", sa.String(96), sa.ForeignKey("jobs.id"), primary_key=True),
        sa.Column("revision", sa.Integer(), primary_key=True),
        sa.Column("option_id", sa.String(80), primary_key=True),
        sa.Column("energy_kwh", sa.Float(), nullable=False),
    )


def downgrade() -> None:
    op.drop_table("years")
    op.drop_column("jobs", "archived_at")
