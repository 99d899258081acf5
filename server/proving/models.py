"""Nothing is stored here any more: the searches are questions of the desk (`desk`)."""

__all__: list[str] = []
