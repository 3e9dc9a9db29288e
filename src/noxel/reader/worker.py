"""The process that reads text off photographs: one picture comes in, its words go out.

It is started as ``python -m noxel.reader.worker`` and answers until its input ends. Each message is
its length in four bytes, then that many bytes: a picture in, JSON out; the first, empty one says
that the engine is loaded. What a picture makes of it stays in here.
"""

import io
import json
import struct
import sys
from collections.abc import Iterator
from typing import IO, Any

from noxel.reader.limits import limit

LONGEST = 1600
"""The longest side of the picture that is read: larger ones take longer and are not read better.
[pixels]"""
MEMORY = 1 << 30
"""What the process may take in all. [bytes]"""
MOST = 20
"""Photographs until the process makes room for a fresh one."""
GOOD = 0.8
"""Lines as sure as this on the average are the right way up."""
DARK, SMALL = 45, 300
"""A picture darker than this (of 255) or smaller than this [pixels] cannot be read."""


class Engine:
    """The reading engine, its models in memory."""

    def __init__(self) -> None:
        from rapidocr import RapidOCR

        self._read: Any = RapidOCR(
            params={
                "Global.log_level": "critical",
                "Global.use_cls": False,
                "Global.max_side_len": LONGEST,
                "EngineConfig.onnxruntime.intra_op_num_threads": 2,
            }
        )

    def words(self, picture: Any) -> list[dict[str, Any]]:
        """Every word of a picture: its text, its corners, how sure it is, and its line."""
        result = self._read(picture, return_word_box=True)
        if result.boxes is None:
            return []
        words_read = []
        lines = zip(result.txts, result.scores, result.boxes, result.word_results, strict=True)
        for number, (text, sure, box, words) in enumerate(lines):
            whole = [(text, sure, box.tolist())]
            joined = "".join(word[0] for word in words)
            # a line whose words do not make it up is kept whole
            parts = words if joined == text.replace(" ", "") else whole
            words_read += [
                {
                    "text": word,
                    "sure": round(float(min(sure, own)), 4),
                    "corners": corners,
                    "line": number,
                }
                for word, own, corners in parts
            ]
        return words_read


def _opened(data: bytes) -> Any:
    """The picture, upright by its own word, no larger than is read."""
    from PIL import Image, ImageOps

    with Image.open(io.BytesIO(data), formats=("JPEG", "PNG", "WEBP")) as opened:
        opened.draft("RGB", (LONGEST, LONGEST))
        opened.thumbnail((LONGEST, LONGEST), Image.Resampling.LANCZOS)
        return ImageOps.exif_transpose(opened).convert("RGB")


def _turns(picture: Any) -> Iterator[tuple[Any, int]]:
    """The picture as it is, then turned."""
    from PIL import Image

    yield picture, 0
    yield picture.transpose(Image.Transpose.ROTATE_90), 90
    yield picture.transpose(Image.Transpose.ROTATE_270), 270
    yield picture.transpose(Image.Transpose.ROTATE_180), 180


def _upright(words: list[dict[str, Any]]) -> bool:
    """Whether words lie as words do, and read well."""
    if not words:
        return False
    wide = sum(_across(word["corners"]) for word in words if len(word["text"]) > 3)
    long = sum(1 for word in words if len(word["text"]) > 3)
    return wide * 2 >= long and _worth(words) / sum(len(word["text"]) for word in words) >= GOOD


def _across(corners: list[list[float]]) -> bool:
    x, y = [point[0] for point in corners], [point[1] for point in corners]
    return max(x) - min(x) >= max(y) - min(y)


def _worth(words: list[dict[str, Any]]) -> float:
    return float(sum(len(word["text"]) * word["sure"] ** 2 for word in words))


def read(engine: Engine, data: bytes) -> dict[str, Any]:
    """Read a picture: its size, its turn, its words, and what is wrong with it where nothing is
    found.
    """
    import numpy

    try:
        picture = _opened(data)
    except Exception:  # noqa: BLE001  # whatever a hostile file provokes is one refused picture
        return {"problem": "This photograph cannot be opened. Take it again, or choose another."}
    best: tuple[float, list[dict[str, Any]], Any, int] | None = None
    for turned, degrees in _turns(picture):
        words = engine.words(numpy.asarray(turned)[:, :, ::-1])
        upright = _upright(words)
        if upright or best is None or _worth(words) > best[0]:
            best = (_worth(words), words, turned, degrees)
        if upright:
            break
    if best is None or not best[1]:
        return {"problem": _why_nothing(picture)}
    _, words, turned, degrees = best
    return {"words": words, "width": turned.width, "height": turned.height, "turned": degrees}


def _why_nothing(picture: Any) -> str:
    from PIL import ImageStat

    if ImageStat.Stat(picture.convert("L")).mean[0] < DARK:
        return "It is too dark to be read. More light, from the side; no flash."
    if max(picture.size) < SMALL:
        return "It is too small to be read. Closer, until the label fills the picture."
    return "No text is seen on it. Closer, level, without flash, until the label fills it."


def take(source: IO[bytes]) -> bytes | None:
    """One message; None at the end."""
    head = source.read(4)
    if len(head) < 4:
        return None
    (length,) = struct.unpack(">I", head)
    return source.read(length)


def give(target: IO[bytes], data: bytes) -> None:
    """Send one message."""
    target.write(struct.pack(">I", len(data)) + data)
    target.flush()


def main() -> None:
    """Answer until the input ends, or enough was read: the engine's memory grows slowly."""
    answers, sys.stdout = sys.stdout.buffer, sys.stderr  # nothing that a library prints mixes in
    limit(MEMORY)
    engine = Engine()
    give(answers, b"")  # loaded
    for _ in range(MOST):
        data = take(sys.stdin.buffer)
        if data is None:
            return
        give(answers, json.dumps(read(engine, data)).encode())


if __name__ == "__main__":
    main()
