"""Settings, URLs and the application object of the server."""
