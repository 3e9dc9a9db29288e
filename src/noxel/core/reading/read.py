"""A label or a ticket, photographed or pasted, as figures at the fields where they belong.

Each is to be looked at before it is kept. What is hard to read, contradicts another figure, or
differs from what is entered carries a doubt.
"""

import datetime
import re
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace

from noxel.core.quantities import MassUnit
from noxel.core.reading.figures import Figure, figures_in
from noxel.core.reading.hitches import read_hitch
from noxel.core.reading.pieces import Corners, Piece, Row, pieces_of, rows_of
from noxel.core.reading.places import Key, keys_in, owners
from noxel.core.reading.tickets import day_in, ticket_number
from noxel.core.reading.words import WORDS, Part, Word, part_of
from noxel.core.rig import RigFile

LONGEST_PASTED = 20_000
"""More text than this is no label. [characters]"""
MOST_PIECES = 400
SURE = 0.88
"""A line read with less certainty is hard to read."""
HARD = "hard to read"


@dataclass(frozen=True, slots=True)
class ReadFigure:
    """One figure of a label or a ticket.

    ``text`` is what to type at ``path``; ``words`` are the words it was read from;
    ``unit_assumed`` says that no unit stands there, so that the rig's own is meant. ``corners`` is
    where it stands on the picture, and ``doubt`` why it should be looked at twice.
    """

    path: str
    label: str
    text: str
    words: str
    unit_assumed: bool = False
    corners: Corners | None = None
    doubt: str | None = None


@dataclass(frozen=True, slots=True)
class _Owned:
    """A figure at its field, before it is written down."""

    path: str
    label: str
    figure: Figure
    words: str
    doubt: str | None = None


def read_text(
    rig: RigFile, text: str, part: Part | None, places: Mapping[str, str]
) -> list[ReadFigure]:
    """Read a pasted text; as :func:`read_pieces`, without places on a picture."""
    read = read_pieces(rig, pieces_of(text[:LONGEST_PASTED]), part, places)
    return [replace(figure, corners=None) for figure in read]


def read_pieces(
    rig: RigFile, pieces: Sequence[Piece], part: Part | None, places: Mapping[str, str]
) -> list[ReadFigure]:
    """Read lines that stand somewhere on a label or a ticket.

    ``rig``: for its unit, its terms, and the axles of its trailer. ``pieces``: the lines, in any
    order. ``part``: what it is of; None: by its words. ``at``: where a pass and its weigh-in are,
    by ``pass`` and ``weigh_in``, such as ``weigh_ins[0].passes[1]``, its ``config``, its ``unit``
    where it has its own, and the ``hitch`` part that a hitch's label is of.

    They come in the order of a label; none where nothing was understood.
    """
    rows = rows_of(list(pieces)[:MOST_PIECES])
    kind = part or part_of("\n".join(row.text for row in rows))
    figures = [figure for number, row in enumerate(rows) for figure in figures_in(number, row)]
    own: MassUnit = "kg" if places.get("unit") == "kg" else "lb"
    unit = own if kind == "pass" and "unit" in places else rig.units.mass
    if kind == "pass" and "pass" not in places:
        return []
    if kind == "hitch":
        place = places.get("hitch", "hitch.parts[0]")
        placed = [
            _Owned(f"{place}.{path}", label, figure, words, doubt)
            for path, label, figure, words, doubt in read_hitch(rows, figures)
        ]
    else:
        prefix = places["pass"] if kind == "pass" else kind
        placed = list(_owned(rig, rows, figures, kind, prefix))
    placed = _doubted([_of_this_pass(owned, places) for owned in _first_of_each(placed)])
    read = [_written(owned, unit) for owned in placed]
    return read + (list(_of_ticket(rig, rows, places)) if kind == "pass" else [])


def _owned(
    rig: RigFile, rows: Sequence[Row], figures: Sequence[Figure], kind: Part, prefix: str
) -> Iterator[_Owned]:
    keys = keys_in(rows, WORDS[kind])
    numbered = list(_by_number(rows, figures, kind, prefix)) if kind != "pass" else []
    if numbered and not any(key.word.path for key in keys):
        yield from numbered
        return
    pairs = owners(rows, keys, figures)
    if kind == "pass":
        pairs = list(_of_passes(pairs))
    for key, figure in pairs:
        if key.word.path is None or not _may_be(rows, key, kind):
            continue
        words = _words(rows, key, figure)
        axles = len(rig.trailer.ratings.gawr) if rig.trailer else 0
        if key.word.every and axles > 1:
            for axle in range(axles):
                label = f"GAWR, axle {axle + 1}"
                yield _Owned(f"{prefix}.ratings.gawr[{axle}]", label, figure, words)
        else:
            doubt = "this is of each axle: how many are there?" if key.word.every else None
            yield _Owned(f"{prefix}.{key.word.path}", key.word.label, figure, words, doubt)


