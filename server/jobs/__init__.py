"""Jobs and the versions of what people gave for them."""
