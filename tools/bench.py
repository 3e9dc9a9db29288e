"""Measures what docs/architecture.md promises: ``make bench``. Figures, not verdicts: nothing here
can fail a change.
"""

import gzip
import http.client
import itertools
import json
import os
import re
import resource
import statistics
import subprocess
import sys
import time
import urllib.request
from collections.abc import Callable
from dataclasses import replace
from functools import partial
from importlib.resources import files
from pathlib import Path
from typing import Any

from noxel.core.adjust import (
    Baseline,
    Programme,
    actions,
    baseline_of,
    conditions,
    propose,
    state_of,
)
from noxel.core.editing import Change, apply_changes
from noxel.core.evaluate import evaluate
from noxel.core.match import match_pair, match_vehicle, trailer_of_rig
from noxel.core.mechanics import predict
from noxel.core.practice import LESSONS, Yard, do_act, lesson_view, open_lesson, yard_view
from noxel.core.rig import dump_rig, parse_rig
from noxel.demo import load_demo
from noxel.formats.rig_json import read_rig
from noxel.store.database import Database
from noxel.store.rigs import Rigs
from tools.felt import TYPING, first_look, typing_and_going
from tools.stage import a_browser, a_folder, serving
from tools.walks import walk_all

PAGE = Path(__file__).parent.parent / "src/noxel/page"


def median_ms(act: Callable[[], object], times: int = 60) -> float:
    """The median time of an action. [ms]"""
    spent = []
    for _ in range(times):
        start = time.perf_counter()
        act()
        spent.append((time.perf_counter() - start) * 1000)
    return statistics.median(spent)


def say(words: str, found: str, limit: str) -> None:
    """One line of the report."""
    print(f"{words:<58} {found:>14}   {limit}", flush=True)


def in_core() -> None:
    """The core alone."""
    rig = read_rig((files("noxel.demo") / "observatory.noxel.json").read_bytes())
    document = dump_rig(rig)
    say(
        "evaluate a full weigh-in (three passes)",
        f"{median_ms(lambda: evaluate(rig)):.1f} ms",
        "limit 5 ms",
    )
    say("validate a rig file", f"{median_ms(lambda: parse_rig(document)):.1f} ms", "")
    say("predict", f"{median_ms(lambda: predict(rig)) * 1000:.0f} µs", "limit 1000 µs")
    assert rig.trailer  # noqa: S101
    pullers = [match_vehicle(str(n), str(n), rig, None) for n in range(50)]
    trailers = (trailer_of_rig(str(n), str(n), rig, in_a_rig=True) for n in range(50))
    pulled = [trailer for trailer in trailers if trailer is not None]

    def match_all() -> None:
        for puller in pullers:
            for other in pulled:
                match_pair(puller, other, 0.13, "lb")

    say("match 50 vehicles with 50 trailers", f"{median_ms(match_all, 5):.0f} ms", "limit 1000 ms")
    bench = crowded()
    lesson = open_lesson("engaged", "bench")
    say(
        "an act of the practice yard, a ticket taken",
        f"{median_ms(lambda: yard_view(do_act(_asked(lesson), 'wait'))):.0f} ms",
        "limit 50 ms",
    )
    say(
        "a lesson opened, the slowest of all",
        f"{max(median_ms(partial(_opened, name), 1) for name in LESSONS):.0f} ms",
        "limit 300 ms",
    )
    say(
        "proposals for 60 items, 5 tanks and bars",
        f"{median_ms(lambda: propose(bench), 3):.0f} ms",
        "limit 1000 ms",
    )
    rows = bench.checks(bench.rig)
    programme = Programme(state_of(bench), actions(bench), conditions(bench, rows))
    say(
        "of that, one raw HiGHS solve of the same model",
        f"{median_ms(programme.solve, 3):.0f} ms",
        "three are made",
    )
    change = [Change("vehicle.ratings.gvwr", "7,051")]
    say(
        "understand one typed figure",
        f"{median_ms(lambda: apply_changes(document, change)):.1f} ms",
        "",
    )


