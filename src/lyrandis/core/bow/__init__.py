"""Stage 2, the bow: family, length, limits, and its weight at the archer's draw."""
