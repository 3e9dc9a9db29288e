"""Rigs, their weigh-ins and the history of their changes."""

import sqlalchemy as sa
from alembic import op

revision = "0001"
down_revision = None


def upgrade() -> None:
    """Go forward."""
    op.create_table(
        "rigs",
        sa.Column("id", sa.String(32), primary_key=True),
        sa.Column("name", sa.Text, nullable=False),
        sa.Column("document", sa.Text, nullable=False),
        sa.Column("revision", sa.Integer, nullable=False),
        sa.Column("created_at", sa.DateTime, nullable=False),
        sa.Column("updated_at", sa.DateTime, nullable=False),
        sa.Column("deleted_at", sa.DateTime),
    )
    op.create_index("ix_rigs_updated_at", "rigs", ["updated_at"])
    op.create_table(
        "weigh_ins",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column(
            "rig_id", sa.String(32), sa.ForeignKey("rigs.id", ondelete="CASCADE"), nullable=False
        ),
        sa.Column("position", sa.Integer, nullable=False),
        sa.Column("date", sa.Date),
        sa.Column("document", sa.Text, nullable=False),
        sa.UniqueConstraint("rig_id", "position"),
    )
    op.create_index("ix_weigh_ins_rig_id", "weigh_ins", ["rig_id"])
    op.create_table(
        "changes",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column(
            "rig_id", sa.String(32), sa.ForeignKey("rigs.id", ondelete="CASCADE"), nullable=False
        ),
        sa.Column("revision", sa.Integer, nullable=False),
        sa.Column("at", sa.DateTime, nullable=False),
        sa.Column("what", sa.Text, nullable=False),
        sa.Column("gesture", sa.String(64)),
        sa.Column("before", sa.Text, nullable=False),
        sa.Column("after", sa.Text, nullable=False),
        sa.UniqueConstraint("rig_id", "revision"),
    )
    op.create_index("ix_changes_rig_id", "changes", ["rig_id"])
