"""The code tables: one CSV each with a source header, and the list of doubts.

The loader refuses a table without its five header lines or without
``doubts.csv`` beside it. Looking up a cell that is listed there puts
``check_the_book`` on the step, and so on every step downstream.
"""

from evencoil.codebook.tables.loader import Found, Table, digests, table

__all__ = ["Found", "Table", "digests", "table"]
