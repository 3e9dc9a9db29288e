"""The columns of the workbook's sheet “Weigh-ins”: every derived weight as a live formula, one row
a weigh-in.

The same definitions as in ``docs/formulas.md``, written for a spreadsheet. Of each pass the sheet
holds the front and rear axle, the vehicle (v), the trailer's axles (t) and everything (x), as read
or by difference. x = v + t, so any figure is a sum of slopes on v and t. Which two of the three
were read decides its variance: P·c_v² + Q·c_t² + M·(c_v − c_t)² for each pass. On top comes the
scale's one error, its accuracy × the weighed part of the figure (JCGM 100:2008, 5.2).
"""

from collections.abc import Iterator

from noxel.formats.workbook_terms import (
    MASS,
    NAMES,
    PLAIN,
    READ,
    ROLES,
    Column,
    figure,
    have,
    if_,
    number_of,
    pm_axle,
    pm_of,
)
from noxel.formats.workbook_towed import towed


def columns(
    tickets: str, tongue: str, rows: int, *, towing: bool, base: str, hitch: str, lever: str
) -> list[Column]:
    """The columns in order.

    ``tickets`` and ``tongue``: names of the sheets with the readings and the direct measurements,
    ready for a formula. ``rows``: the last row that may hold readings. ``towing``: whether there is
    a trailer. ``base`` and ``hitch`` and ``lever``: cells of wheelbase, hitch behind the rear axle,
    coupler to trailer axles.
    """
    return [
        *_inputs(tickets, tongue, rows),
        *_passes(towing),
        *(towed(base, hitch, lever) if towing else ()),
    ]


def _inputs(tickets: str, tongue: str, rows: int) -> Iterator[Column]:
    def at(column: str, sheet: str = tickets) -> str:
        return f"{sheet}!${column}$2:${column}${rows}"

    cells = f'({at("A")}={{number}})*({at("I")}="reading")'
    yield (
        "acc",
        "the scale's error, a share",
        f'=IF({{number}}="",0,SUMPRODUCT(MAX({cells}*{at("P")})))',
        PLAIN,
    )
    for role, words in ROLES:
        yield (
            f"has{role}",
            f"is there: {words}",
            f'=AND({{number}}<>"",SUMPRODUCT(({at("A")}={{number}})*({at("G")}="{role}"))>0)',
            PLAIN,
        )
        for axle in READ[role]:
            same = f'{at("A")},{{number}},{at("G")},"{role}",{at("J")},"{NAMES[axle]}",{at("H")},1'
            read = f'{same},{at("I")},"reading"'
            key = f"{role}{axle}"
            yield (
                f"c{key}",
                f"corrections: {NAMES[axle]}, {words}",
                f'=IF({{number}}="",0,SUMIFS({at("N")},{same},{at("I")},"correction"))',
                PLAIN,
            )
            yield (
                f"r{key}",
                f"read: {NAMES[axle]}, {words}",
                if_(f'AND({{number}}<>"",COUNTIFS({read})>0)', f"SUMIFS({at('N')},{read})"),
                MASS,
            )
            yield f"s{key}", "its u²", if_(f'{{r{key}}}<>""', f"SUMIFS({at('R')},{read})"), PLAIN
        yield from _loads(role)
    best = f"{at('A', tongue)},{{number}},{at('P', tongue)},1"
    yield (
        "D",
        "tongue measured directly",
        if_(f'AND({{number}}<>"",COUNTIFS({best})>0)', f"SUMIFS({at('N', tongue)},{best})"),
        MASS,
    )
    yield "vD", "its u²", if_('{D}<>""', f"SUMIFS({at('O', tongue)},{best})^2"), PLAIN


