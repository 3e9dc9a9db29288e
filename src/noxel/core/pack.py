"""The load plan: what every item does to every axle, the whole rig as predicted, and every check of it.

A prediction is as good as the weights typed into it: its ± says how good that is, and it never replaces a weighing.
"""

import re
from collections.abc import Mapping
from dataclasses import replace

from uncertainties import ufloat

from noxel.core import answers, statics, words
from noxel.core.calibrate import calibrate
from noxel.core.checks import Checked, Verdict, binding, run_checks, tightest_first, verdict
from noxel.core.figures import Figure
from noxel.core.gap import how_far_off
from noxel.core.loads import PHASES, Phase
from noxel.core.pack_answers import (
    CalibrationAnswer,
    CategoryTotal,
    ItemEffect,
    MissingFigure,
    PackAnswer,
    PayloadLine,
    PhaseAnswer,
    School,
    TankAnswer,
    UsualPlace,
)
from noxel.core.predict import overhang, predict
from noxel.core.printing import Printer, check_answer
from noxel.core.quantities import Mass
from noxel.core.ratings import on_pin, payload_limit, share_range
from noxel.core.rigfile import RigFile
from noxel.core.spread import spread
from noxel.core.stowage import stowage
from noxel.core.tickets import Pass
from noxel.core.units import METRES, MassUnit, print_length, print_share, read_typed
from noxel.core.weighing import PassLoads, Weighing, weigh
from noxel.errors import MissingInput, QuantityError

_COUNT = re.compile(r"\s*([0-9]{1,5})\s*[x×]?\s+(?=\D)")
_GAP = re.compile(r"(?<=\S)\s+(?=[0-9.])")


def read_item(text: str, default: MassUnit) -> dict[str, object]:
    """Read an item as people jot it down: ``4 chairs 3 kg``, ``toolbox 62``, ``water 26 gal of water``.

    Parameters
    ----------
    text : str
        How many (optional), what, and the mass of one.
    default : {"lb", "kg"}
        The unit of a bare mass.

    Returns
    -------
    dict
        ``name``, ``mass`` as a rig file keeps it, ``quantity``, and the mass ``text`` as typed.

    Raises
    ------
    QuantityError
        If there is no mass in it, or it cannot be read.
    """
    match = _COUNT.match(text)
    rest = text[match.end() :].strip() if match else text.strip()
    why = f"“{text.strip()}”: write what it is and its mass, such as “4 chairs 3 kg”"
    for gap in _GAP.finditer(rest):  # “2nd toolbox 12.5 kg”: the first place from which the rest reads as a mass
        name, mass = rest[: gap.start()].strip(), rest[gap.end() :].removesuffix("each").strip()
        try:
            value = read_typed(mass, "mass", default).value
        except QuantityError as exc:
            why = exc.message
            continue
        return {"name": name, "mass": value, "quantity": int(match[1]) if match else 1, "text": mass}
    raise QuantityError(why)


GROUPS = {"front": "front_hitched", "rear": "rear_hitched", "trailer": "trailer_axles"}
"""What a reading, whole or finer, is part of."""
Split = Mapping[str, tuple[float, float]]
"""Readings finer than front, rear and trailer: each one's share of its group, and its ±. [kg]"""


