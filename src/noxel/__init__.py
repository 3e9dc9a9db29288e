"""Noxel: is a loaded truck and trailer within its ratings?"""

__version__ = "0.3.0"
