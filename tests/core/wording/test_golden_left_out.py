"""What is said when something is missing: each figure, each choice, each pass and each part of some
rigs is left out in turn. Of every such rig what was said of none before it is kept, figures
included, and read by a person.
"""

import unittest

from pydantic_core import to_jsonable_python

from noxel.core.evaluate import evaluate
from noxel.core.match import how_much
from noxel.core.pack import evaluate_pack
from noxel.core.plates import evaluate_plates
from noxel.core.rig import RigFile, parse_rig
from noxel.errors import RigFileError
from tests.core.wording.test_golden_rooms import TODAY
from tests.kept import as_kept, texts_of
from tests.truth import Document, parts_of, rig_of, without

SPOKEN = ("headline", "outlook", "open", "rooms", "checks", "tongue", "findings", "advisories")


def said_of(rig: RigFile) -> list[str]:
    """What every room says of a rig as it is."""
    evaluation = evaluate(rig)
    answers = [getattr(evaluation, spoken, None) for spoken in SPOKEN]
    plates = evaluate_plates(rig, evaluation, TODAY)
    rooms = [evaluate_pack(rig), plates.beside, plates.ready, how_much(rig)]
    return list(texts_of(to_jsonable_python([answers, rooms], serialize_unknown=True)))


class GoldenLeftOut(unittest.TestCase):
    maxDiff = 3000

    def kept(self, name: str, document: Document) -> None:
        """Sentences alone: a text with a blank in it."""
        known = set(said_of(parse_rig(document)))
        lines: list[str] = []
        for path in parts_of(document):
            try:
                said = said_of(parse_rig(without(document, path)))
            except RigFileError as refused:
                said = [f"refused: {refused}"]
            new = [code for code in dict.fromkeys(said) if " " in code and code not in known]
            known.update(new)
            if new:
                lines += ["without " + ".".join(map(str, path)), *(f"  {line}" for line in new)]
        as_kept(self, f"left-out/{name}", lines)

    def test_a_ball(self) -> None:
        self.kept("three-passes", rig_of("check--three-passes"))


if __name__ == "__main__":
    unittest.main()
