"""A checksum beside each document, and one count of all that was ever saved."""

import sqlalchemy as sa
from alembic import op

revision = "0004"
down_revision = "0003"


def upgrade() -> None:
    """Go forward: documents that are there get their checksum when they are written next."""
    for table in ("things", "rigs", "weigh_ins"):
        op.add_column(table, sa.Column("checksum", sa.String(16)))
    op.create_table("saves", sa.Column("id", sa.Integer, primary_key=True), sa.Column("count", sa.Integer, nullable=False))
    op.execute("INSERT INTO saves (id, count) VALUES (1, 0)")
