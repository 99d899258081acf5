"""Larkfall Lime Works: made-up people, machines and motors to try things on."""
