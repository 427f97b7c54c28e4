"""The string and its brace: what is recorded of them. Its stage is built elsewhere."""
