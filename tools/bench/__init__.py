"""Speed and memory, measured by area: `python -m tools.bench`."""
