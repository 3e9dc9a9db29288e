"""Tries to lose, break and hang Noxel, and prints what came of it: ``make trust``, or ``python -m
tools.trust --seed 7``.
"""

import argparse
import io
import json
import logging
import os
import random
import re
import shutil
import socket
import sqlite3
import ssl
import subprocess
import sys
import time
from collections.abc import Callable, Iterator
from concurrent.futures import ThreadPoolExecutor
from contextlib import ExitStack, closing, contextmanager, suppress
from dataclasses import dataclass
from pathlib import Path
from typing import Any

import httpx2
from PIL import Image
from tests.api.stand import client_of
from tests.truth import CASES, case, rig_of

from noxel.core.editing import Change, apply_changes
from noxel.errors import NoxelError
from noxel.serving import listen
from noxel.store.backup import backup, restore
from noxel.store.database import Database
from noxel.store.rigs import Rigs
from tools.fuzz import NASTY_TEXTS, Fuzz
from tools.stage import a_folder
from tools.syncs import SyncCount

SLOW = 2.0
"""An answer that takes longer counts as a hang. [s]"""
SEARCH = 15.0
"""The same for a search for proposals, which gives up by itself after 8 s and then proves what it
can. [s]
"""
_WRITER = """
import sys
from pathlib import Path
from noxel.core.editing import Change, apply_changes
from noxel.store.database import Database
from noxel.store.rigs import Rigs
rigs = Rigs(Database(Path(sys.argv[1])))
rig = rigs.summaries()[0].id
for number in range(int(sys.argv[2]), 10**9):
    both = [Change("name", f"name {number}"), Change("vehicle.name", f"name {number}")]
    rigs.change(rig, "names", lambda document: apply_changes(document, both).document)
    print(number, flush=True)
"""


@dataclass
class Outcome:
    """What a trial did, and how often something was lost, or was broken, or hung."""

    load: str
    lost: int = 0
    broken: int = 0
    hangs: int = 0
    note: str = ""


def calls(folder: Path, lot: random.Random, count: int) -> Outcome:
    """Random calls over the OpenAPI document: no server error, no answer over two seconds, every
    rig opens afterwards.
    """
    outcome = Outcome(f"{count:,} calls")
    database = Database(folder / "calls.db")
    client = client_of(database)
    fuzz = Fuzz(client.app.openapi(), lot)  # type: ignore[attr-defined]
    for glob in sorted(CASES.glob("check--*.json"))[:8]:
        fuzz.known.append(
            client.post("/api/rigs/import", json=case(glob.stem)["file"]).json()["id"]
        )
    for method, path, query, body in fuzz.calls(count):
        start = time.monotonic()
        answer = client.request(
            method, path, params=query, content=None if body is None else json.dumps(body)
        )
        if time.monotonic() - start > (SEARCH if path.endswith("/proposals") else SLOW):
            outcome.hangs += 1
            outcome.note = f"{method} {path}"
        if answer.status_code >= 500:
            outcome.broken += 1
            outcome.note = f"{method} {path} {query} {str(body)[:200]}"
        if (
            answer.status_code == 201
            and "/rigs" in path
            and len(fuzz.known) < 40
            and "id" in answer.json()
        ):
            fuzz.known.append(answer.json()["id"])
    for listed in client.get("/api/rigs").json():
        outcome.broken += client.get(f"/api/rigs/{listed['id']}").status_code != 200
    client.delete("/api/live")
    database.close()
    return outcome


