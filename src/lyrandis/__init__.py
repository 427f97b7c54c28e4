"""Lyrandis: the bench companion from draw length to clean, quiet arrow flight."""

import os

__version__ = "0.1.0"

# many small matrix products: more threads make them slower
os.environ.setdefault("OPENBLAS_NUM_THREADS", "1")
