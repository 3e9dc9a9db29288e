"""The tests. No property is judged by the time it takes.

Properties draw the same examples at every run, so that a failure is the change's. `make hunt` draws
new ones, five times as many; `make test-quick` looks at a tenth.
"""

import os

from hypothesis import settings

hunting, quick = bool(os.environ.get("NOXEL_HUNT")), bool(os.environ.get("NOXEL_QUICK"))


def some(count: int) -> int:
    """How many of so many random examples, or of other cases of one kind, are looked at."""
    return count * 5 if hunting else max(1, count // 10) if quick else count


settings.register_profile("noxel", deadline=None, derandomize=not hunting, max_examples=some(100))
settings.load_profile("noxel")
