"""From SI figures to the rig's own units, terms and sentences.

All that the page, the papers and the terminal say about checks, verdicts and evidence.
"""

from noxel.core.wording import answers, sentences
from noxel.core.wording.answers import (
    Advisory,
    Answer,
    Check,
    Evaluation,
    ExpectedCheck,
    Fix,
    FixChange,
    Headline,
    MissingFigure,
    PassAnswer,
    Shaped,
    Working,
)
from noxel.core.wording.attitude import Attitude, attitude
from noxel.core.wording.coupling import (
    CHOCKS,
    CHOCKS_OFF,
    bars_off,
    coupled_up,
    coupling_test,
    parked,
    set_down,
    tensioned,
)
from noxel.core.wording.doubts import doubt_advisory
from noxel.core.wording.evidence import findings, still_open, tongue_ways
from noxel.core.wording.expectations import basis, beside_words, expected_sentence, way_words
from noxel.core.wording.headlines import headline, headline_of
from noxel.core.wording.labels import (
    base_guessed,
    check_label,
    figure_title,
    in_terms,
    limiting_rating,
    missing_rating,
    source_label,
    spoken_words,
    term_name,
    terms_of,
    vehicle_word,
    words_of,
)
from noxel.core.wording.present import Printer, check_answer, check_answers
from noxel.core.wording.rules import rule_advisory, rule_sentence
from noxel.core.wording.sentences import AT_THE_SCALE, CAUTION, PHASE_NAMES
from noxel.core.wording.signs import Sign, sign_words

__all__ = [
    "AT_THE_SCALE",
    "CAUTION",
    "CHOCKS",
    "CHOCKS_OFF",
    "PHASE_NAMES",
    "Advisory",
    "Answer",
    "Attitude",
    "Check",
    "Evaluation",
    "ExpectedCheck",
    "Fix",
    "FixChange",
    "Headline",
    "MissingFigure",
    "PassAnswer",
    "Printer",
    "Shaped",
    "Sign",
    "Working",
    "answers",
    "attitude",
    "bars_off",
    "base_guessed",
    "basis",
    "beside_words",
    "check_answer",
    "check_answers",
    "check_label",
    "coupled_up",
    "coupling_test",
    "doubt_advisory",
    "expected_sentence",
    "figure_title",
    "findings",
    "headline",
    "headline_of",
    "in_terms",
    "limiting_rating",
    "missing_rating",
    "parked",
    "rule_advisory",
    "rule_sentence",
    "sentences",
    "set_down",
    "sign_words",
    "source_label",
    "spoken_words",
    "still_open",
    "tensioned",
    "term_name",
    "terms_of",
    "tongue_ways",
    "vehicle_word",
    "way_words",
    "words_of",
]