def on_the_command_line() -> None:
    """``noxel check`` against an interpreter that does nothing, in processor time."""

    def spent(*call: str) -> float:
        """The least of seven runs. [s]"""
        runs = []
        compiled = {**os.environ, "PYTHONDONTWRITEBYTECODE": ""}  # as it is where it is installed
        for _ in range(7):
            before = resource.getrusage(resource.RUSAGE_CHILDREN)
            command = [sys.executable, *call]
            subprocess.run(command, check=False, stdout=subprocess.DEVNULL, env=compiled)
            after = resource.getrusage(resource.RUSAGE_CHILDREN)
            runs.append(after.ru_utime + after.ru_stime - before.ru_utime - before.ru_stime)
        return min(runs)

    file = str(files("noxel.demo") / "observatory.noxel.json")
    check, bare = spent("-m", "noxel", "check", file), spent("-c", "pass")
    times = f"{check / bare:.0f} × a bare interpreter, limit 0.4 s"
    say("noxel check, processor time", f"{check:.2f} s", times)


def _asked(yard: Yard) -> Yard:
    """A yard whose rig stands on the platforms and has asked to be weighed."""
    return replace(yard, on_scale=True, asked=True, taken=False)


def _opened(name: str) -> None:
    lesson_view(name, open_lesson(name, "bench"))


def crowded() -> Baseline:
    """The demo rig with sixty items and five tanks, over its ratings."""
    document = dump_rig(read_rig((files("noxel.demo") / "observatory.noxel.json").read_bytes()))
    document["loads"] = [
        {
            "name": f"thing {n}",
            "on": "trailer" if n % 3 else "vehicle",
            "mass": 4 + n % 9,
            "position": 70 + (n * 37) % 190,
        }
        for n in range(60)
    ]
    document["tanks"] = [
        {
            "name": f"tank {n}",
            "fluid": "fresh",
            "on": "trailer",
            "capacity": 12,
            "position": 60 + 40 * n,
            "levels": {"leaving": 0.6},
        }
        for n in range(5)
    ]
    return baseline_of(parse_rig(document))


def _headers(address: str) -> dict[str, str]:
    """As Noxel's own page sends them."""
    return {"content-type": "application/json", "origin": address}


def over_http(address: str, document: object) -> None:
    """The server, on one kept connection as a browser holds it."""
    host = address.removeprefix("http://")
    connection = http.client.HTTPConnection(host)
    body = json.dumps(document)

    def ask(method: str, path: str, payload: str | None = None) -> bytes:
        connection.request(method, path, payload, _headers(address))
        return connection.getresponse().read()

    # turn by turn, so that a machine that runs faster now and slower then treats both alike
    health, posted = [], []
    for _ in range(200):
        health.append(median_ms(lambda: ask("GET", "/api/health"), 1))
        posted.append(median_ms(lambda: ask("POST", "/api/evaluate", body), 1))
    quick, full = statistics.median(health), statistics.median(posted)
    say("GET health over HTTP", f"{quick:.1f} ms", "")
    say("POST evaluate over HTTP", f"{full:.1f} ms", f"{full / quick:.1f} × health, limit 3 ×")


