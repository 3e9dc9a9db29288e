"""The practice yard: who practises on this machine, and what each has learned; towing guides kept
in the garage.
"""

import sqlalchemy as sa
from alembic import op

revision = "0006"
down_revision = "0005"


def upgrade() -> None:
    """Go forward: three tables, empty at first."""
    op.create_table(
        "learners",
        sa.Column("id", sa.String(32), primary_key=True),
        sa.Column("name", sa.String(60), nullable=False, unique=True),
        sa.Column("created_at", sa.DateTime, nullable=False),
    )
    op.create_table(
        "guides",
        sa.Column("id", sa.String(32), primary_key=True),
        sa.Column("name", sa.String(120), nullable=False),
        sa.Column("unit", sa.String(2), nullable=False),
        sa.Column("text", sa.Text, nullable=False),
        sa.Column("created_at", sa.DateTime, nullable=False),
    )
    op.create_table(
        "cards",
        sa.Column(
            "learner_id",
            sa.String(32),
            sa.ForeignKey("learners.id", ondelete="CASCADE"),
            primary_key=True,
        ),
        sa.Column("about", sa.String(80), primary_key=True),
        sa.Column("box", sa.Integer, nullable=False),
        sa.Column("due", sa.Date, nullable=False),
        sa.Column("right", sa.Integer, nullable=False),
        sa.Column("wrong", sa.Integer, nullable=False),
        sa.Column("last", sa.Date, nullable=False),
    )
