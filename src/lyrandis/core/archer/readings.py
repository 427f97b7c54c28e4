"""What is recorded of the archer: draw, hook, hold and habits. Lengths in mm, forces in lbf."""

from typing import Literal

from lyrandis.core import quantities as q
from lyrandis.core.archer.words import (
    ANCHOR_WORDS,
    DATUM_WORDS,
    HAND_WORDS,
    HOLD_WORDS,
    PURPOSE_WORDS,
    Anchor,
    Datum,
    Hand,
    Hold,
    Purpose,
)
from lyrandis.core.phrase import Phrase, lbf, mm, phrase
from lyrandis.core.reading import BaseReading


class DrawMarked(BaseReading):
    """Draw length read off an arrow marked at full draw."""

    of = frozenset({"archer", "rig"})
    by = "measured"
    settles = False
    needs = frozenset({"archer", "bow"})
    kind: Literal["draw_marked"] = "draw_marked"
    draw_length_mm: q.DrawLength
    datum: Datum = "trade"

    def say(self) -> Phrase:
        to = DATUM_WORDS[self.datum]
        return phrase(f"Draw {{draw}}{to} on a marked arrow", draw=mm(self.draw_length_mm))


class DrawOnScale(BaseReading):
    """Where the string at the hook stood, at full draw on a bow scale."""

    of = frozenset({"archer", "rig"})
    by = "measured"
    settles = False
    needs = frozenset({"archer", "bow"})
    kind: Literal["draw_on_scale"] = "draw_on_scale"
    hook_position_mm: q.HookPosition
    datum: Datum = "trade"

    def say(self) -> Phrase:
        to = DATUM_WORDS[self.datum]
        return phrase(
            f"String at the hook {{draw}}{to}, at full draw on a scale",
            draw=mm(self.hook_position_mm),
        )


class DrawStated(BaseReading):
    """A draw length somebody said or supposed."""

    of = frozenset({"archer", "rig"})
    settles = False
    needs = frozenset({"archer", "bow"})
    kind: Literal["draw_stated"] = "draw_stated"
    draw_length_mm: q.DrawLength
    half_mm: q.DrawHalf | None = None
    """Half of the span where two ends were told; the draw is then their middle."""
    datum: Datum = "trade"

    def say(self) -> Phrase:
        to = DATUM_WORDS[self.datum]
        if self.half_mm is None:
            return phrase(f"Draw said to be {{draw}}{to}", draw=mm(self.draw_length_mm))
        return phrase(
            f"Draw said to be {{low}} to {{high}}{to}",
            low=mm(self.draw_length_mm - self.half_mm),
            high=mm(self.draw_length_mm + self.half_mm),
        )


class ArmTape(BaseReading):
    """Tape from the fingertip to the hollow at the ball of the shoulder."""

    of = frozenset({"archer"})
    by = "measured"
    settles = False
    kind: Literal["arm_tape"] = "arm_tape"
    arm_length_mm: q.ArmLength

    def say(self) -> Phrase:
        return phrase("Fingertip to shoulder {arm}", arm=mm(self.arm_length_mm))


class ArmSpan(BaseReading):
    """Fingertip to fingertip, arms spread."""

    of = frozenset({"archer"})
    by = "measured"
    settles = False
    kind: Literal["arm_span"] = "arm_span"
    arm_span_mm: q.ArmSpanMm

    def say(self) -> Phrase:
        return phrase("Arm span {span}", span=mm(self.arm_span_mm))


class HookDepth(BaseReading):
    """How far the string at the hook lies behind the arrow's nock groove at full draw."""

    of = frozenset({"archer", "rig"})
    by = "measured"
    needs = frozenset({"archer", "bow"})
    kind: Literal["hook_depth"] = "hook_depth"
    hook_depth_mm: q.HookDepthMm

    def say(self) -> Phrase:
        return phrase("Hook {depth} behind the nock groove", depth=mm(self.hook_depth_mm))


_TO = {"plunger": "the plunger's line"}


class GripDepth(BaseReading):
    """From the pivot (deepest part of the grip) to the back or belly where the arrow passes, or to
    the plunger's line."""

    of = frozenset({"bow"})
    by = "measured"
    keyed_by = ("to",)
    kind: Literal["grip_depth"] = "grip_depth"
    to: Literal["back", "belly", "plunger"]
    depth_mm: q.GripDepthMm

    def say(self) -> Phrase:
        return phrase(f"Pivot to {_TO.get(self.to, self.to)} {{depth}}", depth=mm(self.depth_mm))


class HoldChosen(BaseReading):
    """How the string is held."""

    of = frozenset({"archer", "rig"})
    needs = frozenset({"archer"})
    kind: Literal["hold_chosen"] = "hold_chosen"
    hold: Hold

    def say(self) -> Phrase:
        return phrase(f"Hold: {HOLD_WORDS[self.hold]}")


class AnchorChosen(BaseReading):
    """Where the drawing hand stops."""

    of = frozenset({"archer", "rig"})
    needs = frozenset({"archer"})
    kind: Literal["anchor_chosen"] = "anchor_chosen"
    anchor: Anchor

    def say(self) -> Phrase:
        return phrase(f"Anchor: {ANCHOR_WORDS[self.anchor]}")


class HandChosen(BaseReading):
    """The hand that draws the string."""

    of = frozenset({"archer", "rig"})
    needs = frozenset({"archer"})
    kind: Literal["hand_chosen"] = "hand_chosen"
    hand: Hand

    def say(self) -> Phrase:
        return phrase(f"Draws with the {HAND_WORDS[self.hand]} hand")


class PurposeChosen(BaseReading):
    """What the rig is for."""

    of = frozenset({"archer", "rig"})
    kind: Literal["purpose_chosen"] = "purpose_chosen"
    purpose: Purpose

    def say(self) -> Phrase:
        return phrase(f"Purpose: {PURPOSE_WORDS[self.purpose]}")


class WeightWished(BaseReading):
    """The draw weight the archer wishes to hold at full draw."""

    of = frozenset({"archer", "rig"})
    needs = frozenset({"archer"})
    kind: Literal["weight_wished"] = "weight_wished"
    draw_weight_lbf: q.DrawWeightLbf

    def say(self) -> Phrase:
        return phrase("Wishes to hold {weight}", weight=lbf(self.draw_weight_lbf))


ArcherReading = (
    DrawMarked
    | DrawOnScale
    | DrawStated
    | ArmTape
    | ArmSpan
    | HookDepth
    | GripDepth
    | HoldChosen
    | AnchorChosen
    | HandChosen
    | PurposeChosen
    | WeightWished
)
