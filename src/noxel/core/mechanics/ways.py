"""Ways to know a load that was not weighed: from labels, lists and what was weighed beside it.

For each load the ways stand in a fixed order and the first that is open is used (rig-file format,
“What half the facts let us expect”). What is expected never clears anything; it can show an
overload before a wheel has turned.
"""

from collections.abc import Iterable

from noxel.core.mechanics.knowledge import (
    MOVED_OF_RESTORED,
    PLACES_OFF,
    RATIO_OFF,
    RESTORED,
    Expected,
    Knowledge,
    Way,
    base_weight,
    dry_weights,
    empty_weights,
    expectation,
    source_of,
    typed,
    usual_lever,
)
from noxel.core.mechanics.listed import (
    Listed,
    anything_listed,
    listed,
    listed_with_moment,
    uncounted,
)
from noxel.core.mechanics.sources import between, entered
from noxel.core.mechanics.weighing import Weighing
from noxel.core.quantities import Amount, Figure, Term, combine, nominal, ratio, total, uncertain
from noxel.core.rig import (
    SETS,
    RigFile,
    on_its_wheels,
    share_range,
    source_words,
    usual_share,
)


class _Look:
    """Finds the expected loads, one after the other; each of s, m, r and q is one variable
    throughout.
    """

    def __init__(self, rig: RigFile, weighing: Weighing) -> None:
        self.rig, self.weighed = rig, weighing.figures
        measured = self.weighed.get("curb_measured")
        names: dict[str, Way] = {"curb_weight": "curb", "curb_by_placard": "placard"}
        self.empties: list[tuple[Way, Figure]] = [("empty_weighed", measured)] if measured else []
        self.empties += [(names[empty.key], empty) for empty in empty_weights(rig)]
        self.found = Knowledge(rig, weighing, self.empties, dry_weights(rig))
        (low, high), (usual_low, usual_high) = share_range(rig), usual_share(rig)
        on_wheels = on_its_wheels(rig)
        self.share: Amount = (
            0.0 if on_wheels else between(min(low, usual_low), max(high, usual_high))
        )
        self.restored: Amount = between(*RESTORED) if rig.hitch.weight_distribution else 0.0
        self.moved = self.restored * self._moved_of_restored()
        self.engaged = weighing.engaged is not None

    def _moved_of_restored(self) -> Amount:
        """What the bars move to the trailer's axles, for what they give back to the front axle."""
        b, trailer = self.rig.vehicle.geometry.hitch_offset, self.rig.trailer
        length = trailer.geometry.coupler_to_axles if trailer else None
        if b is not None and length is not None and b.m > 0:
            return b.m / (length.m + b.m)
        return between(*MOVED_OF_RESTORED)

    def put(self, key: str, *open_ways: Expected) -> None:
        """Keep the first of the ways that are open, and the others beside it."""
        if open_ways:
            self.found.expected[key] = open_ways[0]
            if open_ways[1:]:
                self.found.beside[key] = list(open_ways[1:])

    def keep(
        self,
        key: str,
        way: Way,
        amount: Amount,
        formula: str,
        terms: Iterable[Term],
        *,
        on_trailer: bool = False,
    ) -> None:
        """Keep the only way there is."""
        self.put(key, expectation(key, way, amount, formula, terms, on_trailer=on_trailer))

    in_trailer: Listed | None = None
    """What is listed in the trailer, where its list is looked at."""

    def look(self) -> Knowledge:
        looks = [("vehicle_solo", self.vehicle_solo)]
        if self.rig.towing:
            looks += [
                ("trailer_gross", self.trailer_gross),
                ("tongue_static", self.tongue),
                ("tongue_share", self.tongue_share),
                ("vehicle_hitched", self.vehicle_hitched),
                ("combination_gross", self.combination),
                ("trailer_axles", self.trailer_axles),
            ]
        for key, find in looks:
            if key not in self.weighed:
                find()
        self.found.net_on_hitch = self.net_on_hitch()
        if self.rig.towing:
            self.axles()
        elif "vehicle_hitched" not in self.weighed and "vehicle_solo" in self.found.expected:
            self.put(
                "vehicle_hitched",
                *(
                    Expected(way.figure.renamed("vehicle_hitched"), way.way)
                    for way in (
                        self.found.expected["vehicle_solo"],
                        *self.found.beside.get("vehicle_solo", ()),
                    )
                ),
            )
        return self.found

    def vehicle_solo(self) -> None:
        base = self.rig.plan.vehicle_base
        open_ways: list[Expected] = []
        terms: tuple[Term, ...]
        if base is not None and base.front is not None and base.rear is not None:
            front, rear = (
                base_weight(self.rig, f"plan.vehicle_base.{name}", mass, pm)
                for name, mass, pm in (
                    ("front", base.front, base.front_pm),
                    ("rear", base.rear, base.rear_pm),
                )
            )
            aboard = listed(self.rig, "vehicle", with_hitch=not base.hitch_fitted)
            terms = (
                Term("", "base, front axle", front),
                Term("+", "base, rear axle", rear),
                Term("+", "listed in the vehicle", aboard),
            )
            open_ways.append(
                expectation(
                    "vehicle_solo",
                    "plan",
                    combine([(1.0, front), (1.0, rear), (1.0, aboard)]),
                    "the plan's base + what is listed",
                    terms,
                )
            )
        aboard = listed(self.rig, "vehicle")
        for way, empty in self.empties:
            terms = (
                Term("", "empty vehicle", empty.amount, source=source_of(empty)),
                Term("+", "listed in the vehicle, hitch included", aboard),
            )
            amount = combine([(1.0, empty.amount), (1.0, aboard)])
            open_ways.append(
                expectation("vehicle_solo", way, amount, "empty vehicle + what is listed", terms)
            )
        self.put("vehicle_solo", *open_ways)

    def trailer_gross(self) -> None:
        axles, tongue = self.weighed.get("trailer_axles"), self.weighed.get("tongue_static")
        moved = self.moved if self.engaged else 0.0
        open_ways = []
        if axles is not None and tongue is not None:
            net = tongue.amount * (1 - moved)
            name = "tongue weight, less what the bars move" if self.engaged else "tongue weight"
            open_ways.append(
                expectation(
                    "trailer_gross",
                    "axles_and_tongue",
                    axles.amount + net,
                    "trailer axles + tongue weight",
                    (axles.term("", "trailer axles"), Term("+", name, net)),
                )
            )
        if axles is not None:
            rest = 1 - self.share * (1 - moved)
            open_ways.append(
                expectation(
                    "trailer_gross",
                    "axles_and_share",
                    axles.amount / rest,
                    "trailer axles ÷ (1 − usual tongue share)",
                    (
                        axles.term("", "trailer axles"),
                        Term("÷", "share on the axles", rest, "share"),
                    ),
                )
            )
        by_list, by_rating = self._by_list(), self._by_rating()
        rated = self.rig.trailer is not None and self.rig.trailer.ratings.gvwr is not None
        last = (
            [by_rating, by_list]
            if rated and self.rig.plan.trailer_by != "listed"
            else [by_list, by_rating]
        )
        self.put("trailer_gross", *open_ways, *(way for way in last if way is not None))

    def _by_list(self) -> Expected | None:
        """The trailer as listed: its base, what the dry weight leaves out, what is put in it."""
        rig, trailer = self.rig, self.rig.trailer
        if trailer is None:
            return None
        base = rig.plan.trailer_base.gross if rig.plan.trailer_base else None
        extras = [] if base else uncounted(rig)
        if base is None and not extras and not anything_listed(rig, "trailer"):
            return None
        start = (
            typed(rig, "trailer_base", "plan.trailer_base.gross", base.kg)
            if base is not None
            else next(iter(self.found.dries), None)
        )
        if start is None:
            return None
        name = "dry weight" if base is None else "trailer without the listed loads"
        terms = [Term("", name, start.amount, source=source_of(start))]
        terms += extras
        self.in_trailer = listed_with_moment(rig, "trailer")
        terms.append(Term("+", "listed in the trailer", self.in_trailer.mass))
        way = total("trailer_gross", "dry weight + what is listed", terms)
        return expectation(
            "trailer_gross", "listed", way.amount, way.formula, terms, on_trailer=True
        )

    def _by_rating(self) -> Expected | None:
        gvwr = self.rig.trailer.ratings.gvwr if self.rig.trailer else None
        if gvwr is None:
            return None
        term = Term(
            "",
            SETS[self.rig.terms]["trailer.gvwr"],
            gvwr.kg,
            source=source_words(self.rig, "trailer.ratings.gvwr"),
        )
        return expectation(
            "trailer_gross",
            "rating",
            gvwr.kg,
            "the trailer loaded to its rating",
            (term,),
            on_trailer=True,
        )

    def tongue(self) -> None:
        gross = self.found.known("trailer_gross")
        if gross is None:
            return
        trailer, plan = self.rig.trailer, self.rig.plan
        open_ways: list[Expected | None] = []
        if self.found.way("trailer_gross") != "axles_and_share" and not on_its_wheels(self.rig):
            if plan.tongue_share is not None:
                planned = uncertain(plan.tongue_share, RATIO_OFF / 2)
                open_ways.append(self._by_share("planned_share", "planned tongue share", planned))
            open_ways.append(self._by_places(gross))
            if trailer and trailer.dry_weight and trailer.dry_tongue is not None:
                dry = uncertain(trailer.dry_tongue.kg / trailer.dry_weight.kg, RATIO_OFF / 2)
                open_ways.append(self._by_share("dry_share", "dry tongue share", dry))
        open_ways.append(self._by_share("usual_share", "usual tongue share", self.share))
        self.put("tongue_static", *(way for way in open_ways if way is not None))

    def _by_share(self, way: Way, words: str, share: Amount) -> Expected | None:
        gross = self.found.known("trailer_gross")
        if gross is None:
            return None
        terms = (gross.term("", "trailer in total"), Term("×", words, share, "share"))
        return expectation(
            "tongue_static",
            way,
            share * gross.amount,
            f"{words} × trailer in total",
            terms,
            on_trailer=self.found.rests_on_trailer("trailer_gross"),
        )

    def _by_places(self, gross: Figure) -> Expected | None:
        """The tongue of the trailer's base, and what each thing listed adds to it where it lies."""
        rig, trailer = self.rig, self.rig.trailer
        if (
            self.found.way("trailer_gross") != "listed"
            or trailer is None
            or self.in_trailer is None
        ):
            return None
        base, length = rig.plan.trailer_base, trailer.geometry.coupler_to_axles
        planned = base is not None and base.gross is not None
        own = base.tongue if planned and base else trailer.dry_tongue
        left_out = not planned and any(not extra.counted for extra in trailer.dry_extras)
        moment = self.in_trailer.moment
        if length is None or own is None or left_out or moment is None:
            return None
        path = "plan.trailer_base.tongue" if planned else "trailer.dry_tongue"
        start = entered(rig, path, own.kg, base=True)
        added = self.in_trailer.mass - moment / length.m
        beyond = gross.amount * uncertain(0.0, PLACES_OFF / 2)
        terms = (
            Term("", "tongue of the trailer as built", start, source=source_words(rig, path)),
            Term("+", "what is listed, where it lies", added),
            Term("+", "what places leave open", beyond),
        )
        return expectation(
            "tongue_static",
            "places",
            start + added + beyond,
            "tongue as built + what is listed, by its places",
            terms,
            on_trailer=True,
        )

    def tongue_share(self) -> None:
        tongue, gross = self.found.known("tongue_static"), self.found.known("trailer_gross")
        if tongue is None or gross is None or nominal(gross.amount) <= 0:
            return
        if (
            self.found.way("tongue_static") in ("usual_share", "planned_share")
            or self.found.way("trailer_gross") == "rating"
        ):
            return
        self.keep(
            "tongue_share",
            "tongue_and_gross",
            ratio(tongue.amount, gross.amount),
            "tongue weight ÷ trailer in total",
            (tongue.term("", "tongue weight"), gross.term("÷", "trailer in total")),
            on_trailer=self.found.rests_on_trailer("tongue_static", "trailer_gross"),
        )

    def net_on_hitch(self) -> Amount | None:
        """What of the tongue stays on the vehicle; bars move the rest to the trailer. [kg]"""
        tongue = self.found.known("tongue_static")
        return tongue.amount * (1 - self.moved) if tongue is not None else None

    def vehicle_hitched(self) -> None:
        solo, net = self.found.known("vehicle_solo"), self.net_on_hitch()
        if solo is not None and net is not None:
            self.keep(
                "vehicle_hitched",
                "vehicle_and_tongue",
                solo.amount + net,
                "vehicle alone + load on the hitch",
                (solo.term("", "vehicle alone"), Term("+", "load on the hitch", net)),
                on_trailer=self.found.rests_on_trailer("tongue_static"),
            )

    def combination(self) -> None:
        solo, gross = self.found.known("vehicle_solo"), self.found.known("trailer_gross")
        if solo is not None and gross is not None:
            way = total(
                "combination_gross",
                "vehicle alone + trailer in total",
                [solo.term("", "vehicle alone"), gross.term("+", "trailer in total")],
            )
            self.keep(
                "combination_gross",
                "vehicle_and_trailer",
                way.amount,
                way.formula,
                way.terms,
                on_trailer=self.found.rests_on_trailer("trailer_gross"),
            )

    def trailer_axles(self) -> None:
        gross, net = self.found.known("trailer_gross"), self.net_on_hitch()
        if gross is not None and net is not None:
            self.keep(
                "trailer_axles",
                "gross_and_tongue",
                gross.amount - net,
                "trailer in total − load on the hitch",
                (gross.term("", "trailer in total"), Term("−", "load on the hitch", net)),
                on_trailer=self.found.rests_on_trailer("trailer_gross", "tongue_static"),
            )

    def axles(self) -> None:
        """The vehicle's axles, from the vehicle weighed alone and the load on the hitch."""
        front, rear, tongue = (
            self.weighed.get("front_solo"),
            self.weighed.get("rear_solo"),
            self.found.known("tongue_static"),
        )
        if front is None or rear is None or tongue is None:
            return
        geometry = self.rig.vehicle.geometry
        if geometry.wheelbase and geometry.hitch_offset is not None:
            lever: Amount = geometry.hitch_offset.m / geometry.wheelbase.m
        else:
            lever = usual_lever(self.rig)
        lifted = lever * tongue.amount * (1 - self.restored)
        net = tongue.amount * (1 - self.moved)
        rests = self.found.rests_on_trailer("tongue_static")
        if "front_hitched" not in self.weighed:
            self.keep(
                "front_hitched",
                "vehicle_and_tongue",
                front.amount - lifted,
                "front axle alone − what the tongue lifts",
                (
                    front.term("", "front axle, vehicle alone"),
                    Term("−", "lifted by the tongue", lifted),
                ),
                on_trailer=rests,
            )
        if "rear_hitched" not in self.weighed:
            self.keep(
                "rear_hitched",
                "vehicle_and_tongue",
                rear.amount + net + lifted,
                "rear axle alone + load on the hitch + what it lifts",
                (
                    rear.term("", "rear axle, vehicle alone"),
                    Term("+", "load on the hitch", net),
                    Term("+", "lifted off the front axle", lifted),
                ),
                on_trailer=rests,
            )


def expect(rig: RigFile, weighing: Weighing) -> Knowledge:
    """What can be expected of the loads that were not weighed.

    Parameters
    ----------
    rig : RigFile
        Its labels, plan, loads and policy.
    weighing : Weighing
        What was weighed; an empty one where nothing was.

    Returns
    -------
    Knowledge
        The weighed figures, and an expected one by the first way open for each of the others. [kg],
        shares plain
    """
    return _Look(rig, weighing).look()
