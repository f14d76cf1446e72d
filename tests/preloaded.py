"""What a forked server finds ready, imported once before the first fork: see `forked`."""

from sandboa.web.app import create_app

# What each route takes is worked out when it is first asked for.
create_app(None).openapi()
