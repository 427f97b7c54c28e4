"""The choosing board as it is shown: bow lengths side by side, what each school says of them.

Lengths in mm, weights in lbf, energies in joules, angles in degrees, speeds in m/s.
"""

from typing import Annotated, Literal, NamedTuple

from pydantic import ConfigDict, Field

from lyrandis.core import quantities as q
from lyrandis.core.archer.words import Hold, Purpose
from lyrandis.core.bow.schools import Limbs, School
from lyrandis.core.bow.statics import BowShape
from lyrandis.core.bow.words import Family
from lyrandis.core.constants import USUAL_GPP
from lyrandis.core.drawn import Drawn
from lyrandis.core.phrase import Phrase

Verdict = Literal["fits", "near", "no", "silent"]


class Asking(Drawn):
    """What to reckon with in place of what is recorded; nothing of it is recorded."""

    model_config = ConfigDict(extra="forbid")

    draw_mm: q.DrawLength | None = None
    hold: Hold | None = None
    purpose: Purpose | None = None
    hold_lbf: q.DrawWeightLbf | None = None
    families: Annotated[tuple[Family, ...], Field(min_length=1, max_length=8)] | None = None


class Wish(NamedTuple):
    """Whom the board is for: draw at the nock (trade datum), hook behind it, habits, weight."""

    draw_mm: float
    hook_mm: float
    hold: Hold | None
    purpose: Purpose | None
    hold_lbf: float
    grains_per_pound: float = USUAL_GPP
    own: BowShape | None = None
    """The archer's own bow: others of its kind are given its brace, and its riser when told."""
    riser_told: bool = False
    own_later_mm: float = 0.0
    """How much later the archer's own bow stacks than its kind does, by scale or feel."""
    draw_plus_minus_mm: float = 0.0
    """Of the archer's own draw; 0 where one was asked for."""

    @property
    def at_mm(self) -> float:
        return self.draw_mm + self.hook_mm


class BoardRow(Drawn):
    """One bow length, computed at the archer's own draw and wished weight."""

    bow_length_mm: float
    margin_mm: float | None = None
    """From the string at the hook to the onset of stack."""
    margin_is_least: bool = False
    """True when stack lies beyond what is computed: the margin is at least this."""
    outside_family: bool = False
    """True when this kind of bow is not made so long or short: nothing is computed."""
    finger_angle_deg: float | None = None
    pinches: bool = False
    stored_j: float | None = None
    speed_mps: float | None = None
    left_j: float | None = None
    """Left in bow, string and hand after the shot."""
    floor_gpp: float | None = None
    mark_lbf: float | None = None
    verdicts: dict[School, Verdict]
    missing: Phrase | None = None
    """Why nothing is computed, where nothing is."""


class SchoolView(Drawn):
    """What one school says for this archer and this kind of bow."""

    school: School
    name: str
    preferred: bool
    says: Phrase
    low_mm: float | None = None
    high_mm: float | None = None
    gives_up: Phrase | None = None
    """What following it would cost or gain beside the preferred length."""


class Combination(Drawn):
    """A riser with limbs, as a take-down is bought."""

    riser_mm: float
    limbs: Limbs
    bow_length_mm: float
    margin_mm: float | None
    finger_angle_deg: float | None
    verdict: Verdict
    asked: bool
    """True when the limb-first school asks for it."""


class FamilyBoard(Drawn):
    """The board for one kind of bow."""

    family: Family
    words: str
    rows: tuple[BoardRow, ...]
    schools: tuple[SchoolView, ...]
    combinations: tuple[Combination, ...]
    best_mm: float | None
    """The length Lyrandis prefers: the shortest that has the margin and does not pinch."""
    summary: Phrase
    speed_says: Phrase | None
    """How the trade and the mechanics disagree over length and speed."""
    agree: bool


class ChoosingBoard(Drawn):
    """Bow lengths for one archer, by kind of bow."""

    draw_mm: float
    at_mm: float
    hold: Hold | None
    purpose: Purpose | None
    hold_lbf: float
    grains_per_pound: float
    least_margin_mm: float
    most_margin_mm: float
    pinch_deg: float | None
    families: tuple[FamilyBoard, ...]