def predicted_weighing(rig: RigFile, found: dict[str, float], off: Mapping[str, float], split: Split | None = None) -> Weighing:
    """A prediction in the form of a weighing, so that every check of one applies to the other.

    Parameters
    ----------
    rig : RigFile
        The rig as predicted.
    found : dict
        Its loads. [kg]
    off : mapping
        The ± of each of them. [kg]
    split : Split or None
        How the scale found single axles and wheels to share their group.
    """
    keys = ("front_hitched", "rear_hitched", "vehicle_hitched", "trailer_axles", "combination_gross", "trailer_gross", "tongue_static",
            "tongue_share", "front_solo", "rear_solo", "vehicle_solo", "curb_measured")  # fmt: skip
    if not rig.towing:
        found = found | {f"{key}_hitched": found[f"{key}_solo"] for key in ("front", "rear", "vehicle")}
    if not rig.towing:
        off = dict(off) | {f"{key}_hitched": off[f"{key}_solo"] for key in ("front", "rear", "vehicle") if f"{key}_solo" in off}
    figures = {
        key: Figure(key, ufloat(found[key], off[key] / 2) if off.get(key) else found[key], "predicted by the lever model",
                    sort="share" if key == "tongue_share" else "mass")
        for key in keys
        if key in found
    }  # fmt: skip
    single = {name: ufloat(share * found[GROUPS[name.split("_")[0]]], pm / 2) for name, (share, pm) in (split or {}).items()}
    stands = Pass(config="hitched" if rig.towing else "vehicle_only", readings={name: Mass(0, 0.0) for name in single})
    loads = PassLoads(
        0, stands, single, figures.get("front_hitched"), figures.get("rear_hitched"), figures.get("trailer_axles")
    )
    return Weighing(figures, hitched=loads)


def _effects(rig: RigFile, to: Printer) -> list[ItemEffect]:
    geometry, trailer = rig.vehicle.geometry, rig.trailer
    a = geometry.wheelbase.m if geometry.wheelbase else None
    b = overhang(rig)
    length = trailer.geometry.coupler_to_axles.m if trailer and trailer.geometry.coupler_to_axles else None
    found = []
    for index, load in enumerate(rig.loads):
        mass = load.kg
        front = rear = tongue = axles = None
        if load.on == "vehicle" and a and load.position is not None:
            change = statics.split_item(mass, load.position.m, a)
            front, rear = change.front, change.rear
        elif load.on == "trailer" and a and b is not None and length and load.position is not None:
            tongue = statics.item_on_tongue(mass, load.position.m, length)
            change = statics.ball_load_transfer(tongue, b, a)
            front, rear, axles = change.front, change.rear, mass - tongue
        parts = {"mass": mass, "front": front, "rear": rear, "tongue": tongue, "trailer_axles": axles}
        found.append(
            ItemEffect(
                index=index,
                metres=load.position.m if load.position else None,
                **{key: None if kg is None else kg / to.mass for key, kg in parts.items()},
            )
        )
    return found


def _aboard(rig: RigFile, where: str) -> float:
    return sum(load.kg for load in rig.loads if load.on == where)


def _payload(rig: RigFile, found: dict[str, float] | None, to: Printer) -> list[PayloadLine]:
    aboard = _aboard(rig, "vehicle")
    hitch = rig.hitch.own_mass
    lines = [PayloadLine(label="people and things in the vehicle", mass=aboard / to.mass)]
    if hitch:
        lines.append(PayloadLine(label="the hitch's own mass", mass=hitch / to.mass))
    if found and "tongue_static" in found:
        lines.append(PayloadLine(label=f"the trailer's {words.term(rig, 'tongue')}", mass=found["tongue_static"] / to.mass))
        moved = found["vehicle_hitched"] - found["vehicle_solo"] - found["tongue_static"]
        if abs(moved) > 0.5:
            lines.append(PayloadLine(label="moved onto the trailer's axles by the bars", mass=moved / to.mass))
        other = found["cargo"] - aboard - hitch
        if abs(other) > 0.5:
            lines.append(PayloadLine(label="fitted or aboard beyond the curb weight", mass=other / to.mass))
    return lines


