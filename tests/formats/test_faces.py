"""One verdict on every face: page, command line, print view, both papers, workbook and log line say
of a rig what its evaluation says, word for word. Rigs put together at random, half-known ones too.
"""

import contextlib
import datetime
import html
import io
import json
import re
import tempfile
import unittest
from pathlib import Path

from openpyxl import load_workbook
from pypdf import PdfReader

from noxel.cli import main
from noxel.core.evaluate import evaluate
from noxel.core.log import facts_of
from noxel.core.rig import dump_rig, parse_rig
from noxel.formats.papers import paper
from noxel.formats.print_page import print_page
from noxel.formats.workbook import workbook
from tests import some
from tests.at_large import document_at_large

TODAY = datetime.date(2026, 11, 23)
STATUS = {"within": 0, "stop": 1}
"""The exit status of the command line; any other verdict is 3."""


def _plain(text: str) -> str:
    """Without the spaces at which a paper breaks its lines."""
    return re.sub(r"\s+", "", text)


class Faces(unittest.TestCase):
    def test_every_face_says_the_same(self) -> None:
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        file = Path(folder.name) / "rig.json"
        for number in range(some(24)):
            rig = parse_rig(document_at_large(number))
            evaluation = evaluate(rig)
            line = evaluation.headline
            said = _plain(f"{line.lead} {line.sentence}")
            file.write_text(json.dumps(dump_rig(rig)), encoding="utf-8")
            with contextlib.redirect_stdout(io.StringIO()) as printed:
                status = main(["check", str(file)])
            with self.subTest(number=number, verdict=evaluation.verdict):
                self.assertEqual(status, STATUS.get(evaluation.verdict, 3))
                self.assertIn(said, _plain(printed.getvalue()))
                view = re.sub(r"<[^>]+>", "", print_page(rig, today=TODAY, to_do=[]))
                self.assertIn(said, _plain(html.unescape(view)))
                for full in (False, True):
                    pages = PdfReader(io.BytesIO(paper(rig, full=full, today=TODAY))).pages
                    self.assertIn(said, _plain(pages[0].extract_text()))
                if rig.weigh_ins:
                    sheet = load_workbook(io.BytesIO(workbook(rig)))["Checks"]
                    texts = (_plain(str(cell.value)) for cell in sheet["A"])
                    self.assertTrue(any(text.endswith(said) for text in texts))
                    facts = facts_of(rig, len(rig.weigh_ins))
                    self.assertEqual(facts.verdict, evaluation.verdict)
                    self.assertEqual(facts.sentence, line.sentence)


if __name__ == "__main__":
    unittest.main()
