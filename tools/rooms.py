"""The rooms as a picture, from the imports themselves: each room on its layer, a line for every
room that it knows, and the way of one figure through them.
"""

import ast
import tomllib
from html import escape
from pathlib import Path

import grimp

ROOT = Path(__file__).parent.parent
WIDE, HIGH, GAP = 960, 46, 30
OUTSIDE = (("cli", "page"), ("api",), ("store", "formats", "reader", "share", "instruments", "sim"))
WAY = ("page", "api", "editing", "store", "mechanics", "limits", "wording", "evaluate", "page")
"""Where a typed figure goes, until its answer stands on the page."""


def _layers() -> list[tuple[str, ...]]:
    """The layers of the product, from the import contracts, the highest first."""
    settings = tomllib.loads((ROOT / "pyproject.toml").read_text(encoding="utf-8"))
    contracts = settings["tool"]["importlinter"]["contracts"]
    core = next(contract for contract in contracts if contract.get("containers") == ["noxel.core"])
    rooms = [tuple(name.strip() for name in layer.split("|")) for layer in core["layers"]]
    return [*OUTSIDE, *rooms]


def _says(room: str) -> str:
    """What a room's docstring says it is, in a few words."""
    source = ROOT / "src/noxel"
    for path in (source / "core" / room / "__init__.py", source / "core" / f"{room}.py",
                 source / room / "__init__.py", source / f"{room}.py"):  # fmt: skip
        if path.exists():
            words = ast.get_docstring(ast.parse(path.read_text(encoding="utf-8"))) or ""
            return words.replace("\n", " ").split(". ")[0].split(": ")[0].split("; ")[0].rstrip(".")
    return "what a person sees"


def _known(rooms: list[str]) -> list[tuple[str, str]]:
    """Which room imports which."""
    graph = grimp.build_graph("noxel", cache_dir=None)
    inside = {name: f"noxel.core.{name}" for name in rooms}
    names = {
        name: path if path in graph.modules else f"noxel.{name}" for name, path in inside.items()
    }
    members = {
        name: {path, *graph.find_descendants(path)}
        for name, path in names.items()
        if path in graph.modules
    }
    pairs = [("page", "api")]
    for name, modules in members.items():
        direct = {
            found for module in modules for found in graph.find_modules_directly_imported_by(module)
        }
        pairs += [
            (name, other) for other, theirs in members.items() if other != name and direct & theirs
        ]
    return pairs


def picture() -> str:
    """The picture as SVG."""
    layers = _layers()
    rooms = [room for layer in layers for room in layer]
    place: dict[str, tuple[float, float, float]] = {}
    for row, layer in enumerate(layers):
        wide = min(300.0, (WIDE - 20) / len(layer) - 12)
        left = (WIDE - len(layer) * (wide + 12)) / 2
        for index, room in enumerate(layer):
            place[room] = (left + index * (wide + 12) + 6, row * (HIGH + GAP) + 10, wide)
    high = len(layers) * (HIGH + GAP)
    middle = {room: (x + wide / 2, y + HIGH / 2) for room, (x, y, wide) in place.items()}
    lines = [
        f'<line x1="{middle[one][0]:.0f}" y1="{middle[one][1] + HIGH / 2:.0f}" '
        f'x2="{middle[other][0]:.0f}" y2="{middle[other][1] - HIGH / 2:.0f}" class="knows"/>'
        for one, other in _known(rooms)
        if middle[one][1] < middle[other][1]
    ]
    for room, (x, y, wide) in place.items():
        says = _says(room)
        most = int(wide / 6.8) - 1
        says = says if len(says) <= most else says[: most - 1].rsplit(" ", 1)[0] + " …"
        lines.append(
            f'<rect x="{x:.0f}" y="{y}" width="{wide:.0f}" height="{HIGH}"/>'
            f'<text x="{x + 8:.0f}" y="{y + 19}" class="name">{room}</text>'
            f'<text x="{x + 8:.0f}" y="{y + 36}">{escape(says)}</text>'
        )
    ends = [(place[room][0] + place[room][2] - 14, place[room][1] + 14) for room in WAY]
    points = " ".join(f"{x:.0f},{y:.0f}" for x, y in ends)
    lines.append(f'<polyline points="{points}"/>')
    lines += [
        f'<circle cx="{x:.0f}" cy="{y:.0f}" r="9"/>'
        f'<text x="{x:.0f}" y="{y + 4:.0f}" class="step">{step}</text>'
        for step, (x, y) in enumerate(ends[:-1], 1)
    ]
    style = (
        "rect{fill:#fbf9f2;stroke:#1e2b29}text{font:12px sans-serif;fill:#1e2b29}"
        ".name{font-weight:bold;font-size:14px}.knows{stroke:#8a836c;stroke-opacity:.55}"
        "polyline{fill:none;stroke:#b93515;stroke-width:1.5;stroke-dasharray:5 4}"
        "circle{fill:#b93515}.step{fill:#fff;text-anchor:middle;font-size:11px;font-weight:bold}"
        "svg{background:#f5f1e6}"
    )
    title = f"The rooms, what each knows, and the way of a typed figure (1 to {len(WAY) - 1})"
    inner = "\n".join(lines)
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 {WIDE} {high}" role="img">'
        f"<title>{title}</title>"
        f"<style>{style}</style>\n{inner}\n</svg>\n"
    )
