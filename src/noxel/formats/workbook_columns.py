"""The columns of the workbook's sheet “Weigh-ins”: every derived weight as a live formula, one row
a weigh-in.

The same definitions as in ``docs/formulas.md``, written for a spreadsheet. Of each pass the sheet
holds the front and rear axle, the vehicle (v), the trailer's axles (t) and everything (x), as read
or by difference. x = v + t, so any figure is a sum of slopes on v and t. Which two of the three
were read decides its variance: P·c_v² + Q·c_t² + M·(c_v − c_t)² for each pass. On top comes the
scale's one error, its accuracy × the weighed part of the figure (JCGM 100:2008, 5.2).
"""

from collections.abc import Iterator

ROLES = (
    ("E", "hitched, bars engaged"),
    ("S", "hitched, bars slack or none"),
    ("V", "vehicle only"),
    ("C", "vehicle empty"),
    ("A", "trailer alone"),
)
"""The passes by what they are for."""
_READ = {"E": "frtvx", "S": "frtvx", "V": "frvx", "C": "frvx", "A": "tx"}
_NAMES = {"f": "front", "r": "rear", "t": "trailer", "v": "vehicle", "x": "gross"}
SLOPES = ("Ev", "Et", "Ef", "Sv", "St", "Vv", "Vf", "At", "D")
"""What the tongue and the trailer's total depend on: loads of the passes, and the tongue measured
directly.
"""

Column = tuple[str, str, str, str]
"""A key, a heading, a formula with ``{key}`` for the cell of another column in its row, a number
format.
"""
MASS, SHARE, PLAIN = "#,##0;-#,##0", "0.0%", "General"


def _both(*keys: str) -> str:
    return f"COUNT({','.join('{' + key + '}' for key in keys)})={len(keys)}"


def _if(condition: str, formula: str) -> str:
    return f'=IF({condition},{formula},"")'


def _n(key: str) -> str:
    return f"N({{{key}}})"


def _pm(**slopes: str) -> str:
    """A ± by the slopes on v, t and f of each pass: ``Ev="1", Et="-1"``; ``D`` is the tongue
    measured directly.
    """
    squares, weighed = [], []
    for role in "ESVCAH":
        v, t, f = (slopes.get(f"{role}{axle}", "0") for axle in "vtf")
        if (v, t, f) == ("0", "0", "0"):
            continue
        squares.append(
            f"{_n('P' + role)}*({v})^2+{_n('Q' + role)}*({t})^2+{_n('M' + role)}*(({v})-({t}))^2"
        )
        weighed += [
            f"({slope})*{_n('w' + role + axle)}"
            for axle, slope in (("v", v), ("t", t))
            if slope != "0"
        ]
        if f != "0":
            squares.append(
                f"({f})^2*{_n('u' + role + 'f')}+2*({f})*(({v})*{_n('K' + role)}+(({v})-({t}))*{_n('L' + role)})"
            )
            weighed.append(f"({f})*{_n('w' + role + 'f')}")
    if slopes.get("D", "0") != "0":
        squares.append(f"({slopes['D']})^2*{_n('vD')}")
    gain = f"({_n('acc')}*({'+'.join(weighed)}))^2" if weighed else "0"
    return f"2*SQRT({'+'.join(squares)}+{gain})"


def _pm_axle(role: str, axle: str, *others: str) -> str:
    """The ± of one axle's load, or of its difference from the same axle in another pass."""
    roles = (role, *others)
    squares = "+".join(_n(f"u{each}{axle}") for each in roles)
    weighed = "-".join(_n(f"w{each}{axle}") for each in roles)
    return f"2*SQRT({squares}+({_n('acc')}*({weighed}))^2)"


def columns(
    tickets: str, tongue: str, rows: int, *, towing: bool, base: str, hitch: str, lever: str
) -> list[Column]:
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
    return [
        *_inputs(tickets, tongue, rows),
        *_passes(towing),
        *(_towed(base, hitch, lever) if towing else ()),
    ]


