"""The string and its brace: what is recorded of them. Its room opens with its stage."""