def _may_be(rows: Sequence[Row], key: Key, kind: Part) -> bool:
    """“Rear” alone is an axle's rating only beside one that is named: tire lines have it too."""
    text = re.sub(r"\W", "", key.text).lower()
    if kind in ("vehicle", "trailer") and text in ("rear", "rr", "frontaxle", "rearaxle"):
        near = " ".join(rows[index].text for index in range(max(0, key.row - 2), key.row + 1))
        return bool(re.search(r"G\.?A\.?W\.?R", near, re.IGNORECASE)) and not re.search(
            r"psi|kpa", rows[key.row].text, re.IGNORECASE
        )
    return True


def _of_passes(pairs: Sequence[tuple[Key, Figure]]) -> Iterator[tuple[Key, Figure]]:
    """A ticket with nothing but its gross is one total."""
    read = [pair for pair in pairs if pair[0].word.path]
    only_gross = all(key.word.path == "printed_gross" for key, _ in read)
    for key, figure in read:
        if only_gross:
            word = Word("readings.gross", "all of it, in one figure", key.word.pattern)
            yield replace(key, word=word), figure
        else:
            yield key, figure


_NUMBERED = re.compile(r"^\W*([0-3])\s*[-–—.:)]\s*(?=\d)")


def _by_number(
    rows: Sequence[Row], figures: Sequence[Figure], kind: Part, prefix: str
) -> Iterator[_Owned]:
    """The statutory plate without words: the laden mass, the combination's mass, then 0 for the
    coupling and 1, 2, 3 for the axles.
    """
    plain: list[Figure] = []
    numbered: list[tuple[int, Figure]] = []
    for figure in figures:
        match = _NUMBERED.match(rows[figure.row].text)
        if match and figure.start >= match.end() - 1:
            numbered.append((int(match[1]), figure))
        elif figure.unit == "kg":
            plain.append(figure)
    if len({number for number, _ in numbered}) < 2:
        return
    totals = (
        (("ratings.gvwr", "Laden mass"),)
        if kind == "trailer"
        else (("ratings.gvwr", "Laden mass"), ("ratings.gcwr", "Combination's mass"))
    )
    for (path, label), figure in zip(totals, plain, strict=False):
        yield _Owned(f"{prefix}.{path}", label, figure, rows[figure.row].text)
    for number, figure in numbered:
        axle = (
            f"ratings.gawr[{number - 1}]"
            if kind == "trailer"
            else {1: "ratings.gawr_front", 2: "ratings.gawr_rear"}.get(number)
        )
        if number and axle:
            yield _Owned(f"{prefix}.{axle}", f"Axle {number}", figure, rows[figure.row].text)


def _words(rows: Sequence[Row], key: Key, figure: Figure) -> str:
    """The words as they stand on the label, with the figure."""
    row = rows[figure.row].text
    text = (
        row[key.start : figure.end]
        if key.row == figure.row and key.start < figure.start
        else f"{key.text} … {row[figure.start : figure.end]}"
    )
    return " ".join(text.split())


def _of_this_pass(owned: _Owned, places: Mapping[str, str]) -> _Owned:
    """A trailer's line on a ticket that is to be of the vehicle alone is another pass's."""
    if places.get("config", "hitched") == "hitched" or ".readings.trailer" not in owned.path:
        return owned
    return replace(owned, doubt="this pass is of the vehicle alone: is it another ticket?")


def _first_of_each(placed: Sequence[_Owned]) -> Iterator[_Owned]:
    """The first figure for each field; a second one that differs is a doubt of the first."""
    kept: dict[str, _Owned] = {}
    for owned in placed:
        first = kept.setdefault(owned.path, owned)
        if first is not owned and first.figure.digits != owned.figure.digits:
            doubt = f"it stands there twice, once as {owned.figure.digits}"
            kept[owned.path] = replace(first, doubt=doubt)
    yield from kept.values()


def _doubted(placed: list[_Owned]) -> list[_Owned]:
    """Mark what is hard to read or contradicts the rest."""
    agreed = _sums_agree(placed)
    return [replace(owned, doubt=owned.doubt or _doubt(owned, placed, agreed)) for owned in placed]


def _doubt(owned: _Owned, placed: Sequence[_Owned], agreed: bool | None) -> str | None:
    figure = owned.figure
    if figure.pair_agrees is False:
        return "pounds and kilograms do not agree"
    if any(other.path.startswith(f"{owned.path}_") for other in placed):
        return "an axle and one of its wheels cannot both be"
    if ".readings." in owned.path or owned.path.endswith("printed_gross"):
        if agreed is False:
            return "the lines do not add up to the gross"
        if agreed:
            return None
    if figure.unit is None and any(other.figure.unit for other in placed):
        return "no unit is seen beside it, as others have"
    if _out_of_step(owned, placed):
        return "it does not end as the other figures do"
    if (wrong := _against_axles(owned, placed) or _against_hitch(owned, placed)) is not None:
        return wrong
    if figure.sure < SURE and figure.pair_agrees is None:
        return HARD
    return HARD if figure.sure < 0.5 else None


def _mass(figure: Figure) -> float:
    return figure.kg if figure.kg is not None else float(figure.digits)


FAR_BELOW = 0.7
"""Of its axles' ratings together no vehicle has less as its GVWR."""


