"""Photographs of invented labels and tickets as a phone takes them, and how many of their figures
are read: ``python -m tools.photos [--few]``.

Twelve kinds, each in twenty conditions; every figure is drawn from a fixed seed, so that the set is
the same wherever it is made. Fonts are those that ship.
"""

import argparse
import io
import random
import re
import statistics
import time
from collections.abc import Iterator
from dataclasses import dataclass, field
from pathlib import Path
from typing import Any

import numpy as np
from PIL import Image, ImageDraw, ImageFilter, ImageFont

from noxel.core.reading import Piece, read_pieces
from noxel.core.rig import RigFile, parse_rig
from noxel.reader import Reader
from tools.labels import KINDS, Label

ROOT = Path(__file__).parent.parent
_TTF = ROOT / "web" / "node_modules" / "dejavu-fonts-ttf" / "ttf"
CAR = (94, 98, 104)
"""What a label is stuck to."""
AT = {"pass": "P", "weigh_in": "W", "hitch": "H"}


CONDITIONS = (
    "plain", "perspective", "more perspective", "rotated 4", "rotated 10", "on its side",
    "on its other side", "blurred", "noisy", "uneven light", "glare", "glare and perspective",
    "shadow", "low light", "quality 40", "small", "twelve megapixels", "dirt and a scratch",
    "faded", "embossed",
)  # fmt: skip


def draw(label: Label, height: int = 46) -> Image.Image:
    """The label on its ground, and where each expected figure stands on it."""
    font = ImageFont.truetype(str(_TTF / f"{label.font}.ttf"), height)
    width = 24 * height
    image = Image.new("RGB", (width, int(height * (1.75 * len(label.rows) + 1.5))), label.ground)
    pen = ImageDraw.Draw(image)
    pen.rectangle((4, 4, image.width - 5, image.height - 5), outline=label.ink, width=3)
    for number, row in enumerate(label.rows):
        for place, text in row:
            x, y = place * width, height * (1 + 1.75 * number)
            size = font
            room = min([at for at, _ in row if at > place] or [0.985]) * width - x - 8
            if pen.textlength(text, font=font) > room:
                share = room / pen.textlength(text, font=font)
                size = ImageFont.truetype(str(_TTF / f"{label.font}.ttf"), int(height * share))
            pen.text((x, y), text, font=size, fill=label.ink)
            plain = text.replace(",", "")
            for path, figure in label.expected.items():
                if figure in plain and path not in label.boxes:
                    label.boxes[path] = pen.textbbox((x, y), text, font=size)
    return image


def _warped(image: Image.Image, dice: random.Random, by: float) -> Image.Image:
    width, height = image.size
    moved = [
        (x + dice.uniform(-by, by) * width, y + dice.uniform(-by, by) * height)
        for x, y in ((0, 0), (width, 0), (width, height), (0, height))
    ]
    source = [(0, 0), (width, 0), (width, height), (0, height)]
    matrix = []
    for (x, y), (u, v) in zip(moved, source, strict=True):
        matrix.append([x, y, 1, 0, 0, 0, -u * x, -u * y])
        matrix.append([0, 0, 0, x, y, 1, -v * x, -v * y])
    wanted = np.array([value for point in source for value in point], dtype=float)
    coefficients = np.linalg.solve(np.array(matrix, dtype=float), wanted)
    return image.transform(
        image.size, Image.Transform.PERSPECTIVE, coefficients.tolist(), Image.Resampling.BICUBIC,
        fillcolor=CAR,
    )  # fmt: skip


def _lit(image: Image.Image, light: Any) -> Image.Image:
    return Image.fromarray(np.clip(np.asarray(image, dtype=float) * light, 0, 255).astype(np.uint8))


def _glare(image: Image.Image, label: Label, dice: random.Random) -> tuple[Image.Image, set[str]]:
    """A bright spot; the figures it covers."""
    width, height = image.size
    x, y = dice.uniform(0.2, 0.8) * width, dice.uniform(0.2, 0.8) * height
    rx, ry = dice.uniform(0.1, 0.2) * width, dice.uniform(0.12, 0.22) * height
    rows, columns = np.mgrid[0:height, 0:width]
    spot = np.clip(1.4 - ((columns - x) / rx) ** 2 - ((rows - y) / ry) ** 2, 0, 1)[..., None]
    bright = np.asarray(image, dtype=float) * (1 - spot) + 255 * spot
    covered = set()
    for path, (x0, y0, x1, y1) in label.boxes.items():
        if float(spot[int(y0) : int(y1), int(x0) : int(x1)].max(initial=0.0)) > 0.25:
            covered.add(path)
    return Image.fromarray(bright.astype(np.uint8)), covered


