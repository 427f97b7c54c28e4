"""The nock's height and what it stands on: tiller, alignment, centre shot, riser weights."""
