"""Stage 1, the archer: draw length, hook, hold, anchor, hand and purpose."""
