"""The order of work: what is set in which order, what rests on what, and what is in doubt."""
