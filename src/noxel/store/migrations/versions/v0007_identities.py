"""Every element of a list has an identity, every change a key, the database an epoch."""

import json
from typing import Any

import sqlalchemy as sa
from alembic import op

from noxel.core.editing import identify
from noxel.store.documents import checksum_of, dump

revision = "0007"
down_revision = "0006"


def upgrade() -> None:
    """Go forward: weigh-ins by identity in place of counting, documents with identities."""
    connection = op.get_bind()
    op.add_column("saves", sa.Column("epoch", sa.String(32), nullable=False, server_default="0"))
    connection.execute(sa.text("UPDATE saves SET epoch = lower(hex(randomblob(8)))"))
    _weigh_ins(connection)
    _beside_weigh_ins()
    _own_lines()
    _changes(connection)
    _documents(connection)


def _key(position: int) -> str:
    return f"w{position:08d}"


def _rig() -> sa.Column[str]:
    return sa.Column(
        "rig_id", sa.String(32), sa.ForeignKey("rigs.id", ondelete="CASCADE"), nullable=False
    )


def _weigh_ins(connection: sa.Connection) -> None:
    op.create_table(
        "weigh_ins_by_key",
        sa.Column("id", sa.Integer, primary_key=True),
        _rig(),
        sa.Column("key", sa.String(64), nullable=False),
        sa.Column("date", sa.Date),
        sa.Column("document", sa.Text, nullable=False),
        sa.Column("checksum", sa.String(16)),
        sa.UniqueConstraint("rig_id", "key"),
    )
    for statement in (
        "INSERT INTO weigh_ins_by_key (id, rig_id, key, date, document, checksum)"
        " SELECT id, rig_id, printf('w%08d', position), date, document, checksum FROM weigh_ins",
        "CREATE TEMP TABLE facts_aside AS SELECT * FROM log_facts",
        "DELETE FROM log_facts",
        "DROP TABLE weigh_ins",
        "ALTER TABLE weigh_ins_by_key RENAME TO weigh_ins",
        "INSERT INTO log_facts SELECT * FROM facts_aside",
        "DROP TABLE facts_aside",
    ):
        connection.execute(sa.text(statement))
    op.create_index("ix_weigh_ins_rig_id", "weigh_ins", ["rig_id"])
    op.create_index("ix_weigh_ins_rig_id_date", "weigh_ins", ["rig_id", "date", "key"])


def _beside_weigh_ins() -> None:
    """Photographs, notes and tickets name their weigh-in by its key."""
    op.create_table(
        "taken",
        sa.Column("key", sa.String(64), primary_key=True),
        _rig(),
        sa.Column("made_at", sa.DateTime, nullable=False),
        sa.Column("visit", sa.String(64)),
        sa.Column("weigh_in", sa.String(64)),
    )
    op.create_table(
        "notes_by_key",
        sa.Column(
            "rig_id", sa.String(32), sa.ForeignKey("rigs.id", ondelete="CASCADE"), primary_key=True
        ),
        sa.Column("weigh_in", sa.String(64), primary_key=True),
        sa.Column("document", sa.Text, nullable=False),
    )
    for statement in (
        "INSERT INTO taken (key, rig_id, made_at, visit, weigh_in)"
        " SELECT key, rig_id, CURRENT_TIMESTAMP, visit, printf('w%08d', weigh_in) FROM received",
        "DROP TABLE received",
        "INSERT INTO notes_by_key SELECT rig_id, printf('w%08d', weigh_in), document FROM notes",
        "DROP TABLE notes",
        "ALTER TABLE notes_by_key RENAME TO notes",
        "ALTER TABLE photos ADD COLUMN weigh_in_key VARCHAR(64)",
        "UPDATE photos SET weigh_in_key = printf('w%08d', weigh_in) WHERE weigh_in IS NOT NULL",
        "ALTER TABLE photos DROP COLUMN weigh_in",
        "ALTER TABLE photos RENAME COLUMN weigh_in_key TO weigh_in",
    ):
        op.execute(statement)
    op.create_index("ix_taken_rig_id", "taken", ["rig_id"])
    op.create_index("ix_taken_visit", "taken", ["visit"])


def _own_lines() -> None:
    """The id of a line that was taken away is not given again."""
    op.create_table(
        "own_lines_once",
        sa.Column("id", sa.Integer, primary_key=True, autoincrement=True),
        _rig(),
        sa.Column("text", sa.Text, nullable=False),
        sa.Column("trip", sa.Boolean, nullable=False),
        sa.Column("done_at", sa.DateTime),
        sa.Column("done_by", sa.Text),
        sqlite_autoincrement=True,
    )
    op.execute(
        "INSERT INTO own_lines_once SELECT id, rig_id, text, trip, done_at, done_by FROM own_lines"
    )
    op.execute("DROP TABLE own_lines")
    op.execute("ALTER TABLE own_lines_once RENAME TO own_lines")
    op.create_index("ix_own_lines_rig_id", "own_lines", ["rig_id"])


def _changes(connection: sa.Connection) -> None:
    """Edits of pages that counted are forgotten; steps that can be undone name weigh-ins by key."""
    op.drop_table("edits")
    op.create_table(
        "edits",
        sa.Column(
            "rig_id", sa.String(32), sa.ForeignKey("rigs.id", ondelete="CASCADE"), primary_key=True
        ),
        sa.Column("number", sa.Integer, primary_key=True),
        sa.Column("by", sa.String(64)),
        sa.Column("touched", sa.Text, nullable=False),
    )
    steps = connection.execute(sa.text("SELECT id, before, after FROM changes")).all()
    for step, before, after in steps:
        values = {"step": step, "before": _by_key(before), "after": _by_key(after)}
        connection.execute(
            sa.text("UPDATE changes SET before = :before, after = :after WHERE id = :step"), values
        )


def _by_key(step: str) -> str:
    documents: dict[str, Any] = json.loads(step)
    return dump(
        {_key(int(part)) if part.isdecimal() else part: kept for part, kept in documents.items()}
    )


def _documents(connection: sa.Connection) -> None:
    """Give identities within every document that is sound; a damaged one stays as it is."""
    for table in ("rigs", "things", "weigh_ins"):
        name = "key" if table == "weigh_ins" else "NULL"
        rows = connection.execute(
            sa.text(f"SELECT id, document, checksum, {name} FROM {table}")
        ).all()
        for own, text, checksum, key in rows:
            if checksum is not None and checksum != checksum_of(text):
                continue
            try:
                document = json.loads(text)
                identify(document)
            except (ValueError, TypeError, AttributeError, RecursionError):
                continue
            if key is not None:
                document["id"] = key
            fresh = dump(document)
            connection.execute(
                sa.text(f"UPDATE {table} SET document = :text, checksum = :sum WHERE id = :own"),
                {"text": fresh, "sum": checksum_of(fresh), "own": own},
            )
