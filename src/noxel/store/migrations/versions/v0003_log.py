"""What the log keeps of each weigh-in: its words for searching, and its figures as last
computed.
"""

import json

import sqlalchemy as sa
from alembic import op

revision = "0003"
down_revision = "0002"


def upgrade() -> None:
    """Go forward: a row beside each weigh-in; its figures are computed when the log is opened."""
    op.create_table(
        "log_facts",
        sa.Column(
            "weigh_in_id",
            sa.Integer,
            sa.ForeignKey("weigh_ins.id", ondelete="CASCADE"),
            primary_key=True,
        ),
        sa.Column("words", sa.Text, nullable=False),
        sa.Column("basis", sa.String(64)),
        sa.Column("facts", sa.Text),
    )
    op.create_index("ix_weigh_ins_rig_id_date", "weigh_ins", ["rig_id", "date", "position"])
    connection = op.get_bind()
    for key, text in connection.execute(sa.text("SELECT id, document FROM weigh_ins")).all():
        connection.execute(
            sa.text("INSERT INTO log_facts (weigh_in_id, words) VALUES (:i, :w)"),
            {"i": key, "w": _words(json.loads(text))},
        )


def _words(weigh_in: dict[str, object]) -> str:
    """What can be found, as it was when this form was new."""
    texts = [str(weigh_in.get(key) or "") for key in ("date", "place", "note")]
    passes = weigh_in.get("passes")
    for pass_ in passes if isinstance(passes, list) else []:
        texts += [str(pass_.get(key) or "") for key in ("ticket_number", "aboard", "note")]
    return "\n".join(text.casefold() for text in texts if text)
