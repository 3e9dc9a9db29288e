"""What the rig looks like from its side, to scale. The page, the print view and the PDF draw these
strokes; none of them has a shape of its own.
"""

from noxel.core.drawing.geometry import Geometry, geometry_of
from noxel.core.drawing.outlines import Half, Outline, Stroke, Wheel

__all__ = ["Geometry", "Half", "Outline", "Stroke", "Wheel", "geometry_of"]
