"""Loggers: the simulated ones that stand in where there is no real one."""
