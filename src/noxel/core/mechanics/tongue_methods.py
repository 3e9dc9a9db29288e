"""The tongue weight from one direct measurement: tongue scale, beam and scale, lever."""

import math

from noxel.core.mechanics import statics
from noxel.core.quantities import Amount, Figure, Length, Mass, Term, uncertain
from noxel.core.rig import BeamMeasurement, LeverMeasurement, ScaleMeasurement


def half_width(nominal_value: Mass | Length, half: Mass | Length | None) -> Amount:
    """A figure known to plus or minus a half-width, uniform between the ends."""
    return (
        uncertain(nominal_value.si, half.si / math.sqrt(3))
        if half is not None and half.si
        else nominal_value.si
    )


def _scale_error(reading: Mass, scale: ScaleMeasurement | BeamMeasurement) -> float:
    """Standard uncertainty of a tongue scale's reading. [kg]"""
    return math.hypot(scale.resolution.kg / math.sqrt(12), scale.accuracy * reading.kg)


def measure_tongue(
    measured: ScaleMeasurement | BeamMeasurement | LeverMeasurement, key: str
) -> Figure:
    """The tongue weight from one direct measurement, with its error budget.

    Parameters
    ----------
    measured : ScaleMeasurement or BeamMeasurement or LeverMeasurement
        As typed.
    key : str
        What to call the figure.

    Returns
    -------
    Figure
        Tongue load. [kg]

    Notes
    -----
    A scale's reading has u = √((graduation/√12)² + (accuracy × reading)²), its tare, if any,
    graduation/√12; a length or weight known to ±h has u = h/√3. A lever's result takes its stated
    accuracy, if any, as a share.
    """
    if isinstance(measured, ScaleMeasurement):
        amount = uncertain(measured.value.kg, _scale_error(measured.value, measured))
        words = "tongue scale" if measured.method == "scale" else "scale in the ball mount"
        return Figure(key, amount, f"read off the {words}", (Term("", words, amount),))
    if isinstance(measured, BeamMeasurement):
        reading = uncertain(measured.reading.kg, _scale_error(measured.reading, measured))
        tare: Amount = (
            uncertain(measured.tare.kg, measured.resolution.kg / math.sqrt(12))
            if measured.tare and measured.tare.kg
            else 0.0
        )
        span = half_width(measured.span, measured.span_pm)
        coupler = half_width(measured.coupler_from_support, measured.coupler_from_support_pm)
        terms = [
            Term("", "scale under the beam", reading),
            Term("−", "the beam alone", tare),
            Term("×", "support to scale", span, "length"),
            Term("÷", "support to coupler", coupler, "length"),
        ]
        return Figure(
            key,
            statics.beam_tongue(reading, tare, span, coupler),
            "(reading − beam alone) × support to scale ÷ support to coupler",
            tuple(terms),
        )
    weight = half_width(measured.counterweight, measured.counterweight_pm)
    arm = half_width(measured.counterweight_arm, measured.counterweight_arm_pm)
    tongue_arm = half_width(measured.tongue_arm, measured.tongue_arm_pm)
    beam = measured.beam_mass.kg if measured.beam_mass else 0.0
    beam_arm = measured.beam_cg_arm.m if measured.beam_cg_arm else 0.0
    lever = [Term("", "known weight", weight), Term("×", "its arm", arm, "length")]
    if beam:
        lever += [
            Term("+", "the beam's own mass", beam),
            Term("×", "its middle from the fulcrum", beam_arm, "length"),
        ]
    lever.append(Term("÷", "tongue to fulcrum", tongue_arm, "length"))
    tongue = statics.lever_tongue(weight, arm, tongue_arm, beam, beam_arm)
    if measured.accuracy:
        tongue = tongue * (1 + uncertain(0.0, measured.accuracy))
    return Figure(
        key,
        tongue,
        "(known weight × its arm + beam × its arm) ÷ tongue arm"
        if beam
        else "known weight × its arm ÷ tongue arm",
        tuple(lever),
    )
