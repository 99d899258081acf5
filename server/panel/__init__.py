"""At the panel: entries of people at one job, kept for ever and judged by the core."""