def _schools(rig: RigFile, found: dict[str, float] | None, to: Printer) -> list[School]:
    """The tongue by each school, side by side (the highest is what to plan for)."""
    trailer = rig.trailer
    if trailer is None:
        return []
    low, high = share_range(rig)
    schools: list[tuple[str, str, float | None]] = []
    if trailer.ratings.gvwr:
        gvwr = trailer.ratings.gvwr.kg
        schools.append(
            ("share_of_gvwr", f"{print_share(high)} of the trailer's {words.term(rig, 'trailer.gvwr')}", gvwr * high)
        )
        schools.append(
            ("low_share_of_gvwr", f"{print_share(low)} of the trailer's {words.term(rig, 'trailer.gvwr')}", gvwr * low)
        )
    loaded = found.get("trailer_gross") if found else None
    if loaded and trailer.dry_weight and trailer.dry_tongue:
        share = trailer.dry_tongue.kg / trailer.dry_weight.kg
        schools.append(("dry_share", f"dry share {print_share(share)} × what it will weigh", share * loaded))
    lump = sum(extra.mass.kg for extra in trailer.dry_extras if not extra.counted)
    if trailer.dry_tongue and lump:
        names = ", ".join(extra.name.split(",")[0] for extra in trailer.dry_extras if not extra.counted)
        dry = words.term(rig, "dry_tongue") if not on_pin(rig) else "dry pin weight"
        schools.append(("dry_and_lump", f"{dry} + {names}", trailer.dry_tongue.kg + lump))
    if found and "tongue_static" in found:
        schools.append(("lever", "lever model, from where things lie", found["tongue_static"]))
    highest = max((kg for _, _, kg in schools if kg), default=None)
    return [School(code=code, title=title, value=(kg or 0.0) / to.mass, highest=kg == highest) for code, title, kg in schools]


_SLOPES: Mapping[str, tuple[str, str]] = {  # what an item in the vehicle, and one in the trailer, adds to a check
    "vehicle.front_axle": ("front", "front"), "vehicle.rear_axle": ("rear", "rear"), "vehicle.gross": ("mass", "tongue"),
    "vehicle.payload": ("mass", "tongue"), "combination.gross": ("mass", "mass"), "vehicle.tow_rating": ("", "mass"),
    "trailer.gross": ("", "mass"), "hitch.trailer": ("", "mass"), "trailer.cargo": ("", "mass"), "trailer.axles": ("", "trailer_axles"),
    "hitch.tongue": ("", "tongue"),
}  # fmt: skip


def _with_takes(rig: RigFile, items: list[ItemEffect], rows: list[Checked], to: Printer) -> list[ItemEffect]:
    """Say of each item of which limit's room it takes the largest share; the room is what the limit leaves to all items."""

    def adds(item: ItemEffect, check: str) -> float:
        vehicle, trailer = _SLOPES[check]
        name = vehicle if rig.loads[item.index].on == "vehicle" else trailer
        return (getattr(item, name) or 0.0) if name else 0.0

    rooms = []
    for row in rows:
        if row.id in _SLOPES and row.limit and row.actual and not row.limit.worked_out:
            room = (row.cushion * row.limit.kg - row.actual.value) / to.mass + sum(adds(item, row.id) for item in items)
            if room > 0:
                rooms.append((row.id, room))
    made = []
    for item in items:
        share, check = max(((adds(item, check) / room, check) for check, room in rooms), default=(0.0, ""))
        said = f"{share * 100:.0f} % of the room of {_lower(words.check_label(rig, check))}" if share >= 0.005 else None
        made.append(item.model_copy(update={"takes": said}))
    return made


def _lower(label: str) -> str:
    return label if label[:2].isupper() else label[0].lower() + label[1:]


def _tanks(rig: RigFile, to: Printer) -> list[TankAnswer]:
    return [
        TankAnswer(index=index, metres=tank.position.m if tank.position else None, full=tank.full_kg() / to.mass,
                   now=tank.full_kg() * tank.level(rig.plan.phase) / to.mass, level=tank.level(rig.plan.phase),
                   levels={phase: tank.level(phase) for phase in PHASES})
        for index, tank in enumerate(rig.tanks)
    ]  # fmt: skip


PHASE_NAMES = {"leaving": "leaving", "half_way": "half-way", "arriving": "arriving", "heading_home": "heading home"}
_SEVERITY: Mapping[Verdict, int] = {"stop": 3, "incomplete": 2, "caution": 1, "within": 0}