def a_long_list(address: str) -> None:
    """A figure typed into a list of 10,000 items, until the whole sheet is answered."""
    connection = http.client.HTTPConnection(address.removeprefix("http://"))

    def ask(method: str, path: str, body: object = None) -> Any:
        connection.request(method, path, json.dumps(body), _headers(address))
        return json.loads(connection.getresponse().read())

    document = dump_rig(read_rig((files("noxel.demo") / "observatory.noxel.json").read_bytes()))
    document["loads"] = [
        {
            "name": f"item {number}",
            "on": "trailer" if number % 3 else "vehicle",
            "mass": 0.01 + number % 9 / 100,
            "position": 70 + number * 37 % 190,
        }
        for number in range(10_000)
    ]
    rig = ask("POST", "/api/rigs/import", document)["id"]
    own = ask("GET", f"/api/rigs/{rig}")["rig"]["loads"][17]["id"]
    spent = []
    for turn in range(21):
        typed = {"path": f"loads[{own}].mass", "text": f"0.{10 + turn}"}
        body = json.dumps({"changes": [typed], "gesture": f"item {turn // 3}"})
        start = time.perf_counter()
        connection.request("PATCH", f"/api/rigs/{rig}", body, _headers(address))
        connection.getresponse().read()
        spent.append((time.perf_counter() - start) * 1000)
    found = f"{statistics.median(spent):.0f} ms"
    say("a figure typed into a list of 10,000 items", found, "limit 300 ms")


def saving() -> None:
    """One change in the store, brought to the disk before it is acknowledged, and left to the
    system.
    """
    with a_folder() as folder:
        database = Database(folder / "saving.db")
        rigs = Rigs(database)
        rig = load_demo(rigs)[-1]

        def change() -> None:
            rigs.enter(
                rig, "GVWR", [Change("vehicle.ratings.gvwr", str(7000 + next(numbers) % 90))]
            )

        numbers = itertools.count()
        kept = median_ms(change, 50)
        pooled = database.engine.raw_connection()
        pooled.driver_connection.execute("PRAGMA synchronous = NORMAL")  # type: ignore[union-attr]
        pooled.close()
        say(
            "one change saved; the same, left to the system",
            f"{kept:.1f}, {median_ms(change, 50):.1f} ms",
            "",
        )
        database.close()


def long_logs() -> None:
    """The log's first page, search and chart, and one typed figure, with 10, 300 and 10,000
    weigh-ins, turn by turn.
    """
    document = dump_rig(read_rig((files("noxel.demo") / "observatory.noxel.json").read_bytes()))
    one = document["weigh_ins"][-1]
    with a_folder() as folder:
        database = Database(folder / "long.db")
        ids = {}
        for count in (10, 300, 10_000):
            weigh_ins = [{**one, "place": f"Alder Bend {number}"} for number in range(count)]
            start = time.perf_counter()
            ids[count] = Rigs(database).add(
                {**document, "name": str(count), "weigh_ins": weigh_ins}
            )
            if count == 10_000:
                say(
                    "bring in a rig with 10,000 weigh-ins",
                    f"{time.perf_counter() - start:.1f} s",
                    "",
                )
        with serving(database) as address:
            connection = http.client.HTTPConnection(address.removeprefix("http://"))

            def ask(path: str, body: str | None = None) -> float:
                start = time.perf_counter()
                connection.request(
                    "PATCH" if body else "GET", f"/api/rigs/{path}", body, _headers(address)
                )
                answer = connection.getresponse()
                answer.read()
                if answer.status != 200:
                    raise SystemExit(f"{path}: {answer.status}")
                return (time.perf_counter() - start) * 1000

            for count in (300, 10_000):
                say(
                    f"its charts for the first time, {count:,} weigh-ins",
                    f"{ask(f'{ids[count]}/log/chart'):.0f} ms",
                    "",
                )
            for name, path in (
                ("first page of the log", "log"),
                ("search in the log", "log?words=bend+7"),
                ("charts of the log", "log/chart"),
                ("open a rig", ""),
                ("one typed figure", "?typed"),
            ):
                spent: dict[int, list[float]] = {count: [] for count in ids}
                for turn in range(31):
                    for count, rig in ids.items():
                        if path == "?typed":
                            step = {
                                "changes": [
                                    {"path": "vehicle.ratings.gcwr", "text": str(15000 + turn)}
                                ],
                            }
                            spent[count].append(ask(rig, json.dumps(step)))
                        else:
                            spent[count].append(ask(f"{rig}/{path}".rstrip("/")))
                text = ", ".join(f"{statistics.median(spent):.0f}" for spent in spent.values())
                say(f"{name}: 10, 300, 10,000 weigh-ins", f"{text} ms", "")
        database.close()


