"""The firm's own equipment beside the shipped samples."""

import sqlalchemy as sa
from alembic import op

revision = "0002"
down_revision = "0001"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "own_equipment",
        sa.Column("kind", sa.String(16), primary_key=True),
        sa.Column("id", sa.String(80), primary_key=True),
        sa.Column("document", sa.Text(), nullable=False),
        sa.Column("saved_at", sa.DateTime(), nullable=False),
    )


def downgrade() -> None:
    op.drop_table("own_equipment")
