"""Stand-ins for scales, weighing rigs whose true loads nobody else knows: for practice and for
tests.
"""
