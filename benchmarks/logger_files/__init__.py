"""Files in the styles in which loggers write, from one truth: is each understood, or asked about?

`truth` is what was measured, `styles` writes it in many ways, `report` reads them all back.
"""
