"""The tests. No property is judged by the time it takes."""

from hypothesis import settings

settings.register_profile("noxel", deadline=None)
settings.load_profile("noxel")
