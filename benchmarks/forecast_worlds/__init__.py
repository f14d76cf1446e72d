"""Forecasts held to account in worlds that are not the core's: `./do bench forecasts`.

`worlds` says what is so in each, `norms` how warmth drives development there, `house` lives some
seasons of one house and keeps what was forecast, `overdue` asks about clutches that are late,
`physics` has cabinets by physics, and `report` tells how it went beside the aims.
"""