def kills(folder: Path, lot: random.Random, count: int) -> Outcome:
    """A writer killed in the middle, over and over: each acknowledged step is there, each step is
    whole.
    """
    path, found, saved = folder / "kills.db", Outcome(f"{count} kills"), 0
    with closing(Database(path)) as database:
        rig = Rigs(database).add(rig_of("check--three-passes"))
    for _ in range(count):
        call = [sys.executable, "-c", _WRITER, str(path), str(saved + 1)]
        with subprocess.Popen(call, stdout=subprocess.PIPE, text=True) as writer:
            stdout, least = writer.stdout, saved + lot.randint(1, 12)
            while stdout and saved < least:
                saved = int(stdout.readline())
            writer.kill()
            saved = max([saved, *(int(line) for line in (stdout or ()) if line.endswith("\n"))])
        with closing(sqlite3.connect(path)) as connection:
            found.broken += connection.execute("PRAGMA integrity_check").fetchone() != ("ok",)
        with closing(Database(path)) as database:
            document = Rigs(database).open(rig).document
        there = int(document["name"].split()[1])
        found.lost += there < saved
        found.broken += document["name"] != document["vehicle"]["name"]
        saved = there
    found.load += f", {saved:,} saves"
    return found


def syncs(folder: Path, _lot: random.Random, count: int) -> Outcome:
    """Saves that were acknowledged before the log was brought to the disk."""
    outcome = Outcome(f"{count} saves")
    with closing(Database(folder / "syncs.db")) as database:
        rigs = Rigs(database)
        rig = rigs.add(rig_of("check--three-passes"))
        pooled = database.engine.raw_connection()
        connection: Any = pooled.driver_connection
        pooled.close()
        counter = SyncCount(connection)
        for number in range(count):
            before, change = counter.count, [Change("name", f"name {number}")]

            def make(document: Any, change: list[Change] = change) -> Any:
                return apply_changes(document, change).document

            rigs.change(rig, "name", make)
            outcome.lost += counter.count == before
        outcome.note = f"{counter.count} syncs"
    return outcome


def two_clients(_folder: Path, lot: random.Random, count: int) -> Outcome:
    """Two clients type into one rig through the page's own line, in Chromium, over a network that
    loses, repeats and delays: every sequence that a model does not agree with counts as lost.
    """
    more = {"NOXEL_SEQUENCES": str(count), "NOXEL_SEED": str(lot.randint(0, 10**6))}
    call = [sys.executable, "-m", "unittest", "tests.page.test_line"]
    row = subprocess.run(
        call, env={**os.environ, **more}, capture_output=True, text=True, check=False
    )
    outcome = Outcome(f"{count:,} sequences", lost=row.stderr.count("\nFAIL: "))
    outcome.broken = int(row.returncode != 0 and not outcome.lost)
    return outcome


def faults(folder: Path, _lot: random.Random, count: int) -> Outcome:
    """A disk that is full, on a small mount of its own: refused in words, nothing half done, and
    all well with room again.
    """
    small, count = folder / "small", max(count, 300)  # fewer do not fill it
    small.mkdir()
    mount = shutil.which("mount")
    if (
        os.geteuid() != 0
        or not mount
        or subprocess.run(
            [mount, "-t", "tmpfs", "-o", "size=1m", "tmpfs", small], check=False
        ).returncode
    ):
        return Outcome("0 writes", note="skipped: this machine allows no mount")
    outcome = Outcome(f"{count} writes on a disk of 1 MB")
    try:
        with closing(Database(small / "noxel.db")) as database:
            client = client_of(database)
            rig = client.post("/api/rigs/import", json=rig_of("check--three-passes")).json()["id"]
            kept, refused = "", 0
            for number in range(count):
                note = f"{number} " + "x" * 3900
                answer = client.patch(
                    f"/api/rigs/{rig}", json={"changes": [{"path": "note", "text": note}]}
                )
                if answer.status_code == 200:
                    kept = note
                else:
                    refused += 1
                    outcome.broken += answer.status_code != 507
                outcome.lost += client.get(f"/api/rigs/{rig}").json()["rig"].get("note", "") != kept
            outcome.note = f"{refused} refused in words"
            outcome.broken += refused == 0
    finally:
        subprocess.run(["umount", small], check=False)
    return outcome


