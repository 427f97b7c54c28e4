"""The demo: three rigs in the winter workshop of a made-up island club."""
