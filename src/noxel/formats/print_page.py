"""A page of one file that prints without any server: words, posts, table, workings; black on white,
no script, nothing from elsewhere.
"""

import datetime
from collections.abc import Iterable, Sequence
from html import escape

from noxel.core.rig import RigFile
from noxel.formats.paper_drawing import View
from noxel.formats.paper_parts import Paper, prepare

_STYLE = """
@page { margin: 14mm }
body { font: 11pt/1.35 "Barlow", "DejaVu Sans Condensed", system-ui, sans-serif; color: #000; background: #fff; max-width: 190mm; margin: 8mm auto }
h1 { font-size: 19pt; margin: 0 } h2 { font-size: 13pt; margin: 1.2em 0 .3em; break-after: avoid }
p { margin: .25em 0 } .lead { font-size: 13pt; font-weight: 700 } .small { font-size: 9pt }
table { border-collapse: collapse; width: 100%; font-variant-numeric: tabular-nums }
th, td { border-bottom: .3mm solid #000; padding: .7mm 1.5mm; text-align: right }
th:first-child, td:first-child, td:nth-last-child(-n+2), th:last-child { text-align: left }
tr { break-inside: avoid } tr.loud td { font-weight: 700 } svg { width: 100%; height: auto; margin: 3mm 0 }
.working { break-inside: avoid; margin-bottom: 2mm } .working p { margin: 0 0 0 5mm; font-size: 9pt }
"""
_STEP, _WIDE, _TALL = 100, 34, 84


def _rig(view: View, scale: float) -> str:
    """The rig to scale, standing on a line; y counts up from the ground."""
    drawn = [f'<path d="M0 0H{view.length * scale:.1f}"/>']
    for line in view.lines:
        drawn.append(
            f'<path d="M{"L".join(f"{x * scale:.1f} {-y * scale:.1f}" for x, y in line)}"/>'
        )
    for x, radius in view.wheels:
        drawn.append(
            f'<circle cx="{x * scale:.1f}" cy="{-radius * scale:.1f}" r="{radius * scale:.1f}" '
            'fill="#fff"/>'
        )
    return "".join(drawn)


def _svg(said: Paper) -> str:
    """The rig, and its loads as posts: frame the rating, fill the load, what is over standing out
    beyond the frame.
    """
    posts, view = said.posts, said.view
    wide = max(1, len(posts)) * _STEP
    scale = min(34.0, wide * 0.75 / view.length)
    ground = view.height * scale + 4
    drawn = [
        f'<g transform="translate(0 {ground:.1f})" fill="none" stroke="#000" '
        f'stroke-width="1.4">{_rig(view, scale)}</g>'
    ]
    top = ground + 54
    for index, post in enumerate(posts):
        x, stands = index * _STEP + 8, view.stands.get(post.check)
        if stands is not None:
            end = top - (24 if (post.used or 0) > 1 else 3)
            drawn.append(
                f'<path d="M{stands * scale:.1f} {ground:.1f}L{x + _WIDE / 2} '
                f'{top - 28:.1f}V{end:.1f}" fill="none" stroke="#000" '
                'stroke-width=".7" stroke-dasharray="2 3"/>'
            )
        if post.used is not None:
            tall = _TALL * min(1.0, post.used)
            paint = (
                'fill="none" stroke="#000" stroke-dasharray="4 3"'
                if post.expected
                else 'fill="#777"'
            )
            drawn.append(
                f'<rect x="{x}" y="{top + _TALL - tall:.1f}" width="{_WIDE}" height="{tall:.1f}" '
                f"{paint}/>"
            )
            if post.used > 1:
                beyond = min(20.0, _TALL * (post.used - 1) + 3)
                drawn.append(
                    f'<rect x="{x - 4}" y="{top - beyond:.1f}" width="{_WIDE + 8}" '
                    f'height="{beyond:.1f}" {paint if post.expected else ""}/>'
                )
        dash = ' stroke-dasharray="3 4"' if post.used is None else ""
        drawn.append(
            f'<rect x="{x}" y="{top}" width="{_WIDE}" height="{_TALL}" fill="none" '
            f'stroke="#000"{dash}/>'
        )
        for text, y, bold in (
            (post.label, top + _TALL + 14, ""),
            (post.says, top + _TALL + 28, ' font-weight="700"'),
        ):
            fit = (
                f' textLength="{_STEP - 10}" lengthAdjust="spacingAndGlyphs"'
                if len(text) > 17
                else ""
            )
            drawn.append(
                f'<text x="{x}" y="{y:.1f}" font-size="10.5"{bold}{fit}>{escape(text)}</text>'
            )
    return (
        f'<svg viewBox="0 0 {wide + 8} {top + _TALL + 34:.0f}" role="img" aria-label="Loads '
        f'against their limits">{"".join(drawn)}</svg>'
    )


def _cells(tag: str, cells: Iterable[str]) -> str:
    return "".join(f"<{tag}>{escape(cell)}</{tag}>" for cell in cells)


def _body(said: Paper) -> Iterable[str]:
    yield (
        f"<h1>{escape(said.title)}</h1><p>{escape(said.about)}</p><p "
        f"class=lead>{escape(said.lead)}</p>"
    )
    yield from (f"<p>{escape(line)}</p>" for line in said.rest)
    yield _svg(said)
    yield f"<table><thead><tr>{_cells('th', said.headings)}</tr></thead><tbody>"
    for row in said.rows:
        yield f"<tr{' class=loud' if row.loud else ''}>{_cells('td', row.cells)}</tr>"
    yield f"</tbody></table>{''.join(f'<p class=small>{escape(line)}</p>' for line in said.cautions)}"
    if said.workings:
        yield "<h2>How each figure was worked out</h2>"
    for title, lines in said.workings:
        yield f"<div class=working>{escape(title)}{''.join(f'<p>{escape(line)}</p>' for line in lines)}</div>"
    if said.beside:
        yield "<h2>To know beside the checks</h2>"
        yield from (f"<p>{escape(line)}</p>" for line in said.beside)


def _to_do(lines: Sequence[tuple[str, str]]) -> Iterable[str]:
    if lines:
        yield "<h2>Before it rolls</h2>"
        for text, done in lines:
            box = "☑" if done else "☐"
            yield (
                f"<p>{box} "
                f"{escape(text)}{f' <span class=small>({escape(done)})</span>' if done else ''}</p>"
            )


def print_page(
    rig: RigFile,
    weigh_in: int | None = None,
    *,
    today: datetime.date | None = None,
    to_do: Sequence[tuple[str, str]] = (),
) -> str:
    """A weigh-in as one HTML file that needs nothing else.

    Parameters
    ----------
    rig : RigFile
        In its own terms and units.
    weigh_in : int or None
        Which weigh-in, from 1; None is the last.
    today : date or None
        Printed on it; None is the machine's own date.
    to_do : sequence of (str, str)
        Lines to tick before it rolls: what to do, and when and by whom it was done, if it was.

    Raises
    ------
    NotFound
        If the rig has no weigh-in of that number.
    """
    said = prepare(rig, weigh_in, today)
    head = (
        '<!doctype html><html lang="en"><head><meta '
        f'charset="utf-8"><title>{escape(said.title)}</title><style>{_STYLE}</style></head>'
    )
    return "\n".join([head, "<body>", *_body(said), *_to_do(to_do), "</body></html>", ""])
