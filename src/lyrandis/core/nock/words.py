"""What is set at the nock and on the riser, and the trade's words for it."""

from typing import Literal

NockDatum = Literal["lift", "locator_over", "locator_under"]
"""Underside of the arrow at the string; lower edge of a locator above it; upper edge of one below.
All above square: the line from rest or shelf square to the string."""
NOCK_DATUM_WORDS: dict[NockDatum, str] = {
    "lift": "underside of the arrow over square",
    "locator_over": "lower edge of the locator above the arrow",
    "locator_under": "upper edge of the locator below the arrow",
}

NockFlight = Literal["clean", "bounced", "bare_level", "bare_high", "bare_low"]
NOCK_FLIGHT_WORDS: dict[NockFlight, str] = {
    "clean": "clean",
    "bounced": "bounced up and down",
    "bare_level": "bare shaft level with the fletched",
    "bare_high": "bare shaft above the fletched",
    "bare_low": "bare shaft below the fletched",
}

LimbPlace = Literal["fade", "pocket"]
LIMB_PLACE_WORDS: dict[LimbPlace, str] = {
    "fade": "the end of the fade",
    "pocket": "the limb pocket",
}

BowKit = Literal["plain", "rest", "full"]
"""What can be set on the bow beside string and nock."""
BOW_KIT_WORDS: dict[BowKit, str] = {
    "plain": "nothing to set on the riser",
    "rest": "rest or plunger can be set",
    "full": "limb bolts, rest and plunger can be set",
}
