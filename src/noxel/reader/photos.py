"""Photographs: turned upright, scaled down, and stripped of everything but the picture.

A photograph that somebody sent is opened in a process of its own, started as ``python -m
noxel.reader.photos`` and ended with it: whatever the picture does there, the server keeps its
memory and its pace.
"""

import io
import json
import subprocess
import sys
import warnings
from dataclasses import dataclass

from PIL import Image, ImageOps, UnidentifiedImageError

from noxel.errors import InputError
from noxel.reader.limits import limit

KEPT = 1_000_000
"""The largest picture that is kept. [bytes]"""
MOST_PIXELS = {"JPEG": 120_000_000, "progressive": 48_000_000, "whole": 24_000_000}
"""The largest picture that is opened: a small file can claim to be a huge one. A JPEG is decoded
small, a progressive one takes the memory of all of it, and any other kind is decoded whole.
"""
LONGEST, THUMB = 2400, 360
"""The longest side of the picture that is kept, and of the small one beside a field. [pixels]"""
FORMATS = ("JPEG", "PNG", "WEBP")
SECONDS, MEMORY = 30.0, 600_000_000
"""How long one photograph may take, and what its process may take. [s; bytes]"""
_WHICH = "Noxel reads JPEG, PNG and WebP photographs of up to 30 MB."


@dataclass(frozen=True, slots=True)
class Photo:
    """A photograph as it is kept: JPEG, without position, camera or any other data."""

    picture: bytes
    small: bytes
    width: int
    height: int


def read_apart(data: bytes) -> Photo:
    """Make a photograph fit to be kept, in a process of its own.

    Raises InputError if it is none, is damaged, is too large, or takes too long or too much memory.
    """
    try:
        process = subprocess.run(
            [sys.executable, "-m", "noxel.reader.photos"],
            input=data,
            stdout=subprocess.PIPE,
            stderr=subprocess.DEVNULL,
            timeout=SECONDS,
            check=False,
        )
    except subprocess.TimeoutExpired as exc:
        raise InputError(
            f"Opening this photograph took too long, and was stopped. {_WHICH}"
        ) from exc
    head, _, rest = process.stdout.partition(b"\n")
    if not head:
        raise InputError(f"This photograph could not be opened. {_WHICH}")
    answer = json.loads(head)
    if "problem" in answer:
        raise InputError(str(answer["problem"]))
    small = answer["small"]
    return Photo(rest[small:], rest[:small], answer["width"], answer["height"])


def read_photo(data: bytes) -> Photo:
    """Make a photograph fit to be kept, in this process.

    ``data``: the file as it came from the camera. Reading it takes up to 400 MB.

    Raises InputError if it is none, is damaged, or is too large.
    """
    try:
        with warnings.catch_warnings():
            warnings.simplefilter("ignore", Image.DecompressionBombWarning)
            with Image.open(io.BytesIO(data), formats=FORMATS) as opened:
                kind = "JPEG" if opened.format == "JPEG" else "whole"
                kind = "progressive" if opened.info.get("progressive") else kind
                if opened.width * opened.height > MOST_PIXELS[kind]:
                    raise InputError(
                        f"This picture has {opened.width} × {opened.height} pixels, which is too "
                        "many: a JPEG may have 120 million, a progressive one 48, others 24."
                    )
                scale = LONGEST / max(opened.size)
                opened.draft("RGB", (int(opened.width * scale), int(opened.height * scale)))
                whole = opened if opened.mode in ("RGB", "L") else opened.convert("RGB")
                whole.thumbnail((LONGEST, LONGEST), Image.Resampling.LANCZOS, reducing_gap=None)
                upright = ImageOps.exif_transpose(whole).convert("RGB")
    except UnidentifiedImageError as exc:
        raise InputError(f"This file is not a photograph that can be read. {_WHICH}") from exc
    except Image.DecompressionBombError as exc:
        raise InputError(f"This picture has too many pixels. {_WHICH}") from exc
    except (OSError, ValueError, SyntaxError, EOFError) as exc:
        raise InputError(f"This photograph is damaged: {exc}. {_WHICH}") from exc
    picture = _within(upright)
    small = upright.copy()
    small.thumbnail((THUMB, THUMB), Image.Resampling.LANCZOS)
    return Photo(picture, _jpeg(small, 75), upright.width, upright.height)


def turned_left(picture: bytes, degrees: int) -> bytes:
    """A kept photograph, turned by 90, 180 or 270 degrees; one that was taken on its side."""
    turns = {
        90: Image.Transpose.ROTATE_90,
        180: Image.Transpose.ROTATE_180,
        270: Image.Transpose.ROTATE_270,
    }
    with Image.open(io.BytesIO(picture), formats=("JPEG",)) as opened:
        return _jpeg(opened.convert("RGB").transpose(turns[degrees]), 85)


def _within(picture: Image.Image) -> bytes:
    """As JPEG, no larger than is kept: less fine first, then smaller."""
    for quality in (85, 75, 60):
        data = _jpeg(picture, quality)
        if len(data) <= KEPT:
            return data
    picture.thumbnail((picture.width * 3 // 4, picture.height * 3 // 4), Image.Resampling.LANCZOS)
    return _within(picture)


def _jpeg(picture: Image.Image, quality: int) -> bytes:
    # the pixels alone: no position, no camera
    plain = Image.frombytes("RGB", picture.size, picture.tobytes())
    out = io.BytesIO()
    plain.save(out, "JPEG", quality=quality, optimize=True, progressive=True)
    return out.getvalue()


def _main() -> None:
    limit(MEMORY)
    photo = None
    try:
        photo = read_photo(sys.stdin.buffer.read())
        head: dict[str, object] = {
            "width": photo.width,
            "height": photo.height,
            "small": len(photo.small),
        }
    except InputError as exc:
        head = {"problem": str(exc)}
    except MemoryError:
        head = {"problem": f"This picture takes too much memory. {_WHICH}"}
    pictures = photo.small + photo.picture if photo else b""
    sys.stdout.buffer.write(json.dumps(head).encode() + b"\n" + pictures)


if __name__ == "__main__":
    _main()
