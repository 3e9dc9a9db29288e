"""The columns of the workbook's sheet “Weigh-ins”: every derived weight as a live formula, one row a weigh-in.

The same definitions as in ``docs/formulas.md``, written for a spreadsheet: readings are looked up on the sheet “Tickets”, each
with its standard uncertainty; a ± is two of them, by the slopes of each figure on each axle reading (JCGM 100:2008, 5.1.2).
"""

from collections.abc import Iterator

ROLES = (("E", "hitched, bars engaged"), ("S", "hitched, bars slack or none"), ("V", "vehicle only"),
         ("C", "vehicle empty"), ("A", "trailer alone"))  # fmt: skip
"""The passes by what they are for."""
_AXLES = {"E": "frt", "S": "frt", "V": "fr", "C": "fr", "A": "t"}
_NAMES = {"f": "front", "r": "rear", "t": "trailer"}
INPUTS = ("Ef", "Er", "Et", "Sf", "Sr", "St", "Vf", "Vr", "At", "D")
"""What the tongue and the trailer's total depend on: axle readings and the tongue measured directly."""

Column = tuple[str, str, str, str]
"""A key, a heading, a formula with ``{key}`` for the cell of another column in its row, a number format."""
MASS, SHARE, PLAIN = "#,##0;-#,##0", "0.0%", "General"


def _both(*keys: str) -> str:
    return f"COUNT({','.join('{' + key + '}' for key in keys)})={len(keys)}"


def _if(condition: str, formula: str) -> str:
    return f'=IF({condition},{formula},"")'


def _pm(*variances: str) -> str:
    return f"2*SQRT({'+'.join(f'N({{v{key}}})' for key in variances)})"


def columns(tickets: str, tongue: str, rows: int, *, towing: bool, base: str, hitch: str, lever: str) -> list[Column]:
    """The columns in order.

    Parameters
    ----------
    tickets, tongue : str
        Names of the sheets with the readings and the direct measurements, ready for a formula.
    rows : int
        The last row that may hold readings.
    towing : bool
        Whether there is a trailer.
    base, hitch, lever : str
        Cells of wheelbase, hitch behind the rear axle, coupler to trailer axles.
    """
    return [*_inputs(tickets, tongue, rows), *_passes(towing), *(_towed(base, hitch, lever) if towing else ())]


def _inputs(tickets: str, tongue: str, rows: int) -> Iterator[Column]:
    def at(column: str, sheet: str = tickets) -> str:
        return f"{sheet}!${column}$2:${column}${rows}"

    for role, words in ROLES:
        yield (
            f"has{role}",
            f"is there: {words}",
            f'=AND({{number}}<>"",SUMPRODUCT(({at("A")}={{number}})*({at("G")}="{role}"))>0)',
            PLAIN,
        )
        for axle in _AXLES[role]:
            same = f'{at("A")},{{number}},{at("G")},"{role}",{at("J")},"{_NAMES[axle]}",{at("H")},1'
            there = f'COUNTIFS({same},{at("I")},"reading")>0'
            key = f"{role}{axle}"
            yield key, f"{_NAMES[axle]}, {words}", _if(f'AND({{number}}<>"",{there})', f"SUMIFS({at('N')},{same})"), MASS
            yield f"v{key}", "its u²", _if(f'{{{key}}}<>""', f"SUMIFS({at('R')},{same})"), PLAIN
    best = f"{at('A', tongue)},{{number}},{at('P', tongue)},1"
    yield (
        "D",
        "tongue measured directly",
        _if(f'AND({{number}}<>"",COUNTIFS({best})>0)', f"SUMIFS({at('N', tongue)},{best})"),
        MASS,
    )
    yield "vD", "its u²", _if('{D}<>""', f"SUMIFS({at('O', tongue)},{best})^2"), PLAIN