def photograph(label: Label, condition: str, dice: random.Random) -> tuple[bytes, set[str]]:
    """A photograph of the label in a condition, as JPEG; the figures that glare covers."""
    image, covered = draw(label), set[str]()
    if condition.startswith("glare"):
        image, covered = _glare(image, label, dice)
    image = _worn(image, label, condition, dice)
    border = int(image.width * 0.06)
    framed = Image.new("RGB", (image.width + 2 * border, image.height + 2 * border), CAR)
    framed.paste(image, (border, border))
    image = _in_light(_held(framed, condition, dice), condition, dice)
    if condition == "small":
        image.thumbnail((900, 900), Image.Resampling.LANCZOS)
    if condition == "twelve megapixels":
        size = (4000, int(image.height * 4000 / image.width))
        image = image.resize(size, Image.Resampling.BICUBIC)
    out = io.BytesIO()
    image.save(out, "JPEG", quality=40 if condition == "quality 40" else 88)
    return out.getvalue(), covered


def _worn(image: Image.Image, label: Label, condition: str, dice: random.Random) -> Image.Image:
    """What years did to the label."""
    if condition == "faded":
        return Image.blend(image, Image.new("RGB", image.size, label.ground), 0.62)
    if condition == "embossed":
        relief = image.convert("L").filter(ImageFilter.EMBOSS).convert("RGB")
        return Image.blend(image, relief, 0.55)
    if condition == "dirt and a scratch":
        pen = ImageDraw.Draw(image)
        for _ in range(60):
            x, y = dice.uniform(0, image.width), dice.uniform(0, image.height)
            r = dice.uniform(1, 4)
            pen.ellipse((x - r, y - r, x + r, y + r), fill=(110, 96, 80))
        start, end = dice.uniform(0, image.height), dice.uniform(0, image.height)
        pen.line((0, start, image.width, end), fill=(150, 148, 144), width=2)
    return image


def _held(image: Image.Image, condition: str, dice: random.Random) -> Image.Image:
    """How the phone was held."""
    if "perspective" in condition:
        return _warped(image, dice, 0.07 if condition.startswith("more") else 0.04)
    if condition.startswith("rotated"):
        angle = float(condition.split()[1]) * dice.choice((1, -1))
        return image.rotate(angle, Image.Resampling.BICUBIC, expand=True, fillcolor=CAR)
    if condition == "on its side":
        return image.transpose(Image.Transpose.ROTATE_90)
    if condition == "on its other side":
        return image.transpose(Image.Transpose.ROTATE_270)
    return image.filter(ImageFilter.GaussianBlur(2.2)) if condition == "blurred" else image


def _in_light(image: Image.Image, condition: str, dice: random.Random) -> Image.Image:
    """The light, and what little of it does."""
    rows, columns = np.mgrid[0 : image.height, 0 : image.width]
    if condition == "uneven light":
        return _lit(image, (0.45 + 0.65 * columns / image.width)[..., None])
    if condition == "shadow":
        edge = columns * 0.6 + rows > 0.6 * image.width
        return _lit(image, np.where(edge, 0.45, 1.0)[..., None])
    if condition == "low light":
        image = _lit(image, 0.32)
    if condition in ("noisy", "low light"):
        noise = np.random.default_rng(dice.randrange(1 << 30)).normal(0, 14, (*image.size[::-1], 3))
        pixels = np.asarray(image, dtype=float) + noise
        return Image.fromarray(np.clip(pixels, 0, 255).astype(np.uint8))
    return image


def a_rig(label: Label) -> RigFile:
    """A rig of the label's region, its trailer on as many axles as the label says."""
    axles = max(1, sum(".gawr[" in path for path in label.expected))
    document: dict[str, Any] = {"format": "noxel-rig", "version": 1, "name": "", "vehicle": {}}
    document |= {"units": {"mass": label.unit, "length": "in"}, "kind": "conventional"}
    document |= {"terms": label.terms, "hitch": {}}
    return parse_rig(document | {"trailer": {"ratings": {"gawr": [9000] * axles}}})


