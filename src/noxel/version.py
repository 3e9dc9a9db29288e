"""Which release this is."""

VERSION = "0.3.0"