def imports(folder: Path, lot: random.Random, count: int) -> Outcome:
    """Hostile files: rig files, logbooks, lists, backups cut short or overwritten; all of each or
    nothing.
    """
    outcome = Outcome(f"{count} files")
    path = folder / "imports.db"
    database = Database(path)
    client = client_of(database)
    rig = client.post("/api/rigs/import", json=rig_of("check--three-passes")).json()["id"]
    sound = json.dumps(rig_of("check--kilograms")).encode()
    copy = folder / "sound.db"
    backup(path, copy)
    before = client.get(f"/api/rigs/{rig}/file").content
    for number in range(count):
        data = bytearray(lot.choice((sound, copy.read_bytes())))
        for _ in range(lot.randint(1, 20)):
            data[lot.randrange(len(data))] = lot.randrange(256)
        data = data[: lot.randint(0, len(data))] if lot.random() < 0.4 else data
        there = len(client.get("/api/rigs").json())
        for address in ("/api/rigs/import", "/api/logbook"):
            answer = client.post(address, content=bytes(data))
            outcome.broken += answer.status_code >= 500
            there += answer.status_code == 201 and address.endswith("import")
        outcome.lost += len(client.get("/api/rigs").json()) != there
        line = ";".join(lot.choice(NASTY_TEXTS[:-2]) for _ in range(4))
        for address in ("items", "tickets"):
            outcome.broken += (
                client.post(
                    f"/api/rigs/{rig}/{address}/preview", json={"text": f"{line}\n{line}"}
                ).status_code
                >= 500
            )
        (folder / "hostile.db").write_bytes(bytes(data))
        target = folder / f"target-{number % 2}.db"
        with suppress(NoxelError):
            restore(folder / "hostile.db", target)
    outcome.lost += client.get(f"/api/rigs/{rig}/file").content != before
    database.close()
    return outcome


def again(test: str) -> Callable[[Path, random.Random, int], Outcome]:
    """A test of the suite, so many times: each failure counts as lost."""

    def trial(_folder: Path, _lot: random.Random, count: int) -> Outcome:
        call = [sys.executable, "-m", "unittest", *[test] * count]
        row = subprocess.run(call, capture_output=True, text=True, check=False)
        outcome = Outcome(
            f"{count} times", lost=len(re.findall("^(?:FAIL|ERROR): ", row.stderr, re.M))
        )
        outcome.broken = int(row.returncode != 0 and not outcome.lost)
        outcome.note = "skipped here" if "skipped" in row.stderr else ""
        return outcome

    return trial


@contextmanager
def _served(folder: Path) -> Iterator[tuple[int, int, Callable[[], float]]]:
    """The server as it is started, shared: its port, the devices' port, and how much memory it has
    taken at most [MB].
    """
    with closing(listen(0)) as own, closing(listen(0)) as shares:
        port, door = own.getsockname()[1], shares.getsockname()[1]
    call = [sys.executable, "-m", "noxel", "serve", "--data", str(folder), "--share"]
    call += ["--name", "nas.local", "--port", str(port), "--share-port", str(door)]
    with subprocess.Popen(call, stdout=subprocess.PIPE, stderr=subprocess.DEVNULL) as server:
        if server.stdout:
            server.stdout.readline()

        def most() -> float:
            status = Path(f"/proc/{server.pid}/status").read_text(encoding="ascii")
            return int(status.partition("VmHWM:")[2].split()[0]) / 1000

        try:
            httpx2.get(f"http://127.0.0.1:{port}/api/rigs")
            yield port, door, most
        finally:
            server.terminate()


def strangers(folder: Path, _lot: random.Random, count: int) -> Outcome:
    """Forms of 20 MB from nobody, half sent: at most 60 MB for all of them, and the owner is
    answered.
    """
    outcome = Outcome(f"{count} half-sent forms")
    blind = ssl.create_default_context()
    blind.check_hostname, blind.verify_mode = False, ssl.CERT_NONE
    head = "POST /join HTTP/1.1\r\nHost: nas.local\r\nContent-Length: 20000000\r\nContent-Type: "
    with _served(folder) as (port, door, most), ExitStack() as held:
        idle = most()
        for _ in range(count):
            plain = socket.create_connection(("127.0.0.1", door), timeout=SLOW)
            there = held.enter_context(blind.wrap_socket(plain))
            with suppress(OSError):  # it may be refused at any byte
                there.sendall(f"{head}application/x-www-form-urlencoded\r\n\r\n".encode())
                for _ in range(300):
                    there.sendall(b"x" * 65_536)
        outcome.hangs += httpx2.get(f"http://127.0.0.1:{port}/api/health").status_code != 200
        outcome.broken = int(most() - idle > 60)
        outcome.note = f"{most() - idle:.0f} MB above idle"
    return outcome