@dataclass
class Count:
    """What came of some photographs, over the figures that no glare covers."""

    wanted: int = 0
    read: int = 0
    placed: int = 0
    ticked: int = 0
    wrong: int = 0
    seconds: list[float] = field(default_factory=list)

    def __str__(self) -> str:
        shares = [
            100 * part / max(1, whole)
            for part, whole in (
                (self.read, self.wanted),
                (self.placed, self.wanted),
                (self.wrong, self.ticked),
            )
        ]
        median = statistics.median(self.seconds) if self.seconds else 0.0
        return (
            f"{self.wanted} figures: {shares[0]:.1f} % read, {shares[1]:.1f} % in their field; "
            f"of {self.ticked} ticked {shares[2]:.2f} % wrong; median {median:.1f} s"
        )


def few() -> Iterator[tuple[int, str]]:
    """Two photographs of each kind, every condition at least once."""
    for number in range(24):
        yield number % 12, CONDITIONS[(number * 7) % 20]


def every() -> Iterator[tuple[int, str]]:
    """The whole set."""
    for kind in range(12):
        for condition in CONDITIONS:
            yield kind, condition


def photo_of(kind: int, condition: str) -> bytes:
    """One photograph of the set."""
    dice = random.Random(f"{KINDS[kind].__name__}/{condition}")
    return photograph(KINDS[kind](dice), condition, dice)[0]


def _same(drawn: str | None, text: str, unit: str) -> bool:
    """Whether a text says what was drawn; a label says it in two units, each rounded."""
    other = re.fullmatch(r"(\d+) (lb|kg)", text)
    if drawn is None or other is None or other[2] == unit:
        return drawn == text.removesuffix(f" {unit}")
    factor = 0.45359237 if unit == "lb" else 1 / 0.45359237
    return abs(int(drawn) * factor - int(other[1])) <= 1.2


def look(reader: Reader, kind: int, condition: str, count: Count, *, tell: bool = False) -> None:
    """Take one photograph, read it, and count what came of it."""
    dice = random.Random(f"{KINDS[kind].__name__}/{condition}")
    label = KINDS[kind](dice)
    data, covered = photograph(label, condition, dice)
    began = time.perf_counter()
    picture = reader.read(data)
    pieces = [Piece(word.text, word.corners, word.sure, word.line) for word in picture.words]
    taken = {entry.path: entry for entry in read_pieces(a_rig(label), pieces, None, AT)}
    count.seconds.append(time.perf_counter() - began)
    plain = " ".join(word.text for word in picture.words).replace(",", "").replace(" ", "")
    for path, figure in label.expected.items():
        if path in covered:
            continue
        count.wanted += 1
        right = path in taken and _same(figure, taken[path].text, label.unit)
        count.read += right or figure in plain
        count.placed += right
        if tell and not right:
            got = taken.get(path)
            print(f"  {KINDS[kind].__name__}, {condition}: {path} {figure}, got {got and got.text}")
    for path, entry in taken.items():
        if entry.doubt is None:
            count.ticked += 1
            wrong = not _same(label.expected.get(path), entry.text, label.unit)
            count.wrong += wrong
            if tell and wrong:
                print(f"  {KINDS[kind].__name__}, {condition}: ticked wrong {path} {entry.text}")


def main() -> None:
    """Print what is read of every kind and in every condition."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--few", action="store_true", help="two photographs of each kind")
    chosen = parser.parse_args()
    reader, whole = Reader(), Count()
    by: dict[str, Count] = {}
    try:
        for kind, condition in few() if chosen.few else every():
            for name in (KINDS[kind].__name__, condition):
                by.setdefault(name, Count())
            part = Count()
            look(reader, kind, condition, part, tell=True)
            for count in (whole, by[KINDS[kind].__name__], by[condition]):
                for name in ("wanted", "read", "placed", "ticked", "wrong"):
                    setattr(count, name, getattr(count, name) + getattr(part, name))
                count.seconds += part.seconds
    finally:
        reader.close()
    for name, count in by.items():
        print(f"{name:24} {count}")
    print(f"{'all':24} {whole}")


if __name__ == "__main__":
    main()
