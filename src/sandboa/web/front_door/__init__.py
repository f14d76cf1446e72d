"""The first page of a phone that does not know the house yet: plain http, the certificate, steps.

It knows nothing of what the house holds, and takes nothing in.
"""
