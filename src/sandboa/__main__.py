"""`python -m sandboa`."""

import sys

from sandboa.cli import main

sys.exit(main())