def _against_axles(owned: _Owned, placed: Sequence[_Owned]) -> str | None:
    """What is wrong between a GVWR, its axles' ratings and a rating of the whole train: no maker
    rates a vehicle above its axles, far below them, or above its train.
    """
    masses = {other.path: _mass(other.figure) for other in placed}
    whole, train = (masses.get(f"vehicle.ratings.{name}") for name in ("gvwr", "gcwr"))
    axles = [kg for path, kg in masses.items() if path.startswith("vehicle.ratings.gawr_")]
    ratings = owned.path.startswith("vehicle.ratings.g")
    if ratings and whole is not None and len(axles) == 2:
        if whole > 1.005 * sum(axles):
            return "the axles' ratings together are less than this" if _is_whole(owned) else None
        if whole < FAR_BELOW * sum(axles):
            return "the axles' ratings together are far more than the GVWR"
    if ratings and None not in (whole, train) and (train or 0.0) < (whole or 0.0):
        return "the train is rated below the vehicle alone"
    return None


USUAL = (0.1, 0.12, 0.125, 0.15, 0.2)
"""What a hitch's tongue rating is of its trailer rating, on the labels of most makers."""


_OF_A_PART = re.compile(r"(.*)\.(trailer|tongue)((?:\.\w+)?)")


def _against_hitch(owned: _Owned, placed: Sequence[_Owned]) -> str | None:
    """What is odd between the two ratings of a hitch's part, in the same mode."""
    part = _OF_A_PART.fullmatch(owned.path)
    if part is None or ".readings." in owned.path:
        return None
    masses = {other.path: _mass(other.figure) for other in placed}
    beside = "tongue" if part[2] == "trailer" else "trailer"
    own, its = masses[owned.path], masses.get(f"{part[1]}.{beside}{part[3]}")
    if own and its:
        share = min(own, its) / max(own, its)
        if all(abs(share - usual) > 0.002 * usual for usual in USUAL):
            return "a tongue rating is usually a tenth of the trailer rating"
    return None


def _is_whole(owned: _Owned) -> bool:
    return owned.path == "vehicle.ratings.gvwr"


def _out_of_step(owned: _Owned, placed: Sequence[_Owned]) -> bool:
    """Whether a reading ends otherwise than the others of its ticket, which come off one scale, or
    a rating otherwise than the others of its label.
    """
    sort = next((sort for sort in (".readings.", ".ratings.") if sort in owned.path), None)
    if sort is None or owned.figure.pair_agrees or not owned.figure.digits.isdigit():
        return False
    others = [other.figure.digits for other in placed if other is not owned and sort in other.path]
    step = 10 if sort == ".readings." else 5
    even = all(digits.isdigit() and int(digits) % step == 0 for digits in others)
    return len(others) >= 2 and even and int(owned.figure.digits) % 5 != 0


def _sums_agree(placed: Sequence[_Owned]) -> bool | None:
    """Whether the lines of a ticket add up to its gross, to a step of the scale each."""
    gross = [other.figure for other in placed if other.path.endswith("printed_gross")]
    lines = [other.figure for other in placed if ".readings." in other.path]
    if (
        not gross
        or len(lines) < 2
        or len({figure.unit for figure in (*gross, *lines)} - {None}) > 1
    ):
        return None
    off = abs(int(gross[0].digits) - sum(int(line.digits) for line in lines))
    step = min(_step(figure) for figure in (*gross, *lines))
    return off <= 0.5 * step * (len(lines) + 1)


def _step(figure: Figure) -> int:
    """The step that a scale's figure seems to move in."""
    return next(step for step in (20, 10, 5, 2, 1) if int(figure.digits) % step == 0)


def _written(owned: _Owned, unit: MassUnit) -> ReadFigure:
    text, assumed = owned.figure.typed(unit)
    return ReadFigure(
        owned.path, owned.label, text, owned.words, assumed, owned.figure.corners, owned.doubt
    )


def beside_entered(figure: ReadFigure, entered: object, today: datetime.date) -> ReadFigure:
    """A figure beside what stands in its field: what is typed already stays unless its owner says
    otherwise. The day on which a weigh-in was begun gives way to its ticket's.
    """
    same = entered is None or str(entered).replace(",", "") == figure.text
    begun = figure.path.endswith(".date") and entered == today.isoformat()
    if figure.doubt or same or begun:
        return figure
    return replace(figure, doubt=f"{entered} is entered")


def _of_ticket(
    rig: RigFile, rows: Sequence[Row], places: Mapping[str, str]
) -> Iterator[ReadFigure]:
    for row in rows:
        number = ticket_number(row.text)
        if number:
            doubt = HARD if row.sure(number.start(), number.end()) < SURE else None
            corners = row.corners(number.start(1), number.end(1))
            path = f"{places['pass']}.ticket_number"
            yield ReadFigure(path, "ticket number", number[1], number[0], False, corners, doubt)
            break
    for row in rows:
        day = day_in(row.text, rig.terms)
        if day:
            text, start, end = day
            doubt = HARD if row.sure(start, end) < SURE else None
            corners = row.corners(start, end)
            path = f"{places['weigh_in']}.date"
            yield ReadFigure(path, "date", text, row.text[start:end], False, corners, doubt)
            break
