"""A checksum beside each document, one count of all that was ever saved, and what the last edits of
each rig did.
"""

import sqlalchemy as sa
from alembic import op

revision = "0004"
down_revision = "0003"


def upgrade() -> None:
    """Go forward: documents that are there get their checksum when they are written next."""
    for table in ("things", "rigs", "weigh_ins"):
        op.add_column(table, sa.Column("checksum", sa.String(16)))
    op.add_column("rigs", sa.Column("edits", sa.Integer, nullable=False, server_default="0"))
    op.add_column(
        "rigs", sa.Column("example", sa.Boolean, nullable=False, server_default=sa.false())
    )
    op.create_table(
        "edits",
        sa.Column(
            "rig_id", sa.String(32), sa.ForeignKey("rigs.id", ondelete="CASCADE"), primary_key=True
        ),
        sa.Column("number", sa.Integer, primary_key=True),
        sa.Column("page", sa.String(64)),
        sa.Column("did", sa.Text, nullable=False),
    )
    op.create_table(
        "saves",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("count", sa.Integer, nullable=False),
    )
    op.execute("INSERT INTO saves (id, count) VALUES (1, 0)")
