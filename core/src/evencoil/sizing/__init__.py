"""Sizes of a motor's branch circuit, one module per question."""
