"""Photographs: scaled, stripped, kept and printed. Expected: pictures made here, whose pixels and
data are known.
"""

import io
import random
import re

from PIL import Image

from noxel.reader.photos import KEPT
from tests.api.stand import OnADemoRig

HERE = (52, 13)
"""A position that no kept picture may hold: degrees north and east."""


def photo(
    size: tuple[int, int] = (300, 200),
    kind: str = "JPEG",
    *,
    turned: bool = False,
    noise: bool = False,
) -> bytes:
    picture = (
        Image.frombytes("RGB", size, random.Random(1).randbytes(size[0] * size[1] * 3))
        if noise
        else Image.new("RGB", size, "red")
    )
    exif = Image.Exif()
    exif[0x010F] = "a camera"
    exif.get_ifd(0x8825).update({1: "N", 2: (HERE[0], 0, 0), 3: "E", 4: (HERE[1], 0, 0)})
    if turned:
        exif[0x0112] = 6
    out = io.BytesIO()
    picture.save(out, kind, exif=exif)
    return out.getvalue()


class Photographs(OnADemoRig):
    def send(
        self, data: bytes, name: str = "p1", query: str = "about=vehicle", status: int = 200
    ) -> dict[str, object]:
        answer = self.client.put(
            f"/api/rigs/{self.rig}/photos/{name}?{query}",
            content=data,
            headers={"content-type": "application/octet-stream"},
        )
        self.assertEqual(answer.status_code, status, answer.text)
        return dict(answer.json()[-1] if status == 200 else answer.json())

    def kept(self, name: str = "p1", small: bool = False) -> Image.Image:
        answer = self.client.get(f"/api/rigs/{self.rig}/photos/{name}?small={str(small).lower()}")
        self.assertEqual(answer.headers["content-type"], "image/jpeg")
        self.assertLessEqual(len(answer.content), KEPT)
        return Image.open(io.BytesIO(answer.content))

    def test_upright_small_and_without_a_position(self) -> None:
        for kind in ("JPEG", "PNG", "WEBP"):
            answer = self.send(photo((3000, 1500), kind, turned=True), kind)
            self.assertEqual(
                (answer["width"], answer["height"], answer["about"]), (1200, 2400, "vehicle"), kind
            )
            picture = self.kept(kind)
            self.assertEqual(
                (picture.size, dict(picture.getexif()), picture.info.get("exif")),
                ((1200, 2400), {}, None),
            )
            self.assertEqual(max(self.kept(kind, small=True).size), 360)
        self.send(photo((2300, 2300), noise=True), "noise")
        self.assertLess(
            self.kept("noise").size[0], 2300, "what does not shrink by quality shrinks by size"
        )

    def test_the_largest_of_a_phone_is_taken(self) -> None:
        large = io.BytesIO()
        Image.new("L", (12_000, 9_000)).save(large, "JPEG")  # 108 million pixels
        kept = self.send(large.getvalue())
        self.assertEqual((kept["width"], kept["height"]), (2400, 1800))

    def test_what_is_no_photograph_is_refused_in_words(self) -> None:
        good = photo()
        for wrong in (b"", b"GIF89a", good[:100], b"%PDF-1.4", photo(kind="BMP"), b"\x00" * 1000):
            self.assertIn(
                "Noxel reads JPEG, PNG and WebP", str(self.send(wrong, status=422)["detail"])
            )
        self.assertIn(
            "30 MB", str(self.send(b"\xff\xd8" + b"0" * 31_000_000, status=413)["detail"])
        )
        bomb = io.BytesIO()
        Image.new("1", (20_000, 20_000)).save(bomb, "PNG")
        self.assertIn("too many", str(self.send(bomb.getvalue(), status=422)["detail"]))
        form = self.client.put(
            f"/api/rigs/{self.rig}/photos/p1?about=x",
            content=good,
            headers={"content-type": "text/plain"},
        )
        self.problem(form, 415)
        self.assertEqual(self.get("/photos").json(), [])

    def test_sent_twice_kept_once_with_its_visit_and_in_report_and_backup(self) -> None:
        ticket = {
            "key": "t1",
            "visit": "v1",
            "day": "2026-05-02",
            "config": "hitched",
            "spring_bars": "engaged",
            "unit": "lb",
            "readings": {"front": "3060"},
        }
        key = self.post("/jotted", ticket)["rig"]["weigh_ins"][-1]["id"]
        early = self.send(photo((60, 60)), "early", "about=ticket&visit=v2")
        other = self.post("/jotted", ticket | {"key": "t2", "visit": "v2"})["rig"]["weigh_ins"][-1][
            "id"
        ]
        self.assertEqual(
            (early["weigh_in"], self.get("/photos").json()[0]["weigh_in"]), (None, other)
        )
        self.client.delete(f"/api/rigs/{self.rig}/photos/early")
        plain = self.get("/paper.pdf?what=report").content
        answer = self.send(photo(), query="about=ticket&visit=v1")
        self.send(photo((50, 50)), query="about=ticket&visit=v1")
        self.assertEqual((answer["weigh_in"], len(self.get("/photos").json())), (key, 1))
        report = self.get("/paper.pdf?what=report&weigh_in=3").content
        self.assertEqual(
            len(re.findall(rb"/Subtype /Image", report))
            - len(re.findall(rb"/Subtype /Image", plain)),
            1,
        )
        self.assertIn(b"ticket", self.client.get("/api/backup").content)
        self.assertEqual(self.client.delete(f"/api/rigs/{self.rig}/photos/p1").json(), [])
        self.problem(self.client.get(f"/api/rigs/{self.rig}/photos/p1"), 404)