def _passes(towing: bool) -> Iterator[Column]:
    for axle in "frt" if towing else "fr":
        chosen = f"IF({{hasE}},{{E{axle}}},{{S{axle}}})" if towing else f"{{V{axle}}}"
        yield f"H{axle}", f"{_NAMES[axle]}, as driven", f"={chosen}", MASS
        yield f"vH{axle}", "its u²", "=" + chosen.replace("{E", "{vE").replace("{S", "{vS").replace("{V", "{vV"), PLAIN
    yield from _figure("front_hitched", "Front axle, hitched", _both("Hf"), "{Hf}", _pm("Hf"))
    yield from _figure("rear_hitched", "Rear axle, hitched", _both("Hr"), "{Hr}", _pm("Hr"))
    yield from _figure("vehicle_hitched", "Vehicle, hitched", _both("Hf", "Hr"), "{Hf}+{Hr}", _pm("Hf", "Hr"))
    yield from _figure("front_solo", "Front axle, vehicle only", _both("Vf"), "{Vf}", _pm("Vf"))
    yield from _figure("rear_solo", "Rear axle, vehicle only", _both("Vr"), "{Vr}", _pm("Vr"))
    yield from _figure("vehicle_solo", "Vehicle only", _both("Vf", "Vr"), "{Vf}+{Vr}", _pm("Vf", "Vr"))
    yield from _figure("curb_measured", "Vehicle, empty", _both("Cf", "Cr"), "{Cf}+{Cr}", _pm("Cf", "Cr"))


def _figure(key: str, heading: str, known: str, value: str, pm: str, form: str = MASS) -> Iterator[Column]:
    yield key, heading, _if(known, value), form
    yield f"pm_{key}", "±", _if(f'{{{key}}}<>""', pm), form


def _towed(base: str, hitch: str, lever: str) -> Iterator[Column]:
    yield from _figure("trailer_axles", "Trailer axles, hitched", _both("Ht"), "{Ht}", _pm("Ht"))
    everything = _both("vehicle_hitched", "Ht")
    yield from _figure("combination_gross", "Together", everything, "{vehicle_hitched}+{Ht}", _pm("Hf", "Hr", "Ht"))
    four = ("Hf", "Hr", "Vf", "Vr")
    yield from _figure("tongue_net", "Net load on the vehicle", _both(*four), "{vehicle_hitched}-{vehicle_solo}", _pm(*four))
    yield from _figure("front_transfer", "Front axle's change", _both("Hf", "Vf"), "{Hf}-{Vf}", _pm("Hf", "Vf"))
    yield from _figure("rear_transfer", "Rear axle's change", _both("Hr", "Vr"), "{Hr}-{Vr}", _pm("Hr", "Vr"))
    yield from _tongue(base, hitch, lever)
    yield from _gross()
    yield from _figure("front_restored", "Front axle, given back by the bars", _both("Ef", "Sf"), "{Ef}-{Sf}", _pm("Ef", "Sf"))
    lost = "({Vf}-{Sf})"
    slopes = f"{{vEf}}/{lost}^2+{{vSf}}*({{front_restored}}-{lost})^2/{lost}^4+{{vVf}}*{{front_restored}}^2/{lost}^4"
    known = f'IF({_both("front_restored", "Vf")},ABS({lost})>1E-9*ABS({{Vf}}),FALSE)'  # fmt: skip
    yield from _figure(
        "front_restoration", "Restoration of the front axle", known, f"{{front_restored}}/{lost}", f"2*SQRT({slopes})", SHARE
    )
    yield from _figure(
        "trailer_transfer", "Trailer axles, taken on by the bars", _both("Et", "St"), "{Et}-{St}", _pm("Et", "St")
    )


