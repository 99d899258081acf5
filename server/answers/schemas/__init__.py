"""Answers as the screens get them, made from core objects."""
