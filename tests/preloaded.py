"""What a forked server finds ready, imported once before the first fork: see `forked`."""

import gc

from sandboa.web.app import create_app

# What each route takes is worked out when it is first asked for.
create_app(None).openapi()

# A fork that collects garbage would copy every page of what is shared.
gc.collect()
gc.freeze()
