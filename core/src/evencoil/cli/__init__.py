"""The command line: job files in, tables or JSON out.

Knows every room; computes nothing itself.
"""

from evencoil.cli.main import main

__all__ = ["main"]
