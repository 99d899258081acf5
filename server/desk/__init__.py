"""Heavy questions, answered by processes of their own: bounded, fair, told as they go on."""
