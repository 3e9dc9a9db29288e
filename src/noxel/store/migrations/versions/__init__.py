"""Migrations, by Alembic."""