def photographs(folder: Path, _lot: random.Random, count: int) -> Outcome:
    """Photographs of 89 million pixels, all at once, while somebody types: the server's memory
    stays, a figure is answered.
    """
    outcome = Outcome(f"{count} of 89 megapixels")
    large = io.BytesIO()
    Image.effect_noise((10_900, 8_200), 40).save(large, "JPEG", quality=30)
    with _served(folder) as (port, _, most):
        here = f"http://127.0.0.1:{port}"
        owner = httpx2.Client(base_url=here, headers={"origin": here}, timeout=120)
        rig = owner.post("/api/rigs/import", json=rig_of("check--three-passes")).json()["id"]
        idle, kind = most(), {"content-type": "application/octet-stream"}

        def send(number: int) -> int:
            address = f"/api/rigs/{rig}/photos/p{number}?about=vehicle"
            return owner.put(address, content=large.getvalue(), headers=kind).status_code

        with ThreadPoolExecutor(count) as senders:
            sent = [senders.submit(send, number) for number in range(count)]
            slowest = 0.0
            while not all(answer.done() for answer in sent):
                start = time.monotonic()
                change = {"path": "note", "text": str(start)}
                owner.patch(f"/api/rigs/{rig}", json={"changes": [change]}).raise_for_status()
                slowest = max(slowest, time.monotonic() - start)
        outcome.lost = sum(answer.result() != 200 for answer in sent)
        outcome.hangs = int(slowest > SLOW)
        above = most() - idle
        outcome.broken = int(above > 400)
        outcome.note = f"{above:.0f} MB above idle, a figure in {slowest:.2f} s at most"
    return outcome


_BACKUP = "tests.store.test_backup.Keeping"
TRIALS: tuple[tuple[str, Callable[[Path, random.Random, int], Outcome], int], ...] = (
    ("random calls", calls, 10_000),
    ("kill -9 while saving", kills, 200),
    ("saves brought to the disk", syncs, 200),
    ("two clients against a model", two_clients, 10_000),
    ("a full disk", faults, 300),
    ("hostile imports", imports, 300),
    (
        "five restores under writers",
        again(f"{_BACKUP}.test_a_restore_under_writers_loses_no_acknowledged_edit"),
        20,
    ),
    (
        "stops",
        again("tests.test_server.Served.test_a_stop_leaves_one_file_that_holds_everything"),
        50,
    ),
    ("own name and proxy, own hosts", again("tests.test_namespaces"), 5),
    ("strangers' memory", strangers, 60),
    ("photographs' memory", photographs, 8),
)


def main() -> int:
    """Run every trial; 0 only when nothing was lost, broken or hung."""
    parser = argparse.ArgumentParser(prog="make trust", description=__doc__)
    parser.add_argument("--seed", type=int, default=2026)
    parser.add_argument(
        "--scale", type=float, default=1.0, help="how much of the usual load (1: all of it)"
    )
    options = parser.parse_args()
    logging.getLogger("noxel").setLevel(logging.CRITICAL)
    bad = 0
    print(f"{'test':<28} {'load':<28} {'lost':>5} {'broken':>7} {'hangs':>6}")
    for name, trial, load in TRIALS:
        with a_folder() as folder:
            got = trial(folder, random.Random(options.seed), max(1, int(load * options.scale)))
        print(
            f"{name:<28} {got.load:<28} {got.lost:>5} {got.broken:>7} {got.hangs:>6}  {got.note}",
            flush=True,
        )
        bad += got.lost + got.broken + got.hangs
    return 1 if bad else 0


if __name__ == "__main__":
    sys.exit(main())
