"""The tests. No property is judged by the time it takes.

Properties draw the same examples at every run, so that a failure is the change's. `make hunt` draws
new ones.
"""

import os

from hypothesis import settings

hunting = bool(os.environ.get("NOXEL_HUNT"))
settings.register_profile(
    "noxel", deadline=None, derandomize=not hunting, max_examples=500 if hunting else 100
)
settings.load_profile("noxel")
