"""Prints the OpenAPI document that the page's types are generated from: ``python -m
noxel.api.contract``.
"""

import json

from noxel.api.app import create_app
from noxel.store.database import Database


def contract() -> str:
    """The OpenAPI document of this version."""
    return json.dumps(create_app(Database(None)).openapi(), indent=1, sort_keys=True)


if __name__ == "__main__":
    print(contract())
