"""The API: its one object, its problem shape, its committed OpenAPI file."""