def _inputs(tickets: str, tongue: str, rows: int) -> Iterator[Column]:
    def at(column: str, sheet: str = tickets) -> str:
        return f"{sheet}!${column}$2:${column}${rows}"

    here = f'({at("A")}={{number}})*({at("I")}="reading")'
    yield (
        "acc",
        "the scale's error, a share",
        f'=IF({{number}}="",0,SUMPRODUCT(MAX({here}*{at("P")})))',
        PLAIN,
    )
    for role, words in ROLES:
        yield (
            f"has{role}",
            f"is there: {words}",
            f'=AND({{number}}<>"",SUMPRODUCT(({at("A")}={{number}})*({at("G")}="{role}"))>0)',
            PLAIN,
        )
        for axle in _READ[role]:
            same = f'{at("A")},{{number}},{at("G")},"{role}",{at("J")},"{_NAMES[axle]}",{at("H")},1'
            read = f'{same},{at("I")},"reading"'
            key = f"{role}{axle}"
            yield (
                f"c{key}",
                f"corrections: {_NAMES[axle]}, {words}",
                f'=IF({{number}}="",0,SUMIFS({at("N")},{same},{at("I")},"correction"))',
                PLAIN,
            )
            yield (
                f"r{key}",
                f"read: {_NAMES[axle]}, {words}",
                _if(f'AND({{number}}<>"",COUNTIFS({read})>0)', f"SUMIFS({at('N')},{read})"),
                MASS,
            )
            yield f"s{key}", "its u²", _if(f'{{r{key}}}<>""', f"SUMIFS({at('R')},{read})"), PLAIN
        yield from _loads(role)
    best = f"{at('A', tongue)},{{number}},{at('P', tongue)},1"
    yield (
        "D",
        "tongue measured directly",
        _if(f'AND({{number}}<>"",COUNTIFS({best})>0)', f"SUMIFS({at('N', tongue)},{best})"),
        MASS,
    )
    yield "vD", "its u²", _if('{D}<>""', f"SUMIFS({at('O', tongue)},{best})^2"), PLAIN


