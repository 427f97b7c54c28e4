"""Judging the quiver: cracked and crooked arrows, and how alike the set is in spine."""

from functools import partial

from lyrandis.core import judgement as j
from lyrandis.core.arrow.quiver import CROOKED_MM, QuiverArrow
from lyrandis.core.computed import Computed
from lyrandis.core.phrase import Phrase, day, gap, phrase, spine

SPINE_SPREAD_TO_WATCH = 0.06
SPINE_SPREAD_TO_MEND = 0.12
"""Stiffest less weakest, as a share of the mean. Convention."""
_QUIVER = j.Action(label="Look at the quiver", stage="arrow", control="quiver")

RULES: tuple[j.Rule, ...] = (
    j.Rule(
        id="arrow-cracked",
        stage="arrow",
        title="Flex and look at every arrow",
        statement="A cracked arrow is out of the set at once: Stop, until it is broken in two and "
        "marked retired. An arrow nobody has flexed and looked at yet is Watch.",
        school="Safety",
        source="Practice of the trade: a cracked shaft can fail into the bow hand.",
    ),
    j.Rule(
        id="arrow-quill",
        stage="arrow",
        title="Quill ends bound and smooth",
        statement="A feather whose front end lifts, on a bow told to be shot off the hand, refuses "
        "that arrow: Stop. Where the arrow may lie on the hand it is said before shooting; on a "
        "shelf or rest it is Watch.",
        school="Safety",
        source="Practice of the trade: a lifted quill is driven into the hand it passes over.",
    ),
    j.Rule(
        id="arrow-straight",
        stage="arrow",
        title="Straight arrows",
        statement=f"Run-out past {CROOKED_MM} mm when spun is Watch, and keeps an arrow out of a "
        "matched set.",
        school="Lyrandis convention",
        source="A convention; wood can often be straightened by hand and heat.",
    ),
    j.Rule(
        id="spine-spread",
        stage="arrow",
        title="A set of one spine",
        statement=f"Stiffest less weakest over the mean: past {100 * SPINE_SPREAD_TO_WATCH:.0f} "
        f"% is Watch, past {100 * SPINE_SPREAD_TO_MEND:.0f} % is Mend.",
        school="Lyrandis convention",
        source="A convention; a tenth of spine is one step of the index.",
    ),
)
_finding = partial(j.found, "arrow")


def judge(c: Computed) -> list[j.Finding]:
    """Return the findings on the numbered arrows."""
    quiver = c.arrow.quiver
    in_use = [arrow for arrow in quiver if not arrow.out_of_use]
    return [
        *_judge_cracked(quiver),
        *_judge_quills(c, in_use),
        *_judge_looked(in_use),
        *_judge_straight(in_use),
        *_judge_spread(c),
    ]


def numbers(arrows: list[QuiverArrow]) -> str:
    """Return the numbers as spoken.

    >>> numbers([QuiverArrow(1), QuiverArrow(4), QuiverArrow(9)])
    '1, 4 and 9'
    """
    said = [str(arrow.number) for arrow in arrows]
    if len(said) < 2:
        return "".join(said)
    return f"{', '.join(said[:-1])} and {said[-1]}"


def _plural(arrows: list[QuiverArrow]) -> str:
    return f"Arrow {numbers(arrows)} is" if len(arrows) == 1 else f"Arrows {numbers(arrows)} are"


def _judge_cracked(quiver: tuple[QuiverArrow, ...]) -> list[j.Finding]:
    cracked = [arrow for arrow in quiver if arrow.safety == "cracked" and not arrow.retired]
    if not cracked:
        return []
    each = "it" if len(cracked) == 1 else "them"
    return [
        _finding(
            "arrow-cracked",
            "stop",
            phrase(
                f"{_plural(cracked)} cracked. Break {each} in two, so that nobody shoots {each}, "
                f"and mark {each} retired."
            ),
            tuple(_seen(arrow) for arrow in cracked),
            _QUIVER,
            title="A cracked arrow",
        )
    ]


def _judge_quills(c: Computed, in_use: list[QuiverArrow]) -> list[j.Finding]:
    lifting = [arrow for arrow in in_use if arrow.quill == "lifts"]
    if not lifting:
        return []
    one = len(lifting) == 1
    which = f"{'Arrow' if one else 'Arrows'} {numbers(lifting)}"
    who = f"{which} has a lifting quill" if one else f"{which} have lifting quills"
    off = c.nock.off_the_hand
    severity: j.Severity = "stop" if off else "watch"
    if off:
        text = (
            f"{who}, which goes into the hand the arrow lies on. Do not shoot "
            f"{'it' if one else 'them'} until every feather's front is bound and smooth."
        )
    elif off is None:
        text = (
            f"{who}. If the arrow lies on your hand that wounds it: say what it lies on, and bind "
            "the feather's front."
        )
    else:
        text = f"{who}: bind the feather's front, or it wears off and steers."
    return [
        _finding(
            "arrow-quill",
            severity,
            phrase(text),
            tuple(_seen(arrow) for arrow in lifting),
            _QUIVER,
            title="A quill lifts",
            before_shooting=off is None,
        )
    ]


def _seen(one: QuiverArrow) -> Phrase:
    if one.looked_at is None:
        return phrase(f"Arrow {one.number}.")
    return phrase(f"Arrow {one.number}, seen on {{day}}.", day=day(one.looked_at))


def _judge_looked(in_use: list[QuiverArrow]) -> list[j.Finding]:
    unseen = [arrow for arrow in in_use if arrow.safety == "not_looked"]
    if not in_use or not unseen:
        return []
    all_of_them = len(unseen) == len(in_use)
    count = len(in_use)
    who = f"{_plural(unseen)} not"
    if all_of_them and count > 1:
        who = f"None of the {count} numbered arrows is"
    return [
        _finding(
            "arrow-not-looked",
            "watch",
            phrase(f"{who} flexed and looked at yet. Do it before they are shot."),
            (phrase(f"{count - len(unseen)} of {count} looked at."),),
            _QUIVER,
            rule="arrow-cracked",
        )
    ]


def _judge_straight(in_use: list[QuiverArrow]) -> list[j.Finding]:
    crooked = [arrow for arrow in in_use if (arrow.straight_mm or 0.0) > CROOKED_MM]
    if not crooked:
        return []
    return [
        _finding(
            "arrow-straight",
            "watch",
            phrase(f"{_plural(crooked)} crooked. Straighten or set aside."),
            tuple(
                phrase(f"Arrow {arrow.number} runs out {{by}}.", by=gap(arrow.straight_mm or 0.0))
                for arrow in crooked
            ),
            _QUIVER,
        )
    ]


def _judge_spread(c: Computed) -> list[j.Finding]:
    shafts = c.arrow.sheet.spine
    if shafts is None or shafts.basis != "measured" or len(shafts.entries) < 2:
        return []
    share = shafts.spread / shafts.value.value
    severity: j.Severity = "good"
    if share > SPINE_SPREAD_TO_WATCH:
        severity = "mend" if share > SPINE_SPREAD_TO_MEND else "watch"
    advice = "" if severity == "good" else " Choose the ones that belong together."
    return [
        _finding(
            "spine-spread",
            severity,
            phrase(
                f"{len(shafts.entries)} arrows within {shafts.spread:.1f} lb of spine, "
                f"{share:.0%} of it.{advice}"
            ),
            (phrase("Mean {mean}.", mean=spine(shafts.value.value)),),
            (
                None
                if severity == "good"
                else j.Action(label="Choose a matched set", stage="arrow", control="matched")
            ),
        )
    ]
