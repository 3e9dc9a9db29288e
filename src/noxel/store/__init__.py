"""Rigs kept: one SQLite file, every change once."""