def an_hours_typing(address: str, rig: str) -> None:
    """A change a second, for an hour; each in a field of its own step, so that each is kept for
    undoing.
    """
    connection = http.client.HTTPConnection(address.removeprefix("http://"))
    for number in range(3600):
        change = {"path": "vehicle.ratings.gvwr", "text": str(7000 + number % 90)}
        body = json.dumps({"changes": [change], "what": "GVWR", "gesture": f"typing {number}"})
        connection.request("PATCH", f"/api/rigs/{rig}", body, _headers(address))
        connection.getresponse().read()


def in_browser(address: str, rig: str) -> None:
    """The page."""
    first = re.findall(
        r'(?:src|href)="/(assets/[^"]+\.js)"', (PAGE / "index.html").read_text("utf-8")
    )
    scripts = [(PAGE / name).read_bytes() for name in first]
    say(
        "script of the first page, compressed",
        f"{sum(len(gzip.compress(script)) for script in scripts) / 1000:.0f} kB",
        "limit 200 kB",
    )
    with a_browser() as browser:
        opened = []
        for _ in range(5):  # each in a browser context of its own: nothing cached
            context = browser.new_context()
            page = context.new_page()
            start = time.perf_counter()
            page.goto(f"{address}/rigs/{rig}/margins")
            page.wait_for_selector("[data-verdict]")
            opened.append((time.perf_counter() - start) * 1000)
            context.close()
        say(
            "first page usable, median of 5", f"{statistics.median(opened):.0f} ms", "limit 1000 ms"
        )
        page = browser.new_page()
        page.goto(f"{address}/rigs/{rig}/plates")
        page.wait_for_selector('input[data-path="vehicle.ratings.gvwr"]')
        spent = page.evaluate(TYPING, 7100)
        say(
            "typing to redrawn answer, median of 30",
            f"{statistics.median(spent):.0f} ms",
            "limit 100 ms",
        )
        other = browser.new_context().new_page()  # which hears of each change
        other.goto(f"{address}/rigs/{rig}/margins")
        other.wait_for_selector("[data-verdict]")
        spent = page.evaluate(TYPING, 7200)
        say("the same with a second page open", f"{statistics.median(spent):.0f} ms", "")
        first_look(browser, address, rig, say)
        typing_and_going(browser, address, rig, say)


def memory_mb(process: int) -> float:
    """Memory of a process, where the system tells. [MB]"""
    status = Path(f"/proc/{process}/status")
    if not status.exists():
        return float("nan")
    line = next(
        line for line in status.read_text(encoding="ascii").splitlines() if line.startswith("VmRSS")
    )
    return int(line.split()[1]) / 1000


def main() -> None:
    """Everything; the server is a process of its own, as it is in use."""
    in_core()
    on_the_command_line()
    saving()
    long_logs()
    with a_folder() as folder:
        call = [sys.executable, "-m", "noxel", "demo", "--data", str(folder), "--port", "0"]
        with subprocess.Popen(call, stdout=subprocess.PIPE, text=True) as server:
            try:
                line = server.stdout.readline() if server.stdout else ""
                address = next(word for word in line.split() if word.startswith("http"))
                with urllib.request.urlopen(f"{address}/api/rigs") as answer:
                    first = json.load(answer)[0]["id"]
                with urllib.request.urlopen(f"{address}/api/rigs/{first}/file") as answer:
                    over_http(address, json.load(answer))
                in_browser(address, first)
                say(
                    "memory of the server after all this",
                    f"{memory_mb(server.pid):.0f} MB",
                    "limit 200 MB",
                )
                an_hours_typing(address, first)
                say(
                    "memory after an hour's typing (3,600 changes)",
                    f"{memory_mb(server.pid):.0f} MB",
                    "limit 200 MB",
                )
                a_long_list(address)
            finally:
                server.terminate()
    walk_all(say)


if __name__ == "__main__":
    main()
