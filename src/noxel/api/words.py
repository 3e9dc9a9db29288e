"""``/api/words``: what does not depend on a rig: the glossary, and the schools of experienced
people.
"""

from pydantic import BaseModel

from noxel.api.deps import new_router
from noxel.core.pack import CATALOGUE, Ordinary
from noxel.core.plates import CUSHIONS, SHARES, CushionSchool, ShareSchool
from noxel.core.rig import SETS, Meaning, TermSet, glossary
from noxel.core.wording import spoken_words

router = new_router()


class Words(BaseModel):
    """Terms with their meanings, the schools of tongue share and cushion with their reasons,
    ordinary items with typical masses, and what each region says for a term.
    """

    glossary: list[Meaning]
    shares: list[ShareSchool]
    cushions: list[CushionSchool]
    catalogue: list[Ordinary]
    spoken: dict[TermSet, dict[str, str]]


@router.get("/words")
def words() -> Words:
    """Everything there is to look up."""
    return Words(
        glossary=glossary(),
        shares=list(SHARES),
        cushions=list(CUSHIONS),
        catalogue=list(CATALOGUE),
        spoken={terms: spoken_words(terms) for terms in SETS},
    )
