"""How much of this machine a process of its own may take."""

import os


def limit(most: int) -> None:
    """Hold this process to so many bytes of memory, and let the server go first, where the system
    can.
    """
    if hasattr(os, "nice"):
        os.nice(3)
    try:
        import resource
    except ImportError:  # a system without limits for a process
        return
    _, hard = resource.getrlimit(resource.RLIMIT_DATA)
    resource.setrlimit(resource.RLIMIT_DATA, (most, hard))
