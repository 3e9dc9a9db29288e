"""Load against rating.

Which rating applies to each check, the status of each check, the verdict, the headroom that is
left.
"""

from noxel.core.limits.checks import (
    Checked,
    Foreseen,
    Outlook,
    Status,
    Verdict,
    binding,
    exceeds,
    limit_of,
    not_settled,
    run_checks,
    status_at,
    tightest_first,
    verdict,
)
from noxel.core.limits.doubts import Doubt, DoubtCode, doubts, unanswered
from noxel.core.limits.headroom import Headroom, headroom
from noxel.core.limits.judged import Judged, foreseen, judge, pick_weigh_in
from noxel.core.limits.outlook import foresee, outlook_of
from noxel.core.limits.pressures import pressure_for
from noxel.core.limits.ratings import (
    Limit,
    combination_limit,
    cushion,
    limits,
    part_rating,
    payload_limit,
    tongue_limit,
    tow_limit,
)
from noxel.core.limits.rules import BrokenRule, broken_rules, row_for, tongue_rows
from noxel.core.limits.since import Since, as_it_stands
from noxel.core.limits.specs import (
    CHECKS,
    UNDER_LOAD,
    AxleGroup,
    CheckId,
    CheckSpec,
    Subject,
    single_axle,
)
from noxel.core.limits.tires import (
    OLD_YEARS,
    AxleSet,
    age_years,
    axle_sets,
    is_p_metric,
    made_on,
    may_be_passenger,
    read_load_index,
)
from noxel.core.limits.under_load import AXLES_APART, SIDES_APART, drive_part, under_load

__all__ = [
    "AXLES_APART",
    "CHECKS",
    "OLD_YEARS",
    "SIDES_APART",
    "UNDER_LOAD",
    "AxleGroup",
    "AxleSet",
    "BrokenRule",
    "CheckId",
    "CheckSpec",
    "Checked",
    "Doubt",
    "DoubtCode",
    "Foreseen",
    "Headroom",
    "Judged",
    "Limit",
    "Outlook",
    "Since",
    "Status",
    "Subject",
    "Verdict",
    "age_years",
    "as_it_stands",
    "axle_sets",
    "binding",
    "broken_rules",
    "combination_limit",
    "cushion",
    "doubts",
    "drive_part",
    "exceeds",
    "foresee",
    "foreseen",
    "headroom",
    "is_p_metric",
    "judge",
    "limit_of",
    "limits",
    "made_on",
    "may_be_passenger",
    "not_settled",
    "outlook_of",
    "part_rating",
    "payload_limit",
    "pick_weigh_in",
    "pressure_for",
    "read_load_index",
    "row_for",
    "run_checks",
    "single_axle",
    "status_at",
    "tightest_first",
    "tongue_limit",
    "tongue_rows",
    "tow_limit",
    "unanswered",
    "under_load",
    "verdict",
]
