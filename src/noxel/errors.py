"""Every error that Noxel raises on purpose.

NoxelError
├── InputError              what was given cannot be used; carries one Problem per field
│   ├── QuantityError       one number, mass or length that cannot be read
│   ├── RigFileError        a rig file, or a change to one, that breaks a rule of the format
│   └── MissingInput        a question was asked that needs a figure nobody has entered
├── GeometryError           lengths that no rig can have
├── TooLarge                more than Noxel reads at once
├── NotFound                a rig or a weigh-in that is not there
└── Conflict                a change that no longer fits what is stored

Each has a stable ``code``. Errors of other libraries are translated where they enter, with ``from``.
"""

from collections.abc import Sequence
from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Problem:
    """What is wrong at one place: a path such as ``weigh_ins[0].passes[1].readings.front``."""

    path: str
    message: str
    code: str = "invalid"

    def __str__(self) -> str:
        return f"{self.path}: {self.message}" if self.path else self.message


class NoxelError(Exception):
    """Base of all errors raised on purpose."""

    code = "noxel.error"

    def __init__(self, message: str) -> None:
        super().__init__(message)
        self.message = message


class InputError(NoxelError):
    """What was given cannot be used."""

    code = "input.invalid"

    def __init__(self, message: str, problems: Sequence[Problem] = ()) -> None:
        super().__init__(message)
        self.problems = tuple(problems)


class QuantityError(InputError):
    """One number, mass or length that cannot be read."""

    code = "quantity.invalid"


class RigFileError(InputError):
    """A rig file, or a change to one, that breaks a rule of the format."""

    code = "rig_file.invalid"


class MissingInput(InputError):
    """A question was asked that needs a figure nobody has entered."""

    code = "input.missing"

    def __init__(self, path: str, why: str) -> None:
        super().__init__(f"{path}: {why}", [Problem(path, why, "missing")])


class GeometryError(NoxelError):
    """Lengths that no rig can have."""

    code = "geometry.impossible"


class TooLarge(NoxelError):
    """More than Noxel reads at once."""

    code = "input.too_large"


class NotFound(NoxelError):
    """A rig or a weigh-in that is not there."""

    code = "not_found"


class Conflict(NoxelError):
    """A change that no longer fits what is stored."""

    code = "conflict"
