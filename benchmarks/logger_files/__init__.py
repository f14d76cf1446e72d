"""Files in the styles in which loggers write, from one truth: is each understood, or asked about?

`truth` is what was measured, `writing` is what files are made of, `styles` are the many ways of it,
`report` reads them all back.
"""
