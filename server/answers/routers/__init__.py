"""One router for each screen that only calculates."""