def in_phase(rig: RigFile, phase: Phase) -> RigFile:
    """The rig with its plan looked at in another phase of the trip."""
    return rig.model_copy(update={"plan": rig.plan.model_copy(update={"phase": phase})})


def _phases(rig: RigFile) -> list[PhaseAnswer]:
    """Every phase as predicted; nothing when no tank changes on the way."""
    if not rig.tanks:
        return []
    found: list[tuple[Phase, Verdict, str, float]] = []
    reckoned: dict[tuple[float, ...], tuple[Verdict, str, float]] = {}
    for phase in PHASES:
        levels = tuple(tank.level(phase) for tank in rig.tanks)
        if levels in reckoned:  # nothing was drained or filled since
            found.append((phase, *reckoned[levels]))
            continue
        seen = in_phase(rig, phase)
        rows = _predicted_rows(seen, dict(predict(seen)))
        bind = binding(rows)
        said = words.headline(seen, rows, verdict(rows))
        reckoned[levels] = (verdict(rows), said.sentence, bind.used or 0.0 if bind else 0.0)
        found.append((phase, *reckoned[levels]))
    worst = max(found, key=lambda each: (_SEVERITY[each[1]], each[3]))
    return [PhaseAnswer(code=code, name=PHASE_NAMES[code], verdict=said, sentence=sentence, used=used, worst=code == worst[0])
            for code, said, sentence, used in found]  # fmt: skip


def _predicted_rows(rig: RigFile, found: dict[str, float]) -> list[Checked]:
    weighing = predicted_weighing(rig, found, spread(rig, found))
    return tightest_first(run_checks(rig, weighing))


def _calibration(rig: RigFile, weighing: Weighing, to: Printer) -> CalibrationAnswer | None:
    made = calibrate(rig, weighing)
    if made.overhang is None:
        return None
    factor, unit = METRES[to.length], to.length
    tape = rig.vehicle.geometry.hitch_offset
    found, pm = made.overhang.value / factor, made.overhang.plus_minus / factor
    says = [f"By the slack pass the hitch point acts {print_length(made.overhang.value, unit)} "
            f"(± {print_length(made.overhang.plus_minus, unit)}) behind the rear axle"
            + (f"; the tape says {print_length(tape.m, unit)}." if tape else ".")]  # fmt: skip
    if made.moment_front and made.moment_trailer:
        says.append(
            "The bars' pull, read from the front axle and from the trailer's axles, agrees within the scale's ±."
            if made.agrees
            else f"Two ways to the bars' pull disagree by {abs(made.apart) / max(abs(made.moment_front.value), 1e-9) * 100:.0f} %, more than "
            "the scale's ± explains: an axle across two platforms, a coupler at another height, or bars that slipped between the passes."
        )
    return CalibrationAnswer(overhang=found, overhang_pm=pm, tape=tape.m / factor if tape else None,
                             in_use=rig.plan.effective_overhang is not None, agrees=made.agrees, says=says)  # fmt: skip


