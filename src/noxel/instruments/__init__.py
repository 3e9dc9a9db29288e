"""Scales and indicators that tell their readings themselves: one interface, and a driver for
line-by-line JSON.
"""
