"""The command line: ``noxel check | predict | ceiling FILE``, ``noxel serve | demo``, ``noxel
backup | restore FILE``.

The server and the database are loaded by the commands that need them: a check takes less time than
they do.
"""

import argparse
import datetime
import ipaddress
import re
import sys
import unicodedata
from collections.abc import Sequence
from pathlib import Path

from noxel.core.evaluate import evaluate, evaluate_ceiling, evaluate_prediction
from noxel.core.quantities import round_half_up
from noxel.core.rig import RigFile
from noxel.core.wording import Check, Evaluation
from noxel.errors import InputError, NoxelError
from noxel.formats.rig_json import LARGEST, load_rig, read_rig, write_any
from noxel.version import VERSION

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
    keep.add_argument(
        "--keep",
        type=_count,
        metavar="N",
        help="the file is a folder: a dated copy goes there, and only the newest N stay",
    )
    keep.set_defaults(run=_backup)
    invites = commands.add_parser(
        "invite", help="invite a device to the Noxel that serves your data now"
    )
    invites.add_argument("--viewing", action="store_true", help="it may look, not change anything")
    invites.set_defaults(run=_invite)
    service = commands.add_parser(
        "service", help="start Noxel with the system: print its unit, or install it for this user"
    )
    service.add_argument("do", choices=("print", "install"))
    service.add_argument(
        "arguments", nargs=argparse.REMAINDER, help="after --: what noxel serve is started with"
    )
    service.set_defaults(run=_service)
    back = commands.add_parser(
        "restore",
        help="put a backup in place of your database, also while the page is served; what was "
        "there is kept",
    )
    back.add_argument("copy", type=Path, metavar="file", help="a backup")
    back.set_defaults(run=_restore)
    for command in (keep, back, invites, service):
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
            help="port on 127.0.0.1 (default 8710, or a free one); one that is taken is refused",
        )
        command.add_argument(
            "--share-port", type=_port, metavar="N", help="the phones' port, and no other"
        )
        command.add_argument(
            "--name",
            type=_own_name,
            action="append",
            default=[],
            metavar="HOST",
            help="a name of this machine on your network, such as nas.local",
        )
        command.add_argument(
            "--behind-proxy",
            type=_address,
            metavar="ADDRESS",
            help="answer only a reverse proxy at this address, which ends TLS; needs --name",
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


def _count(text: str) -> int:
    if not text.isdecimal() or not 0 < int(text) <= 10_000:
        raise argparse.ArgumentTypeError(f"{text} is not a number of copies: 1 to 10000")
    return int(text)


def _own_name(text: str) -> str:
    name = text.lower().rstrip(".")
    if not re.fullmatch(r"(?!-)[a-z0-9-]{1,63}(\.(?!-)[a-z0-9-]{1,63})*", name):
        raise argparse.ArgumentTypeError(f"{text} is not a name of a machine, such as nas.local")
    return name


def _address(text: str) -> str:
    try:
        return str(ipaddress.ip_address(text))
    except ValueError as exc:
        raise argparse.ArgumentTypeError(f"{text} is not an address, such as 192.168.1.2") from exc


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
    if options.behind_proxy and not options.name:
        raise InputError("Behind a proxy Noxel needs the name that browsers ask for: --name.")
    from noxel.serving import run
    from noxel.store.database import Database

    return run(
        Database(_folder(options, "noxel") / "noxel.db", as_is=options.as_is), options, "Noxel"
    )


def _demo(options: argparse.Namespace) -> int:
    from noxel.demo import open_demo

    database = open_demo(_folder(options, "noxel-demo") / "demo.db", fresh=options.fresh)
    from noxel.serving import run

    return run(database, options, "Noxel, demo household")


def _progress(done: int, of: int, _says: str) -> None:
    if sys.stderr.isatty():
        end = "\n" if done == of else ""
        print(f"\rCopying: {100 * done // max(of, 1)} %", end=end, file=sys.stderr, flush=True)


def _backup(options: argparse.Namespace) -> int:
    from noxel.store.backup import backup, backup_kept

    source = _folder(options, "noxel") / "noxel.db"
    if options.keep is None:
        backup(source, options.copy, _progress)
        print(f"Backed up to {options.copy}.")
        return 0
    copy, dropped = backup_kept(source, options.copy, options.keep, _progress)
    print(f"Backed up to {copy}." + (f" {len(dropped)} older ones are gone." if dropped else ""))
    return 0


def _invite(options: argparse.Namespace) -> int:
    from noxel.serving import invite

    print(invite(_folder(options, "noxel"), viewing=options.viewing))
    return 0


def _service(options: argparse.Namespace) -> int:
    from noxel.serving import install_unit, unit

    data, arguments = _folder(options, "noxel").absolute(), options.arguments
    if options.do == "print":
        print(unit(data, arguments), end="")
        return 0
    path = install_unit(data, arguments)
    print(f"Written to {path}. Start it with: systemctl --user enable --now noxel")
    return 0


def _restore(options: argparse.Namespace) -> int:
    from noxel.store.backup import restore
    from noxel.store.database import Database

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