def _loads(role: str) -> Iterator[Column]:
    """The loads of one pass, as read or by difference, and which readings their variance comes
    from.
    """
    read = _READ[role]

    def is_read(axle: str) -> str:
        return f'{{r{role}{axle}}}<>""' if axle in read else "FALSE"

    def r(axle: str, what: str = "r") -> str:
        return _n(f"{what}{role}{axle}") if axle in read else "0"

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
            _if(f'{{w{role}v}}<>""', f"{{w{role}v}}+{r('f', 'c')}+{r('r', 'c')}"),
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
            yield f"w{role}{axle}", f"{_NAMES[axle]}, as weighed", f"={w}", MASS
            yield (
                f"{role}{axle}",
                _NAMES[axle],
                _if(f'{{w{role}{axle}}}<>""', f"{{w{role}{axle}}}+{r(axle, 'c')}"),
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
            f"u² of {_NAMES[axle]}",
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
        yield name, f"{_NAMES.get(key[-1], 'variance')}, as driven", f"={chosen}", MASS
    yield from _figure(
        "front_hitched", "Front axle, hitched", _both("Hf"), "{Hf}", _pm_axle("H", "f")
    )
    yield from _figure(
        "rear_hitched", "Rear axle, hitched", _both("Hr"), "{Hr}", _pm_axle("H", "r")
    )
    yield from _figure("vehicle_hitched", "Vehicle, hitched", _both("Hv"), "{Hv}", _pm(Hv="1"))
    yield from _figure(
        "front_solo", "Front axle, vehicle only", _both("Vf"), "{Vf}", _pm_axle("V", "f")
    )
    yield from _figure(
        "rear_solo", "Rear axle, vehicle only", _both("Vr"), "{Vr}", _pm_axle("V", "r")
    )
    yield from _figure("vehicle_solo", "Vehicle only", _both("Vv"), "{Vv}", _pm(Vv="1"))
    yield from _figure("curb_measured", "Vehicle, empty", _both("Cv"), "{Cv}", _pm(Cv="1"))
    if not towing:
        yield (
            "payload_pm",
            "± of the payload used",
            _if(_both("Hv", "Cv"), _pm(Vv="1", Cv="-1")),
            MASS,
        )
    else:
        yield (
            "payload_pm",
            "± of the payload used",
            _if(_both("Hv", "Cv"), _pm(Hv="1", Cv="-1")),
            MASS,
        )


def _figure(
    key: str, heading: str, known: str, value: str, pm: str, form: str = MASS
) -> Iterator[Column]:
    yield key, heading, _if(known, value), form
    yield f"pm_{key}", "±", _if(f'{{{key}}}<>""', pm), form


def _towed(base: str, hitch: str, lever: str) -> Iterator[Column]:
    yield from _figure("trailer_axles", "Trailer axles, hitched", _both("Ht"), "{Ht}", _pm(Ht="1"))
    sums = f"IF({_both('Hv', 'Ht')},{{Hv}}+{{Ht}},{{Hx}})"
    pm = f"IF({_both('Hv', 'Ht')},{_pm(Hv='1', Ht='1')},2*SQRT({{uHx}}+({{acc}}*{{wHx}})^2))"
    yield from _figure(
        "combination_gross", "Combination", f"OR({_both('Hv', 'Ht')},{_both('Hx')})", sums, pm
    )
    yield from _figure(
        "tongue_net",
        "Net load on the vehicle",
        _both("Hv", "Vv"),
        "{Hv}-{Vv}",
        _pm(Hv="1", Vv="-1"),
    )
    yield from _figure(
        "front_transfer",
        "Front axle's change",
        _both("Hf", "Vf"),
        "{Hf}-{Vf}",
        _pm_axle("H", "f", "V"),
    )
    yield from _figure(
        "rear_transfer",
        "Rear axle's change",
        _both("Hr", "Vr"),
        "{Hr}-{Vr}",
        _pm_axle("H", "r", "V"),
    )
    yield from _tongue(base, hitch, lever)
    yield from _gross()
    yield from _figure(
        "front_restored",
        "Front axle, restored by the bars",
        _both("Ef", "Sf"),
        "{Ef}-{Sf}",
        _pm_axle("E", "f", "S"),
    )
    lost = "({Vf}-{Sf})"
    slopes = f"{{uEf}}/{lost}^2+{{uSf}}*({{front_restored}}-{lost})^2/{lost}^4+{{uVf}}*{{front_restored}}^2/{lost}^4"
    weighed = (
        f"({{acc}}*(({{wEf}}-{{wSf}})/{lost}-{{front_restored}}*({{wVf}}-{{wSf}})/{lost}^2))^2"
    )
    known = f"IF({_both('front_restored', 'Vf')},ABS({lost})>1E-9*ABS({{Vf}}),FALSE)"
    yield from _figure(
        "front_restoration",
        "Restoration of the front axle",
        known,
        f"{{front_restored}}/{lost}",
        f"2*SQRT({slopes}+{weighed})",
        SHARE,
    )
    yield from _figure(
        "trailer_transfer",
        "Trailer axles, taken on by the bars",
        _both("Et", "St"),
        "{Et}-{St}",
        _pm(Et="1", St="-1"),
    )


def _tongue(base: str, hitch: str, lever: str) -> Iterator[Column]:
    """The four ways to the tongue; the one with the least ± counts, the first of equals."""
    yield from _figure(
        "by_passes", "Tongue, from the passes", _both("Sv", "Vv"), "{Sv}-{Vv}", _pm(Sv="1", Vv="-1")
    )
    yield from _figure("by_scale", "Tongue, measured directly", _both("D"), "{D}", _pm(D="1"))
    known = f"AND({{hasS}},NOT({{hasE}}),{_both('At', 'St')})"
    yield from _figure(
        "by_trailer", "Tongue, from the trailer alone", known, "{At}-{St}", _pm(At="1", St="-1")
    )
    front, both = f"({base}/{lever})", f"(1+{hitch}/{lever})"
    known = f"AND({{hasE}},NOT({{hasS}}),{_both('tongue_net', 'front_transfer')},COUNT({base},{hitch},{lever})=3)"
    value = f"{{tongue_net}}+({base}*{{front_transfer}}+{hitch}*{{tongue_net}})/{lever}"
    spread = _pm(Ev=both, Ef=front, Vv=f"-{both}", Vf=f"-{front}")
    yield from _figure("by_moments", "Tongue, by moments", known, value, spread)
    ways = ("by_passes", "by_scale", "by_trailer", "by_moments")
    least = f"MIN({','.join(f'{{pm_{way}}}' for way in ways)})*(1+1E-9)"
    way = '""'
    for each, name in reversed(
        tuple(zip(ways, ("passes", "direct", "trailer", "moment"), strict=True))
    ):
        way = f'IF(N({{pm_{each}}})+({{{each}}}="")*1E+99<={least},"{name}",{way})'
    yield (
        "tongue_source",
        "Tongue known by",
        _if(f"COUNT({','.join(f'{{{each}}}' for each in ways)})>0", way),
        PLAIN,
    )
    for key in SLOPES:
        direct = {"Sv": "1", "Vv": "-1"}.get(key, "0")
        alone = {"At": "1", "St": "-1"}.get(key, "0")
        moment = {"Ev": both, "Ef": front, "Vv": f"-{both}", "Vf": f"-{front}"}.get(key, "0")
        slope = (
            f'=IF({{tongue_source}}="passes",{direct},IF({{tongue_source}}="trailer",{alone},'
            f'IF({{tongue_source}}="moment",{moment},IF({{tongue_source}}="direct",{1 if key == "D" else 0},0))))'
        )
        yield f"t{key}", f"slope of the tongue on {key}", slope, PLAIN
    picks = ",".join(
        f'IF({{tongue_source}}="{name}",{{{each}}},0)'
        for each, name in zip(ways, ("passes", "direct", "trailer", "moment"), strict=True)
    )
    yield "tongue_static", "Tongue weight", _if('{tongue_source}<>""', f"SUM({picks})"), MASS
    yield "pm_tongue_static", "±", _if('{tongue_static}<>""', _by_slopes("{{t{key}}}")), MASS


def _by_slopes(slope: str) -> str:
    return _pm(**{key: slope.format(key=key) for key in SLOPES})


def _gross() -> Iterator[Column]:
    """The trailer in total, by three ways, and the tongue's share of it."""
    sums = f"AND({_both('combination_gross', 'Vv')},{_both('Hv', 'Ht')})"
    total = _both("combination_gross", "Vv")
    slack = f"AND({{hasS}},{_both('St', 'tongue_static')})"
    yield (
        "gross_source",
        "Trailer known by",
        f'=IF({_both("At")},"alone",IF({sums},"sums",IF({total},"total",IF({slack},"slack",""))))',
        PLAIN,
    )
    for key in SLOPES:
        summed = {
            "Ev": "IF({hasE},1,0)",
            "Et": "IF({hasE},1,0)",
            "Sv": "IF({hasE},0,1)",
            "St": "IF({hasE},0,1)",
            "Vv": "-1",
        }.get(key, "0")
        slope = (
            f'=IF({{gross_source}}="alone",{1 if key == "At" else 0},IF({{gross_source}}="sums",{summed},'
            f'IF({{gross_source}}="slack",{{t{key}}}+{1 if key == "St" else 0},0)))'
        )
        yield f"g{key}", f"slope of the trailer on {key}", slope, PLAIN
    yield (
        "trailer_gross",
        "Trailer, in total",
        '=IF({gross_source}="alone",{At},IF(OR({gross_source}="sums",{gross_source}="total"),'
        '{combination_gross}-{Vv},IF({gross_source}="slack",{St}+{tongue_static},"")))',
        MASS,
    )
    by_total = "2*SQRT({uHx}+{PV}+({acc}*({wHx}-{wVv}))^2)"
    yield (
        "pm_trailer_gross",
        "±",
        _if(
            '{trailer_gross}<>""',
            f'IF({{gross_source}}="total",{by_total},{_by_slopes("{{g{key}}}")})',
        ),
        MASS,
    )
    known = f"IF({_both('tongue_static', 'trailer_gross')},{{trailer_gross}}>0,FALSE)"
    parts = _by_slopes("({{t{key}}}-{{tongue_share}}*{{g{key}}})")
    whole = "SQRT({pm_tongue_static}^2+({tongue_share}*{pm_trailer_gross})^2)"
    yield from _figure(
        "tongue_share",
        "Tongue share",
        known,
        "{tongue_static}/{trailer_gross}",
        f'IF({{gross_source}}="total",{whole},{parts})/{{trailer_gross}}',
        SHARE,
    )
