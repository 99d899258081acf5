"""Which rows were written since: one number for any set of rows, whoever wrote them and how.

PostgreSQL notes with every row the transaction that wrote it (system column ``xmin``), and numbers
transactions upward. Count and sum of these numbers change with every row that is added, changed or
taken away, also by hand in the database, and reading them touches no stored body.
"""

from __future__ import annotations

from typing import Any, cast

from django.db.backends.base.base import BaseDatabaseWrapper
from django.db.models import BigIntegerField, Count, Func, Model, QuerySet, Sum
from django.db.models.expressions import Col
from django.db.models.sql.compiler import SQLCompiler

__all__ = ["Written", "written_of"]


class Written(Func):
    """The transaction that wrote the row of a column, as a whole number."""

    arity = 1
    output_field = BigIntegerField()

    def as_sql(
        self, compiler: SQLCompiler, connection: BaseDatabaseWrapper, *how: Any, **more: Any
    ) -> tuple[str, tuple[str | int, ...]]:
        """Return the system column of the table that the given column stands in."""
        del connection, how, more
        column = cast("Col", self.source_expressions[0])
        table = compiler.quote_name_unless_alias(column.alias)
        return f"CAST(CAST({table}.xmin AS text) AS bigint)", ()


def written_of(rows: QuerySet[Model], *columns: str) -> tuple[int, ...]:
    """Return a count and a sum for each table of rows, other ones once any was written.

    Parameters
    ----------
    rows : QuerySet
        Of any table, not sliced.
    columns : str
        One of each table that counts, through its relations; a column, not a key. Of a table
        beyond a relation, each row counts as often as it is met, and one that is missing not.
    """
    asked: dict[str, Any] = {}
    for place, column in enumerate(columns):
        asked[f"count{place}"] = Count(column)
        asked[f"sum{place}"] = Sum(Written(column))
    return tuple(value or 0 for value in rows.aggregate(**asked).values())
