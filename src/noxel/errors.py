"""Every error that Noxel raises on purpose: a stable code, its HTTP status, the exit status.

NoxelError                  code                 HTTP  exit
├── InputError              input.invalid         422   2   cannot be used; a Problem for each field
│   ├── QuantityError       quantity.invalid      422   2   a figure that cannot be read
│   ├── RigFileError        rig_file.invalid      422   2   breaks a rule of the format
│   └── MissingInput        input.missing         422   2   needs a figure that nobody entered
├── GeometryError           geometry.impossible   422   2   lengths that no rig can have
├── TooLarge                input.too_large       413   2   more than Noxel reads at once
├── NotFound                not_found             404   2   a rig or a weigh-in that is not there
├── Conflict                conflict              409   2   no longer fits what is stored
│   ├── FieldConflict       conflict.field        409   2   another page set the same figure
│   ├── Gone                conflict.gone         409   2   what it is about was taken away
│   └── OtherEpoch          conflict.epoch        409   2   typed before a backup was restored
├── Damaged                 damaged               409   2   one stored document cannot be read
├── ScaleError              scale.unreachable     422   2   a live scale that does not answer
└── StorageFault            storage.*             503   2   disk or database refuses; 507: full

Errors of other libraries are translated where they enter, with ``from``.
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
    status = 422
    exit_status = 2

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
    status = 413


class NotFound(NoxelError):
    """A rig or a weigh-in that is not there."""

    code = "not_found"
    status = 404


class Conflict(NoxelError):
    """A change that no longer fits what is stored."""

    code = "conflict"
    status = 409

    def __init__(self, message: str, problems: Sequence[Problem] = ()) -> None:
        super().__init__(message)
        self.problems = tuple(problems)


class FieldConflict(Conflict):
    """A figure that another page set meanwhile: a person decides between the two."""

    code = "conflict.field"


class Gone(Conflict):
    """What a change is about was taken away; the problem's path ends in its identity."""

    code = "conflict.gone"


class OtherEpoch(Conflict):
    """A change typed before a backup was restored: a person decides whether it still holds."""

    code = "conflict.epoch"


class Damaged(NoxelError):
    """One stored document cannot be read; it can be exported as it is, or deleted."""

    code = "damaged"
    status = 409


class ScaleError(NoxelError):
    """A live scale that cannot be spoken to."""

    code = "scale.unreachable"


class StorageFault(NoxelError):
    """The disk or the database refuses: this change was not kept; what was saved before is."""

    status = 503

    def __init__(self, code: str, message: str, status: int = 503) -> None:
        super().__init__(message)
        self.code, self.status = f"storage.{code}", status
