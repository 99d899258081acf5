"""How fast a machine is decides nothing that is right: speed stands in ``benchmarks/``."""

from hypothesis import settings

settings.register_profile("calm", deadline=None)
settings.load_profile("calm")
