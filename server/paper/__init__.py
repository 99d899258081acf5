"""Pages to print: PDF from HTML, with the fonts that ship with the app."""
