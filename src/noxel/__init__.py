"""Noxel: is a loaded truck and trailer within its ratings?"""

from typing import TYPE_CHECKING

from noxel.version import VERSION

if TYPE_CHECKING:
    from noxel.scripting import evaluate, load

__version__ = VERSION
__all__ = ["evaluate", "load"]


def __getattr__(name: str) -> object:
    """What a script asks for is loaded when it does: the command line starts without it."""
    if name not in __all__:
        raise AttributeError(f"module 'noxel' has no attribute '{name}'")
    from noxel import scripting

    return getattr(scripting, name)