def evaluate_pack(rig: RigFile, weigh_in: int | None = None) -> PackAnswer:
    """Predict the rig as planned, with every check that a weigh-in has.

    Parameters
    ----------
    rig : RigFile
        Its plan, loads, tanks, lengths and ratings.
    weigh_in : int or None
        The weigh-in, from 1, that the plan is compared with; None is the last.

    Returns
    -------
    PackAnswer
        In the file's unit. Where the prediction needs a figure that nobody has entered, ``missing`` names it, and
        whatever can be said without it is still there.
    """
    to = Printer(rig)
    found: dict[str, float] | None = None
    missing: list[MissingFigure] = []
    try:
        found = dict(predict(rig))
    except MissingInput as exc:
        missing = [MissingFigure(path=each.path, message=each.message) for each in exc.problems]
    lines, limit = _payload(rig, found, to), payload_limit(rig)
    number = weigh_in or len(rig.weigh_ins)
    weighed = weigh(rig, rig.weigh_ins[number - 1] if number else None)
    made = PackAnswer(
        missing=missing,
        predicted={key: kg if key == "tongue_share" else kg / to.mass for key, kg in (found or {}).items()},
        verdict=None,
        headline=None,
        checks=[],
        items=_effects(rig, to),
        payload=lines,
        payload_used=sum(line.mass for line in lines),
        payload_limit=limit.kg / to.mass if limit else None,
        on_vehicle=_aboard(rig, "vehicle") / to.mass,
        on_trailer=_aboard(rig, "trailer") / to.mass,
        schools=_schools(rig, found, to),
        categories=_categories(rig, to),
        tanks=_tanks(rig, to),
        places=_places(rig, to),
        phase=rig.plan.phase,
        phases=[],
        stowage=stowage(rig, found.get("tongue_share") if found else None),
        gap=None,
        calibration=_calibration(rig, weighed, to),
    )
    if found is None:
        return made
    rows = _predicted_rows(rig, found)
    said = verdict(rows)
    return made.model_copy(update={
        "verdict": said, "headline": words.headline(rig, rows, said), "checks": checks_of(rig, rows, to),
        "items": _with_takes(rig, made.items, rows, to), "phases": _phases(rig),
        "gap": how_far_off(rig, found, spread(rig, found), weighed),
    })  # fmt: skip


def checks_of(rig: RigFile, rows: list[Checked], to: Printer) -> list[answers.Check]:
    """Predicted checks as they are sent: without a working, for there was no weighing."""
    return [replace(check_answer(rig, _NOTHING_WEIGHED, row, to), working=None) for row in rows]


_NOTHING_WEIGHED = Weighing()


_IN_VEHICLE = {  # as shares of the wheelbase behind the front axle
    "pickup": (("front seats", 0.46), ("rear seats", 0.70), ("bed, front", 0.92), ("bed, middle", 1.06), ("bed, tail", 1.22)),
    "wagon": (("front seats", 0.46), ("rear seats", 0.76), ("cargo area", 1.08)),
    "van": (("front seats", 0.30), ("rear seats", 0.62), ("cargo area", 1.02)),
    "motorhome": (("front seats", 0.08), ("middle", 0.55), ("rear", 1.10)),
}
_IN_TRAILER = (("nose", 0.18), ("ahead of the axles", 0.65), ("over the axles", 1.0), ("behind the axles", 1.2), ("tail", 1.45))


def _places(rig: RigFile, to: Printer) -> list[UsualPlace]:
    """Places by their usual names, from this rig's own lengths; about right, to be measured where it matters."""
    geometry, trailer = rig.vehicle.geometry, rig.trailer
    found = []

    def put(on: str, name: str, metres: float) -> None:
        found.append(UsualPlace(on=on, name=name, text=print_length(metres, to.length)))

    if geometry.wheelbase:
        a = geometry.wheelbase.m
        body = rig.vehicle.body or ("motorhome" if rig.kind == "motorhome" else "pickup")
        for name, share in (*_IN_VEHICLE[body], ("roof", 0.62)):
            put("vehicle", name, share * a)
        b = overhang(rig)
        if b is not None and rig.towing:
            put("vehicle", "at the hitch", a + b)
    if trailer and trailer.geometry.coupler_to_axles:
        for name, share in _IN_TRAILER:
            put("trailer", name, share * trailer.geometry.coupler_to_axles.m)
    return found


def _categories(rig: RigFile, to: Printer) -> list[CategoryTotal]:
    totals: dict[str, float] = {}
    for load in rig.loads:
        name = load.category or "other"
        totals[name] = totals.get(name, 0.0) + load.kg / to.mass
    return [CategoryTotal(category=name, mass=mass) for name, mass in sorted(totals.items(), key=lambda each: -each[1]) if mass]
