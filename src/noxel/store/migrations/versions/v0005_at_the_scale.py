"""What phones bring from the scale: tickets by key, photographs, notes of a drive, own lines, the
visit under way.
"""

import sqlalchemy as sa
from alembic import op

revision = "0005"
down_revision = "0004"


def upgrade() -> None:
    """Go forward: five tables, empty at first."""
    op.create_table(
        "received",
        sa.Column("key", sa.String(64), primary_key=True),
        _rig(index=True),
        sa.Column("visit", sa.String(64), nullable=False, index=True),
        sa.Column("weigh_in", sa.Integer, nullable=False),
    )
    op.create_table(
        "photos",
        sa.Column("id", sa.String(64), primary_key=True),
        _rig(index=True),
        sa.Column("about", sa.String(300), nullable=False),
        sa.Column("weigh_in", sa.Integer),
        sa.Column("visit", sa.String(64)),
        sa.Column("width", sa.Integer, nullable=False),
        sa.Column("height", sa.Integer, nullable=False),
        sa.Column("added_at", sa.DateTime, nullable=False),
        sa.Column("picture", sa.LargeBinary, nullable=False),
        sa.Column("small", sa.LargeBinary, nullable=False),
    )
    op.create_table(
        "notes",
        _rig(primary_key=True),
        sa.Column("weigh_in", sa.Integer, primary_key=True),
        sa.Column("document", sa.Text, nullable=False),
    )
    op.create_table(
        "own_lines",
        sa.Column("id", sa.Integer, primary_key=True),
        _rig(index=True),
        sa.Column("text", sa.Text, nullable=False),
        sa.Column("trip", sa.Boolean, nullable=False),
        sa.Column("done_at", sa.DateTime),
        sa.Column("done_by", sa.Text),
    )
    op.create_table(
        "visits", _rig(primary_key=True), sa.Column("document", sa.Text, nullable=False)
    )


def _rig(**how: bool) -> sa.Column[str]:
    whose = sa.ForeignKey("rigs.id", ondelete="CASCADE")
    return sa.Column("rig_id", sa.String(32), whose, nullable=False, **how)  # type: ignore[arg-type]
