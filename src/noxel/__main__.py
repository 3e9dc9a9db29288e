"""``noxel`` and ``python -m noxel``."""

import gc
import os
import sys


def main() -> int:
    """Run the command line. What is loaded at the start stays: nothing is collected while it loads,
    and no package is searched for plug-ins of the models'.
    """
    gc.disable()
    os.environ.setdefault("PYDANTIC_DISABLE_PLUGINS", "__all__")
    from noxel import cli

    gc.freeze()
    gc.enable()
    return cli.main()


if __name__ == "__main__":
    sys.exit(main())
