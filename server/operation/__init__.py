"""Running it for real: settings that are refused, health, metrics, logs."""
