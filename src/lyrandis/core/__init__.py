"""The pure core: entries, fold, assess and the mechanics. No clock, files, HTTP or SQL."""
