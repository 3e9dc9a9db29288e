"""The command line: ``noxel check | predict | ceiling FILE``, ``noxel serve | demo``, ``noxel
backup | restore FILE``.

The server and the database are loaded by the commands that need them: a check takes less time than
they do.
"""

import argparse
import datetime
import gc
import signal
import socket
import sys
import unicodedata
from collections.abc import Sequence
from pathlib import Path
from typing import TYPE_CHECKING

from noxel.core.evaluate import evaluate, evaluate_ceiling, evaluate_prediction
from noxel.core.quantities import round_half_up
from noxel.core.rig import RigFile
from noxel.core.wording import Check, Evaluation
from noxel.errors import InputError, NoxelError
from noxel.formats.rig_json import LARGEST, load_rig, read_rig, write_any
from noxel.version import VERSION

if TYPE_CHECKING:
    from noxel.api.sharing import Sharing
    from noxel.store.database import Database

PORT = 8710
EXIT = {"within": 0, "caution": 0, "stop": 1, "incomplete": 3}
FAULT = 70
"""A fault of Noxel's own (sysexits: EX_SOFTWARE)."""
INTERRUPTED = 130
_UNSEEN = frozenset({"Cc", "Cf", "Cs"})


def main(arguments: Sequence[str] | None = None) -> int:
    """Run the command line; returns the exit status."""
    for stream in (sys.stdout, sys.stderr):
        if hasattr(stream, "reconfigure"):
            stream.reconfigure(encoding="utf-8", errors="replace")
    options = _parser().parse_args(arguments)
    try:
        result: int = options.run(options)
    except NoxelError as exc:
        if getattr(options, "json", False):
            sys.stderr.write(write_any({"error": _as_document(exc)}))
            return exc.exit_status
        where = f"{options.file}: " if getattr(options, "file", None) else ""
        print(printable(f"noxel: {where}{exc.message}"), file=sys.stderr)
        if isinstance(exc, InputError) and len(exc.problems) > 1:
            for problem in exc.problems[:20]:
                print(printable(f"  {problem}"), file=sys.stderr)
        return exc.exit_status
    except BrokenPipeError:
        return 0
    except KeyboardInterrupt:
        return INTERRUPTED
    except Exception as exc:  # noqa: BLE001 exit status 1 means stop, and no fault may say so
        print(
            printable(f"noxel: something went wrong inside Noxel ({type(exc).__name__}: {exc})"),
            file=sys.stderr,
        )
        return FAULT
    return result


def _as_document(exc: NoxelError) -> dict[str, object]:
    """An error for a program to read."""
    problems = exc.problems if isinstance(exc, InputError) else []
    listed = [{"path": problem.path, "message": problem.message} for problem in problems]
    return {"code": exc.code, "message": exc.message, "problems": listed}


def printable(text: str) -> str:
    """A text for a terminal: control characters, which could move its cursor or change its colours,
    are shown as marks.
    """
    return "".join(
        "\ufffd" if character != "\n" and unicodedata.category(character) in _UNSEEN else character
        for character in text
    )


def _parser() -> argparse.ArgumentParser:
    parser = argparse.ArgumentParser(
        prog="noxel",
        description="Is a loaded truck and trailer within its ratings?",
        epilog="Exit status: 0 within or caution (and of every other command that did its work), 1 "
        "stop, 2 a file that cannot be read or an argument that is wrong, 3 incomplete, or nothing "
        "to predict, 70 a fault of Noxel's own, 130 interrupted.",
    )
    parser.add_argument("--version", action="version", version=f"noxel {VERSION}")
    commands = parser.add_subparsers(required=True, metavar="COMMAND")

    def on_file(name: str, run: object, says: str) -> argparse.ArgumentParser:
        command = commands.add_parser(name, help=says, description=says)
        command.add_argument(
            "file", type=Path, help="a rig file, *.noxel.json; - is standard input"
        )
        command.add_argument("--json", action="store_true", help="print the whole answer as JSON")
        command.set_defaults(run=run)
        return command

    check = on_file(
        "check",
        _check,
        "compare a weigh-in with every rating; exit status 0 within or caution, 1 stop, 3 "
        "incomplete",
    )
    check.add_argument(
        "--weigh-in", type=int, metavar="N", help="which weigh-in, from 1 (default: the last)"
    )
    on_file("predict", _predict, "predict every axle load of the rig as planned")
    on_file(
        "ceiling",
        _ceiling,
        "find the heaviest trailer that the vehicle, loaded as planned, can pull",
    )
    serve = commands.add_parser("serve", help="serve the page for your own rigs on this machine")
    serve.add_argument(
        "--data",
        type=Path,
        metavar="DIR",
        help="where the database lies (default: this user's data folder)",
    )
    serve.add_argument(
        "--as-is",
        action="store_true",
        help="open a database also where its last saves are missing; it is kept first",
    )
    serve.set_defaults(run=_serve)
    demo = commands.add_parser(
        "demo", help="serve the page with the demo household, in a database of its own"
    )
    demo.add_argument("--data", type=Path, metavar="DIR", help="where the demo's database lies")
    demo.add_argument(
        "--fresh", action="store_true", help="start again from the demo's own figures"
    )
    demo.set_defaults(run=_demo)
    keep = commands.add_parser(
        "backup", help="copy your database to a file, also while the page is served"
    )
    keep.add_argument("copy", type=Path, metavar="file", help="where to; nothing is overwritten")
    keep.set_defaults(run=_backup)
    back = commands.add_parser(
        "restore",
        help="put a backup in place of your database, also while the page is served; what was "
        "there is kept",
    )
    back.add_argument("copy", type=Path, metavar="file", help="a backup")
    back.set_defaults(run=_restore)
    for command in (keep, back):
        command.add_argument(
            "--data",
            type=Path,
            metavar="DIR",
            help="where the database lies (default: this user's data folder)",
        )
    for command in (serve, demo):
        command.add_argument(
            "--port",
            type=_port,
            metavar="N",
            default=PORT,
            help=f"port on 127.0.0.1 (default {PORT}, or a free one)",
        )
        command.add_argument(
            "--share",
            action="store_true",
            help="also let phones in that you invite, over HTTPS; prints an invitation",
        )
    return parser


