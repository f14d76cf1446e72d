"""Hatch watch: pips, cuts, emergences, hatchlings, fates, and a clutch closed or reopened."""
