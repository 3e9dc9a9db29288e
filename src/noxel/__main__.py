"""``python -m noxel``."""

import sys

from noxel.cli import main

sys.exit(main())