def _port(text: str) -> int:
    if not text.isdecimal() or int(text) > 65_535:
        raise argparse.ArgumentTypeError(f"{text} is not a port: a number from 0 to 65535")
    return int(text)


def _print(document: object) -> None:
    sys.stdout.write(write_any(document))


def _rig(file: Path) -> RigFile:
    """The rig file named on the command line."""
    return read_rig(sys.stdin.buffer.read(LARGEST + 1)) if str(file) == "-" else load_rig(file)


def _check(options: argparse.Namespace) -> int:
    rig = _rig(options.file)
    evaluation = evaluate(rig, options.weigh_in)
    if options.json:
        _print(evaluation.model_dump(mode="json"))
    else:
        print(printable(_report(rig, evaluation)))
    return EXIT[evaluation.verdict]


def _amount(value: float | None, share: bool) -> str:
    if value is None:
        return "?"
    return f"{value * 100:.1f} %" if share else f"{round_half_up(value):,}"


def _row(check: Check) -> tuple[str, ...]:
    share = check.low is not None
    ahead = check.expected
    actual, pm, left, status = (
        _amount(check.actual, share),
        check.plus_minus,
        check.margin,
        str(check.status),
    )
    if check.at_least is not None:
        actual = f"≥ {_amount(check.at_least, share)}"
    elif ahead is not None:
        actual, pm, left, status = (
            f"≈ {_amount(ahead.actual, share)}",
            ahead.plus_minus,
            ahead.margin,
            f"expected: {ahead.outlook}",
        )
    limit = (
        f"{check.low * 100:g}–{check.high * 100:g} %"
        if check.low is not None and check.high is not None
        else _amount(check.limit, False)
    )
    room = "" if left is None else f"{_amount(abs(left), False)} {'left' if left >= 0 else 'over'}"
    return (
        check.label,
        actual,
        "" if pm is None else f"± {_amount(pm, share)}",
        limit,
        check.limit_label or "",
        room,
        status.replace("_", " "),
    )


def _report(rig: RigFile, evaluation: Evaluation) -> str:
    rows = [_row(check) for check in evaluation.checks]
    widths = [max(len(row[i]) for row in rows) for i in range(7)]
    when = ""
    if evaluation.weigh_in:
        date: datetime.date | None = rig.weigh_ins[evaluation.weigh_in - 1].date
        when = f", weigh-in {evaluation.weigh_in}{f' of {date}' if date else ''}"
    lines = [f"{rig.name or 'A rig'}{when}, in {evaluation.units.mass}", ""]
    for row in rows:
        cells = [
            text.rjust(width) if 0 < i < 4 or i == 5 else text.ljust(width)
            for i, (text, width) in enumerate(zip(row, widths, strict=True))
        ]
        lines.append("  " + "  ".join(cells).rstrip())
    lines += [
        "",
        f"{evaluation.headline.lead} {evaluation.headline.sentence}",
        *evaluation.headline.rest,
    ]
    if evaluation.advisories:
        lines += [
            "",
            *(
                f"{'!' if advisory.level == 'warning' else '·'} {advisory.message}"
                for advisory in evaluation.advisories
            ),
        ]
    return "\n".join([*lines, "", evaluation.caution])


def _predict(options: argparse.Namespace) -> int:
    prediction = evaluate_prediction(_rig(options.file))
    if options.json:
        _print(prediction.model_dump(mode="json"))
    else:
        for key, value in prediction.predicted.items():
            share = key == "tongue_share"
            unit = "" if share else f" {prediction.units.mass}"
            print(f"  {key:<18} {_amount(value, share):>9}{unit}")
        if prediction.missing:
            print("\nFor the rest, enter: " + ", ".join(prediction.missing))
    return 0 if prediction.predicted else EXIT["incomplete"]


