"""Stage 3, the arrow: finished mass, grains per pound and the floor."""
