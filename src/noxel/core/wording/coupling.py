"""Setting a trailer down and coupling it up again, a line at a time, in the order of the work.

Parked, braked and chocked before a jack or a lever comes near the hitch; chocks away last. Each
kind of coupling has its own lines, and its own test that it holds.
"""

from collections.abc import Iterator

from noxel.core.rig import RigFile, on_its_wheels, on_pin

CHOCKS = "Chocks on both sides of the trailer's wheels"
CHOCKS_OFF = "Chocks off, last"


def parked(rig: RigFile) -> list[str]:
    """What comes before anything at the hitch."""
    hand = ", the trailer's handbrake too" if _handbrake(rig) else ""
    chocks = "Chocks on both sides of the car's wheels" if on_its_wheels(rig) else CHOCKS
    return [f"Parked level, out of the way; parking brake on{hand}, engine off", chocks]


def bars_off(rig: RigFile) -> list[str]:
    """Spring bars off, where there are any: the jack carries, nobody levers against the load."""
    return (
        ["Bars off: take the load off them with the jack first"]
        if rig.hitch.weight_distribution
        else []
    )


def _handbrake(rig: RigFile) -> bool:
    """Whether trailers of this size have a handbrake where the rig is at home."""
    return rig.terms == "europe" and rig.kind == "conventional" and not on_its_wheels(rig)


def set_down(rig: RigFile) -> list[str]:
    """Uncoupling, after :func:`parked`."""
    if on_its_wheels(rig):
        return [
            "The towed car's parking brake on, its gearbox as its manual says",
            "Lights, breakaway cable and supplemental brake off",
            "Safety cables off, tow bar unpinned and folded",
        ]
    if rig.kind == "gooseneck":
        return [
            "Landing legs down, taking the load",
            "Plug, breakaway cable and safety chains off",
            "Coupler unlatched, its pin out",
            "Legs further down until the coupler is clear of the ball; drive out slowly",
        ]
    if on_pin(rig):
        return [
            "Landing legs down until the pin plate is just free",
            "Plug and breakaway cable off",
            "Handle out, jaws open",
            "Tailgate down; drive out slowly",
        ]
    if rig.terms == "europe":
        return [
            "Corner steadies up, jockey wheel down and clamped, taking the load",
            *bars_off(rig),
            "Plug and breakaway cable off",
            "Coupling head open; wind the jockey wheel until it is clear of the ball; drive "
            "forward slowly",
        ]
    return [
        "Jack down on firm ground, taking the load",
        *bars_off(rig),
        "Plug, breakaway cable and chains off",
        "Coupler unlatched, its pin out; raise it clear of the ball; drive forward slowly",
        "Hitch head, and bars if they come off with it, stay on the vehicle",
    ]


def coupled_up(rig: RigFile) -> Iterator[str]:
    """Coupling up again, the chocks still in place until the last line."""
    trailer = rig.trailer
    brakes = trailer is not None and trailer.brakes != "none"  # unknown: as if it had them
    if on_its_wheels(rig):
        yield "Tow bar pinned and locked at both ends; safety cables on"
        yield "Breakaway cable and supplemental brake connected and tried"
        yield "Plug in; lights tried"
        yield "Steering, gearbox and parking brake as the towed car's manual says"
    elif rig.kind == "gooseneck":
        yield "Coupler down over the ball, latched and pinned"
        yield "Try it with the legs: lift until the vehicle's rear rises; it must hold"
        yield "Safety chains on"
        yield from _wires(brakes)
        yield "Landing legs up"
    elif on_pin(rig):
        yield "Back on slowly until the jaws close around the pin; handle locked; look at them"
        yield from _wires(brakes)
        yield "Try it: a gentle tug against the trailer's brakes"
        yield "Tailgate and landing legs up"
    else:
        yield from _on_ball(rig, brakes)
    yield CHOCKS_OFF


def _wires(brakes: bool) -> Iterator[str]:
    if brakes:
        yield "Breakaway cable on the vehicle itself"
    yield "Plug in; lights and brakes tried" if brakes else "Plug in; lights tried"


def _on_ball(rig: RigFile, brakes: bool) -> Iterator[str]:
    europe = rig.terms == "europe"
    jack = "jockey wheel" if europe else "jack"
    yield (
        "Coupling head down on the ball until it closes; its indicator shows that it is locked"
        if europe
        else "Coupler down on the ball, latched and pinned"
    )
    yield f"Try it with the {jack}: lift until the vehicle's rear rises; the coupling must hold"
    if not europe:
        yield "Safety chains crossed under the coupler"
    yield from _wires(brakes)
    if rig.hitch.weight_distribution:
        yield tensioned(rig)
    yield (
        "Jockey wheel up and clamped, corner steadies up, handbrake off" if europe else "Jack up"
    )


def tensioned(rig: RigFile) -> str:
    """Spring bars on again."""
    wheel = "jockey wheel" if rig.terms == "europe" else "jack"
    return f"Bars tensioned as they were on the first pass; the {wheel} takes the load meanwhile"


def coupling_test(rig: RigFile) -> str:
    """That the coupling holds, in one line for the list before a drive."""
    if rig.kind == "gooseneck":
        return "coupler latched and pinned on the ball; lifted with the legs, it held"
    if on_pin(rig):
        return "jaws closed around the pin, handle locked; a tug against the trailer's brakes"
    if rig.terms == "europe":
        return "coupling head locked on the ball; lifted with the jockey wheel, it held"
    return "coupler latched and pinned; lifted with the jack, it held; hitch pin clipped or locked"
