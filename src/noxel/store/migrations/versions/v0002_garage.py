"""Vehicles, hitches and trailers become things of their own, coupled into rigs."""

import json
import uuid

import sqlalchemy as sa
from alembic import op

revision = "0002"
down_revision = "0001"

KINDS = ("vehicle", "hitch", "trailer")


def upgrade() -> None:
    """Go forward: each rig's parts become things; the rig keeps what is its own."""
    op.create_table(
        "things",
        sa.Column("id", sa.String(32), primary_key=True),
        sa.Column("kind", sa.String(16), nullable=False),
        sa.Column("name", sa.Text, nullable=False),
        sa.Column("document", sa.Text, nullable=False),
        sa.Column("created_at", sa.DateTime, nullable=False),
        sa.Column("updated_at", sa.DateTime, nullable=False),
        sa.Column("retired_at", sa.DateTime),
    )
    op.create_index("ix_things_kind", "things", ["kind"])
    # not by making the table anew: dropping the old one would take the weigh-ins with it
    for kind in KINDS:
        op.execute(f"ALTER TABLE rigs ADD COLUMN {kind}_id VARCHAR(32) REFERENCES things (id)")
        op.create_index(f"ix_rigs_{kind}_id", "rigs", [f"{kind}_id"])
    connection = op.get_bind()
    for rig, text, created, updated in connection.execute(
        sa.text("SELECT id, document, created_at, updated_at FROM rigs")
    ).all():
        document = json.loads(text)
        for kind in KINDS:
            if kind not in document:
                continue
            part, key = document.pop(kind), uuid.uuid4().hex
            kept = json.dumps(
                {"units": document["units"], "part": part},
                ensure_ascii=False,
                separators=(",", ":"),
            )
            connection.execute(
                sa.text(
                    "INSERT INTO things (id, kind, name, document, created_at, updated_at) VALUES "
                    "(:i, :k, :n, :d, :c, :u)"
                ),
                {
                    "i": key,
                    "k": kind,
                    "n": part.get("name", ""),
                    "d": kept,
                    "c": created,
                    "u": updated,
                },
            )
            connection.execute(
                sa.text(f"UPDATE rigs SET {kind}_id = :i WHERE id = :r"), {"i": key, "r": rig}
            )
        kept = json.dumps(document, ensure_ascii=False, separators=(",", ":"))
        connection.execute(
            sa.text("UPDATE rigs SET document = :d WHERE id = :r"), {"d": kept, "r": rig}
        )
    for step, before, after in connection.execute(
        sa.text("SELECT id, before, after FROM changes")
    ).all():
        connection.execute(
            sa.text("UPDATE changes SET before = :b, after = :a WHERE id = :i"),
            {"b": _parted(before), "a": _parted(after), "i": step},
        )


def _parted(text: str) -> str:
    """A recorded step in the new form: what was one part ``rig`` is it and its things."""
    parts = json.loads(text)
    rig = parts.get("rig")
    if rig is not None:
        for kind in KINDS:
            parts[kind] = rig.pop(kind, None)
    return json.dumps(parts, ensure_ascii=False, separators=(",", ":"))
