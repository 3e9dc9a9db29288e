"""The workbook's columns of a rig that tows: tongue, trailer, bars."""

from collections.abc import Iterator

from noxel.formats.workbook_terms import (
    MASS,
    PLAIN,
    SHARE,
    SLOPES,
    Column,
    figure,
    have,
    if_,
    pm_axle,
    pm_of,
)


def towed(base: str, hitch: str, lever: str) -> Iterator[Column]:
    yield from figure("trailer_axles", "Trailer axles, hitched", have("Ht"), "{Ht}", pm_of(Ht="1"))
    sums = f"IF({have('Hv', 'Ht')},{{Hv}}+{{Ht}},{{Hx}})"
    pm = f"IF({have('Hv', 'Ht')},{pm_of(Hv='1', Ht='1')},2*SQRT({{uHx}}+({{acc}}*{{wHx}})^2))"
    yield from figure(
        "combination_gross", "Combination", f"OR({have('Hv', 'Ht')},{have('Hx')})", sums, pm
    )
    yield from figure(
        "tongue_net",
        "Net load on the vehicle",
        have("Hv", "Vv"),
        "{Hv}-{Vv}",
        pm_of(Hv="1", Vv="-1"),
    )
    yield from figure(
        "front_transfer",
        "Front axle's change",
        have("Hf", "Vf"),
        "{Hf}-{Vf}",
        pm_axle("H", "f", "V"),
    )
    yield from figure(
        "rear_transfer",
        "Rear axle's change",
        have("Hr", "Vr"),
        "{Hr}-{Vr}",
        pm_axle("H", "r", "V"),
    )
    yield from _tongue(base, hitch, lever)
    yield from _gross()
    yield from figure(
        "front_restored",
        "Front axle, restored by the bars",
        have("Ef", "Sf"),
        "{Ef}-{Sf}",
        pm_axle("E", "f", "S"),
    )
    lost = "({Vf}-{Sf})"
    slopes = f"{{uEf}}/{lost}^2+{{uSf}}*({{front_restored}}-{lost})^2/{lost}^4+{{uVf}}*{{front_restored}}^2/{lost}^4"
    weighed = (
        f"({{acc}}*(({{wEf}}-{{wSf}})/{lost}-{{front_restored}}*({{wVf}}-{{wSf}})/{lost}^2))^2"
    )
    known = f"IF({have('front_restored', 'Vf')},ABS({lost})>1E-9*ABS({{Vf}}),FALSE)"
    yield from figure(
        "front_restoration",
        "Restoration of the front axle",
        known,
        f"{{front_restored}}/{lost}",
        f"2*SQRT({slopes}+{weighed})",
        SHARE,
    )
    yield from figure(
        "trailer_transfer",
        "Trailer axles, taken on by the bars",
        have("Et", "St"),
        "{Et}-{St}",
        pm_of(Et="1", St="-1"),
    )


def _tongue(base: str, hitch: str, lever: str) -> Iterator[Column]:
    """The four ways to the tongue; the one with the least ± counts, the first of equals."""
    yield from figure(
        "by_passes",
        "Tongue, from the passes",
        have("Sv", "Vv"),
        "{Sv}-{Vv}",
        pm_of(Sv="1", Vv="-1"),
    )
    yield from figure("by_scale", "Tongue, measured directly", have("D"), "{D}", pm_of(D="1"))
    known = f"AND({{hasS}},NOT({{hasE}}),{have('At', 'St')})"
    yield from figure(
        "by_trailer", "Tongue, from the trailer alone", known, "{At}-{St}", pm_of(At="1", St="-1")
    )
    front, both = f"({base}/{lever})", f"(1+{hitch}/{lever})"
    known = f"AND({{hasE}},NOT({{hasS}}),{have('tongue_net', 'front_transfer')},COUNT({base},{hitch},{lever})=3)"
    value = f"{{tongue_net}}+({base}*{{front_transfer}}+{hitch}*{{tongue_net}})/{lever}"
    spread = pm_of(Ev=both, Ef=front, Vv=f"-{both}", Vf=f"-{front}")
    yield from figure("by_moments", "Tongue, by moments", known, value, spread)
    ways = ("by_passes", "by_scale", "by_trailer", "by_moments")
    least = f"MIN({','.join(f'{{pm_{way}}}' for way in ways)})*(1+1E-9)"
    way = '""'
    for cell, name in reversed(
        tuple(zip(ways, ("passes", "direct", "trailer", "moment"), strict=True))
    ):
        way = f'IF(N({{pm_{cell}}})+({{{cell}}}="")*1E+99<={least},"{name}",{way})'
    yield (
        "tongue_source",
        "Tongue known by",
        if_(f"COUNT({','.join(f'{{{way}}}' for way in ways)})>0", way),
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
        f'IF({{tongue_source}}="{name}",{{{way}}},0)'
        for way, name in zip(ways, ("passes", "direct", "trailer", "moment"), strict=True)
    )
    yield "tongue_static", "Tongue weight", if_('{tongue_source}<>""', f"SUM({picks})"), MASS
    yield "pm_tongue_static", "±", if_('{tongue_static}<>""', _by_slopes("{{t{key}}}")), MASS


def _by_slopes(slope: str) -> str:
    return pm_of(**{key: slope.format(key=key) for key in SLOPES})


def _gross() -> Iterator[Column]:
    """The trailer in total, by three ways, and the tongue's share of it."""
    sums = f"AND({have('combination_gross', 'Vv')},{have('Hv', 'Ht')})"
    total = have("combination_gross", "Vv")
    slack = f"AND({{hasS}},{have('St', 'tongue_static')})"
    yield (
        "gross_source",
        "Trailer known by",
        f'=IF({have("At")},"alone",IF({sums},"sums",IF({total},"total",IF({slack},"slack",""))))',
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
        if_(
            '{trailer_gross}<>""',
            f'IF({{gross_source}}="total",{by_total},{_by_slopes("{{g{key}}}")})',
        ),
        MASS,
    )
    known = f"IF({have('tongue_static', 'trailer_gross')},{{trailer_gross}}>0,FALSE)"
    parts = _by_slopes("({{t{key}}}-{{tongue_share}}*{{g{key}}})")
    whole = "SQRT({pm_tongue_static}^2+({tongue_share}*{pm_trailer_gross})^2)"
    yield from figure(
        "tongue_share",
        "Tongue share",
        known,
        "{tongue_static}/{trailer_gross}",
        f'IF({{gross_source}}="total",{whole},{parts})/{{trailer_gross}}',
        SHARE,
    )
