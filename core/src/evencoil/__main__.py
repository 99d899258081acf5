"""``python -m evencoil``: the command line."""

import sys

from evencoil.cli import main

sys.exit(main())
