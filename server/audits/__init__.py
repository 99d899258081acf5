"""Audits of a whole plant: asked for, divided among workers, counted, compared."""