def _ceiling(options: argparse.Namespace) -> int:
    answer = evaluate_ceiling(_rig(options.file))
    if options.json:
        _print(answer.model_dump(mode="json"))
        return 0
    unit = answer.units.mass
    for check, value in sorted(answer.limits.items(), key=lambda item: item[1]):
        note = " (not confirmed)" if check in answer.estimated else ""
        print(
            f"  {check:<20} {_amount(value, False):>9} "
            f"{unit}{' ← binds' if check == answer.binding else ''}{note}"
        )
    heaviest = (
        "not known: no limit was entered"
        if answer.ceiling is None
        else f"{_amount(answer.ceiling, False)} {unit}"
    )
    for check in answer.unknown:
        print(f"  {check:<20} {'?':>9} {unit} (no rating entered)")
    for check in answer.missing:
        print(
            f"  {check:<20} {'?':>9} {unit} "
            f"({'nothing is listed in it' if check == 'loads' else 'its load is not known'})"
        )
    print(f"\nHeaviest trailer at a tongue share of {answer.tongue_share:.1%}: {heaviest}")
    return 0


def _serve(options: argparse.Namespace) -> int:
    from noxel.store.database import Database

    return _run(
        Database(_folder(options, "noxel") / "noxel.db", as_is=options.as_is), options, "Noxel"
    )


def _demo(options: argparse.Namespace) -> int:
    from noxel.demo import open_demo

    database = open_demo(_folder(options, "noxel-demo") / "demo.db", fresh=options.fresh)
    return _run(database, options, "Noxel, demo household")


def _backup(options: argparse.Namespace) -> int:
    from noxel.store.keep import backup

    backup(_folder(options, "noxel") / "noxel.db", options.copy)
    print(f"Backed up to {options.copy}.")
    return 0


def _restore(options: argparse.Namespace) -> int:
    from noxel.store.database import Database
    from noxel.store.keep import restore

    target = _folder(options, "noxel") / "noxel.db"
    kept = restore(options.copy, target, bring_up=lambda copy: Database(copy).close())
    print(
        f"Restored from {options.copy}." + (f" What was there is kept in {kept}." if kept else "")
    )
    return 0


def _folder(options: argparse.Namespace, name: str) -> Path:
    from platformdirs import user_data_path

    folder: Path | None = options.data
    return folder or user_data_path(name, appauthor=False)


def listen(port: int) -> socket.socket:
    """Listen on a port of this machine, or on a free one when it is taken; who comes early
    waits.
    """
    for wanted in (port, 0):
        # named as TCP, so that asyncio sends answers at once (TCP_NODELAY) and not after the peer's
        # delayed ACK, 40 ms later
        listener = socket.socket(socket.AF_INET, socket.SOCK_STREAM, socket.IPPROTO_TCP)
        listener.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        try:
            listener.bind(("127.0.0.1", wanted))
            listener.listen(64)
        except OSError:
            listener.close()
            if wanted == 0:
                raise
            continue
        return listener
    raise OSError("no port is free")


def _run(database: "Database", options: argparse.Namespace, name: str) -> int:
    from noxel.api.app import create_app
    from noxel.api.sharing import Sharing
    from noxel.server import serve

    listener = listen(options.port)
    port = listener.getsockname()[1]
    print(
        f"{name}: http://127.0.0.1:{port}  (stop with Ctrl-C; data in {database.path})", flush=True
    )
    sharing = Sharing(database.path.parent / "share", port + 1) if database.path else None
    if options.share and sharing is not None:
        sharing.open()
        print(_invitation(sharing), flush=True)
    app = create_app(database, name=name, sharing=sharing)
    gc.collect()
    gc.freeze()  # what was loaded by now stays; no need to look through it at every collection
    # an answer makes thousands of small objects and drops them all: look rarely
    gc.set_threshold(20_000, 20, 20)
    signal.signal(signal.SIGTERM, _stopped)
    try:
        serve(app, listener)
    except (KeyboardInterrupt, SystemExit):
        return 0  # asked to stop, by Ctrl-C or by whoever started it
    finally:
        database.close()
    return 0


def _stopped(*_: object) -> None:
    """What ends a server that was told to stop, once it has answered what was under way."""
    raise SystemExit(0)


def _invitation(sharing: "Sharing") -> str:
    """An invitation for a phone, with its QR code; or why there is none."""
    from noxel.api.sharing import for_terminal

    try:
        address = sharing.invite(None, viewing=False)
    except NoxelError as exc:
        return f"Sharing is on, but nobody can come yet. {exc.message}"
    return f"Invitation for one phone, for ten minutes:\n\n{for_terminal(address)}\n{address}\n"