def _loads(role: str) -> Iterator[Column]:
    """The loads of one pass, as read or by difference, and which readings their variance comes
    from.
    """
    read = READ[role]

    def is_read(axle: str) -> str:
        return f'{{r{role}{axle}}}<>""' if axle in read else "FALSE"

    def r(axle: str, name: str = "r") -> str:
        return number_of(f"{name}{role}{axle}") if axle in read else "0"

    parts = f"AND({is_read('f')},{is_read('r')})"
    # the vehicle: its axles, the sum, or everything less the trailer
    whole = "E" in role or "S" in role
    if role != "A":
        alone = is_read("x") if not whole else f"AND({is_read('x')},{is_read('t')})"
        w = f'IF({parts},{r("f")}+{r("r")},IF({is_read("v")},{r("v")},IF({alone},{r("x")}-{r("t")},"")))'
        yield f"w{role}v", "vehicle, as weighed", f"={w}", MASS
        yield (
            f"{role}v",
            "vehicle",
            if_(f'{{w{role}v}}<>""', f"{{w{role}v}}+{r('f', 'c')}+{r('r', 'c')}"),
            MASS,
        )
        yield (
            f"u{role}v",
            "its own u²",
            f"=IF({parts},{r('f', 's')}+{r('r', 's')},IF({is_read('v')},{r('v', 's')},0))",
            PLAIN,
        )
        for axle, other in (("f", "r"), ("r", "f")):
            w = f'IF({is_read(axle)},{r(axle)},IF(AND({is_read(other)},{{w{role}v}}<>""),{{w{role}v}}-{r(other)},""))'
            yield f"w{role}{axle}", f"{NAMES[axle]}, as weighed", f"={w}", MASS
            yield (
                f"{role}{axle}",
                NAMES[axle],
                if_(f'{{w{role}{axle}}}<>""', f"{{w{role}{axle}}}+{r(axle, 'c')}"),
                MASS,
            )
    trailer_by = (
        is_read("x")
        if role == "A"
        else f'AND({is_read("x")},{{w{role}v}}<>"",NOT({is_read("t")}))'
        if whole
        else "FALSE"
    )
    if "t" in read:
        minus = f"-{{w{role}v}}" if role != "A" else ""
        yield (
            f"w{role}t",
            "trailer axles, as weighed",
            f'=IF({is_read("t")},{r("t")},IF({trailer_by},{r("x")}{minus},""))',
            MASS,
        )
        yield f"{role}t", "trailer axles", f"={{w{role}t}}", MASS
    if role == "A":
        yield "PA", "variance with v²", "=0", PLAIN
        yield "QA", "variance with t²", f"=IF({is_read('t')},{r('t', 's')},{r('x', 's')})", PLAIN
        yield "MA", "variance with (v−t)²", "=0", PLAIN
        return
    own = f"OR({parts},{is_read('v')})"
    if whole:
        yield (
            f"P{role}",
            "variance with v²",
            f"=IF({own},IF(AND({is_read('x')},NOT({is_read('t')})),0,{{u{role}v}}),{r('x', 's')})",
            PLAIN,
        )
        yield (
            f"Q{role}",
            "variance with t²",
            f"=IF({own},IF({is_read('t')},{r('t', 's')},{r('x', 's')}),0)",
            PLAIN,
        )
        yield (
            f"M{role}",
            "variance with (v−t)²",
            f"=IF({own},IF({is_read('t')},0,{{u{role}v}}),{r('t', 's')})",
            PLAIN,
        )
    else:
        yield f"P{role}", "variance with v²", f"=IF({own},{{u{role}v}},{r('x', 's')})", PLAIN
        yield f"Q{role}", "variance with t²", "=0", PLAIN
        yield f"M{role}", "variance with (v−t)²", "=0", PLAIN
    total = f"IF({own},{{u{role}v}},{r('x', 's')}+{r('t', 's')})"
    for axle, other in (("f", "r"), ("r", "f")):
        yield (
            f"u{role}{axle}",
            f"u² of {NAMES[axle]}",
            f"=IF({is_read(axle)},{r(axle, 's')},{total}+{r(other, 's')})",
            PLAIN,
        )
    shared = f"IF({parts},{r('f', 's')},IF({is_read('f')},0,{total}))"
    by_total = f"AND({own},{is_read('x')},NOT({is_read('t')}))" if whole else "FALSE"
    yield f"K{role}", "covariance of front and v", f"=IF({by_total},0,{shared})", PLAIN
    yield (
        f"L{role}",
        "the same where the trailer is a difference",
        f"=IF({by_total},{shared},0)",
        PLAIN,
    )


def _passes(towing: bool) -> Iterator[Column]:
    for key in ("f", "r", "v", "t", "wf", "wr", "wv", "wt", "uf", "ur", "P", "Q", "M", "x"):
        if not towing and key in ("t", "wt", "x"):
            continue
        name = f"{key[0]}H{key[1]}" if len(key) == 2 else f"{key}H" if key.isupper() else f"H{key}"
        source = {role: name.replace("H", role) for role in "ESV"}
        if key == "x":
            parts = 'IF({{rR}}<>"",{{rR}}+{{cRf}}+{{cRr}},"")'
            chosen = f"IF({{hasE}},{parts.replace('R}', 'Ex}').replace('cR', 'cE')},{parts.replace('R}', 'Sx}').replace('cR', 'cS')})"
            yield (
                "Hx",
                "everything, as read",
                "=" + chosen.replace("{{", "{").replace("}}", "}"),
                MASS,
            )
            yield "uHx", "its u²", "=IF({hasE},N({sEx}),N({sSx}))", PLAIN
            yield "wHx", "as weighed", "=IF({hasE},N({rEx}),N({rSx}))", PLAIN
            continue
        chosen = (
            f"IF({{hasE}},{{{source['E']}}},{{{source['S']}}})" if towing else f"{{{source['V']}}}"
        )
        yield name, f"{NAMES.get(key[-1], 'variance')}, as driven", f"={chosen}", MASS
    yield from figure("front_hitched", "Front axle, hitched", have("Hf"), "{Hf}", pm_axle("H", "f"))
    yield from figure("rear_hitched", "Rear axle, hitched", have("Hr"), "{Hr}", pm_axle("H", "r"))
    yield from figure("vehicle_hitched", "Vehicle, hitched", have("Hv"), "{Hv}", pm_of(Hv="1"))
    yield from figure(
        "front_solo", "Front axle, vehicle only", have("Vf"), "{Vf}", pm_axle("V", "f")
    )
    yield from figure("rear_solo", "Rear axle, vehicle only", have("Vr"), "{Vr}", pm_axle("V", "r"))
    yield from figure("vehicle_solo", "Vehicle only", have("Vv"), "{Vv}", pm_of(Vv="1"))
    yield from figure("curb_measured", "Vehicle, empty", have("Cv"), "{Cv}", pm_of(Cv="1"))
    if not towing:
        yield (
            "payload_pm",
            "± of the payload used",
            if_(have("Hv", "Cv"), pm_of(Vv="1", Cv="-1")),
            MASS,
        )
    else:
        yield (
            "payload_pm",
            "± of the payload used",
            if_(have("Hv", "Cv"), pm_of(Hv="1", Cv="-1")),
            MASS,
        )
