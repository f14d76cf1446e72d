"""Faults injected into a house in use: what is lost, what is told, what it costs.

`disk` stands between SQLite and its files, `served` runs the command with it,
`clients` record meanwhile, `faults` do the harm, `truth` looks at the file
afterwards and `report` prints what came of it.
"""
