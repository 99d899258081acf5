"""People, works, members and roles."""
