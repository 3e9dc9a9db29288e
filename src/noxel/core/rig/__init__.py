"""The rig file: one rig with its labels, loads, plan and weigh-ins.

The models here are the file format, the requests and answers of the API, and the documents in the
database.
"""

from noxel.core.rig.base import SHARE, Entered, Entry, Source, Units
from noxel.core.rig.kinds import EUROPE_SHARE, on_its_wheels, on_pin, share_range, usual_share
from noxel.core.rig.loads import (
    PHASES,
    Category,
    KeptPlan,
    Listed,
    Load,
    Phase,
    Plan,
    Step,
    Tank,
    TrailerBase,
    Trouble,
    VehicleBase,
)
from noxel.core.rig.parts import (
    ByMode,
    HitchPart,
    Kind,
    Limited,
    Mode,
    TongueRow,
    Trailer,
    TrailerRatings,
    rating_in,
    rating_path,
)
from noxel.core.rig.paths import Identity, problems_of, read_path, write_path
from noxel.core.rig.rigfile import RigFile, dump_rig, parse_rig
from noxel.core.rig.sources import entry_at, source_words
from noxel.core.rig.terms import SETS, Meaning, TermSet, glossary
from noxel.core.rig.tires import LOAD_INDEX, AxleTires
from noxel.core.rig.weigh_ins import (
    Added,
    BeamMeasurement,
    Config,
    LeverMeasurement,
    Pass,
    Scale,
    ScaleMeasurement,
    SpringBars,
    TongueMeasurement,
    WeighIn,
)

__all__ = [
    "EUROPE_SHARE",
    "LOAD_INDEX",
    "PHASES",
    "SETS",
    "SHARE",
    "Added",
    "AxleTires",
    "BeamMeasurement",
    "ByMode",
    "Category",
    "Config",
    "Entered",
    "Entry",
    "HitchPart",
    "Identity",
    "KeptPlan",
    "Kind",
    "LeverMeasurement",
    "Limited",
    "Listed",
    "Load",
    "Meaning",
    "Mode",
    "Pass",
    "Phase",
    "Plan",
    "RigFile",
    "Scale",
    "ScaleMeasurement",
    "Source",
    "SpringBars",
    "Step",
    "Tank",
    "TermSet",
    "TongueMeasurement",
    "TongueRow",
    "Trailer",
    "TrailerBase",
    "TrailerRatings",
    "Trouble",
    "Units",
    "VehicleBase",
    "WeighIn",
    "dump_rig",
    "entry_at",
    "glossary",
    "on_its_wheels",
    "on_pin",
    "parse_rig",
    "problems_of",
    "rating_in",
    "rating_path",
    "read_path",
    "share_range",
    "source_words",
    "usual_share",
    "write_path",
]
