"""`python -m lyrandis` is the `lyrandis` command."""

import sys

from lyrandis.cli import main

sys.exit(main())
