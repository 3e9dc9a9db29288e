"""Which release this is."""

VERSION = "0.3.0"
RELEASES = ("0.1.0", "0.2.0")
"""The earlier ones, whose answers a logbook may hold."""
