"""Screens over many motors: motors, feeder, conversion, photos."""
