"""What is usual where one drives, as advice: never a ruling. What is law is the owner's to look
up.
"""

from collections.abc import Iterator

from noxel.core.quantities import print_share
from noxel.core.rig import on_its_wheels, on_pin
from noxel.core.weigh.notes import Notes
from noxel.core.wording import Advisory, term_name, vehicle_word

LEAST_SHARE, ENOUGH = 0.04, 25.0
"""Least load on a European coupling: 4 % of the trailer, but no more than 25 kg need be asked for.
[kg]
"""
BEGINNERS = 0.85
"""Share of the kerb mass that European caravanners advise beginners to stay below."""
_CHECK = "Check where you drive."


def by_place(notes: Notes) -> Iterator[Advisory]:
    """Advice for Europe: least noseweight, trailer against kerb mass, plated masses against the
    licence classes of the EU (Directive 2006/126/EC) and Great Britain.
    """
    rig, figures = notes.rig, notes.weighing.figures
    if rig.terms != "europe" or rig.trailer is None or on_pin(rig) or on_its_wheels(rig):
        return
    gross, tongue, curb = (
        figures.get("trailer_gross"),
        figures.get("tongue_static"),
        rig.vehicle.curb_weight,
    )
    word, nose = vehicle_word(rig), term_name(rig, "tongue_weight")
    if gross and tongue and tongue.value < min(LEAST_SHARE * gross.value, ENOUGH):
        yield notes.say(
            "nose_least",
            f"The {nose} of {notes.mass(tongue.value)} is below 4 % of the trailer and below 25 "
            "kg, "
            f"the least usually asked for. {_CHECK}",
            None,
            tongue=tongue.value,
        )
    if gross and curb and gross.value > BEGINNERS * curb.kg:
        share = gross.value / curb.kg
        advice = (
            "more than the kerb mass"
            if share > 1
            else "above the 85 % that beginners are advised to stay below"
        )
        yield notes.say(
            "against_kerb",
            f"The trailer weighs {print_share(share)} of the {word}'s kerb mass, {advice}. "
            "It is advice, not a rating.",
            None,
            note=True,
            trailer=gross.value,
            kerb=curb.kg,
        )
    plated, trailer = rig.vehicle.ratings.gvwr, rig.trailer.ratings.gvwr
    if plated and trailer and trailer.kg > 750 and plated.kg + trailer.kg > 3500:
        both = plated.kg + trailer.kg
        kind = "B96 covers up to 4,250 kg" if both <= 4250 else "BE covers trailers up to 3,500 kg"
        sentence = (
            f"By its plate the {word} itself is above 3,500 kg, more than a car licence (class B) "
            "covers in the EU or in Great Britain. Look up the class that yours and the trailer "
            "need."
            if plated.kg > 3500
            else f"The plates add up to {notes.mass(both)}. In the EU, since January 2013, a car "
            f"licence (class B) covers 3,500 kg with a trailer above 750 kg; {kind}. In Great "
            "Britain class B has covered trailers up to 3,500 kg since December 2021. Elsewhere "
            "look up what your licence says of both masses."
        )
        yield notes.say("licence_masses", sentence, None, note=True, plates=both)
