"""The rules and the computation of the job.

No input or output, no clock, no database, no web: plain values in, plain
values out. Times are seconds since 1970-01-01 UTC unless a name says
otherwise, temperatures °C, masses g, humidity a fraction 0-1.
"""