def _tongue(base: str, hitch: str, lever: str) -> Iterator[Column]:
    """The four ways to the tongue; the one with the least ± counts, the first of equals."""
    yield from _figure("by_passes", "Tongue, from the passes", _both("Sf", "Sr", "vehicle_solo"), "{Sf}+{Sr}-{vehicle_solo}",
                       _pm("Sf", "Sr", "Vf", "Vr"))  # fmt: skip
    yield from _figure("by_scale", "Tongue, measured directly", _both("D"), "{D}", _pm("D"))
    known = f"AND({{hasS}},NOT({{hasE}}),{_both('At', 'St')})"
    yield from _figure("by_trailer", "Tongue, from the trailer alone", known, "{At}-{St}", _pm("At", "St"))
    k1, k2 = f"(1+({base}+{hitch})/{lever})", f"(1+{hitch}/{lever})"
    known = f"AND({{hasE}},NOT({{hasS}}),{_both('tongue_net', 'front_transfer')},COUNT({base},{hitch},{lever})=3)"
    value = f"{{tongue_net}}+({base}*{{front_transfer}}+{hitch}*{{tongue_net}})/{lever}"
    spread = f"2*SQRT({k1}^2*({{vEf}}+{{vVf}})+{k2}^2*({{vEr}}+{{vVr}}))"
    yield from _figure("by_moments", "Tongue, by moments", known, value, spread)
    ways = ("by_passes", "by_scale", "by_trailer", "by_moments")
    least = f"MIN({','.join(f'{{pm_{way}}}' for way in ways)})*(1+1E-9)"
    way = '""'
    for each, name in reversed(tuple(zip(ways, ("passes", "direct", "trailer", "moment"), strict=True))):
        way = f'IF(N({{pm_{each}}})+({{{each}}}="")*1E+99<={least},"{name}",{way})'
    yield "tongue_source", "Tongue known by", _if(f"COUNT({','.join(f'{{{each}}}' for each in ways)})>0", way), PLAIN
    for key in INPUTS:
        direct = {"Sf": "1", "Sr": "1", "Vf": "-1", "Vr": "-1"}.get(key, "0")
        alone = {"At": "1", "St": "-1"}.get(key, "0")
        moment = {"Ef": k1, "Er": k2, "Vf": f"-{k1}", "Vr": f"-{k2}"}.get(key, "0")
        slope = (f'=IF({{tongue_source}}="passes",{direct},IF({{tongue_source}}="trailer",{alone},'
                 f'IF({{tongue_source}}="moment",{moment},IF({{tongue_source}}="direct",{1 if key == "D" else 0},0))))')  # fmt: skip
        yield f"t{key}", f"slope of the tongue on {key}", slope, PLAIN
    picks = ",".join(f'IF({{tongue_source}}="{name}",{{{each}}},0)'
                     for each, name in zip(ways, ("passes", "direct", "trailer", "moment"), strict=True))  # fmt: skip
    yield "tongue_static", "Tongue weight", _if('{tongue_source}<>""', f"SUM({picks})"), MASS
    yield "pm_tongue_static", "±", _if('{tongue_static}<>""', f"2*SQRT({_squares('t')})"), MASS


def _squares(slope: str) -> str:
    return "+".join(f"{{{slope}{key}}}^2*N({{v{key}}})" for key in INPUTS)


def _gross() -> Iterator[Column]:
    """The trailer in total, by three ways, and the tongue's share of it."""
    sums = _both("combination_gross", "vehicle_solo")
    slack = f"AND({{hasS}},{_both('St', 'tongue_static')})"
    yield ("gross_source", "Trailer known by",
           f'=IF({_both("At")},"alone",IF({sums},"sums",IF({slack},"slack","")))', PLAIN)  # fmt: skip
    for key in INPUTS:
        summed = {"E": "IF({hasE},1,0)", "S": "IF({hasE},0,1)", "V": "-1"}.get(key[0], "0")
        slope = (f'=IF({{gross_source}}="alone",{1 if key == "At" else 0},IF({{gross_source}}="sums",{summed},'
                 f'IF({{gross_source}}="slack",{{t{key}}}+{1 if key == "St" else 0},0)))')  # fmt: skip
        yield f"g{key}", f"slope of the trailer on {key}", slope, PLAIN
    yield ("trailer_gross", "Trailer, in total", '=IF({gross_source}="alone",{At},IF({gross_source}="sums",{combination_gross}-{vehicle_solo},'
           'IF({gross_source}="slack",{St}+{tongue_static},"")))', MASS)  # fmt: skip
    yield "pm_trailer_gross", "±", _if('{trailer_gross}<>""', f"2*SQRT({_squares('g')})"), MASS
    known = f"IF({_both('tongue_static', 'trailer_gross')},{{trailer_gross}}>0,FALSE)"
    parts = "+".join(f"({{t{key}}}-{{tongue_share}}*{{g{key}}})^2*N({{v{key}}})" for key in INPUTS)
    yield from _figure(
        "tongue_share", "Tongue share", known, "{tongue_static}/{trailer_gross}", f"2*SQRT({parts})/{{trailer_gross}}", SHARE
    )
