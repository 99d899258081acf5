"""What is calculated for a screen and never stored."""
