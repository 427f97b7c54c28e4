"""The bow on the page: its weight, what is known of it, with the stage's mark."""

from lyrandis.core import judgement as j
from lyrandis.core.archer.stage import choice_value
from lyrandis.core.bow.facts import BowFacts
from lyrandis.core.bow.inspection import ITEMS, SEVERITY, looked_over
from lyrandis.core.bow.judge_energy import energy_sum
from lyrandis.core.bow.judge_weight import FAR_BEYOND_POINTS_MM, WEIGH, weight_figure
from lyrandis.core.bow.likeness import brace_to_pivot
from lyrandis.core.bow.weight import mark_to_ask_for
from lyrandis.core.bow.words import FAMILY_WORDS, InspectionItem
from lyrandis.core.computed import Computed
from lyrandis.core.constants import MARKED_DRAW_MM
from lyrandis.core.effective import Recorded
from lyrandis.core.phrase import (
    Figure,
    Phrase,
    gpp,
    gr,
    joules,
    lbf,
    lbf_per_in,
    mm,
    mps,
    phrase,
    plain,
)
from lyrandis.core.reading import BaseReading
from lyrandis.core.setup import Setup
from lyrandis.core.stage_spec import Ask, plain_ask

CAUTIONS = (
    j.Caution(id="dry-fire", text="Never dry-fire. Never overdraw. The maker's limit decides."),
    j.Caution(
        id="inspect",
        text="Before stringing, look for twist, cracks, crazing, lifting laminations, worn nocks "
        "and a frayed string. Use a stringer.",
    ),
)


def stage(c: Computed, findings: list[j.Finding]) -> j.Standing:
    """Return the bow's stage: weight at the archer's draw, and what is known of the bow."""
    headline = _weight_value(c)
    moved = _moved(c, findings)
    bow = c.setup.bow
    length = bow.length.reading.back_mm if bow.length else None
    return j.Standing(
        mark=_mark(c, moved),
        headline=headline.key,
        detail=phrase("{length}", length=mm(length)) if length else None,
        answer=_answer(c),
        moved=moved,
        values=(headline, *_weight_values(c), *_energy_values(c), *_known(c)),
        cautions=CAUTIONS,
    )


def _answer(c: Computed) -> Phrase:
    weight, margin = c.bow.weight, c.bow.stack_margin_mm
    if weight is None:
        return phrase("What the bow draws is not known yet.")
    figures = {"weight": weight_figure(weight.weight)}
    held = "{weight} on your fingers" if c.bow.weight_is_own else "{weight} at the marked draw"
    if margin is None or not c.bow.weight_is_own:
        return phrase(f"{held}.", **figures)
    figures["margin"] = mm(abs(margin.value), margin.plus_minus)
    room = (
        "with {margin} to spare before it stacks"
        if margin.value >= 0
        else ("and it stacks over the last {margin}")
    )
    return phrase(f"{held}, {room}.", **figures)


def _moved(c: Computed, findings: list[j.Finding]) -> Phrase | None:
    off = next((f for f in findings if f.id == "weighed-point-off"), None)
    if off is not None:
        return off.sentence
    string = c.setup.string
    if c.bow.weight and c.bow.weight.basis == "weighed" and string.fitted_at:
        last = max(point.recorded.entry.happened_at for point in c.bow.weight.points)
        if string.fitted_at > last:
            name = plain(f"The string {string.name}" if string.name else "The string")
            return phrase(f"{name} was fitted after the bow was last weighed.")
    return None


def _mark(c: Computed, moved: Phrase | None) -> j.Mark:
    if c.bow.weight is None:
        return "unset"
    if moved:
        return "in_doubt"
    hearsay = all(point.recorded.source in ("told", "estimated") for point in c.bow.weight.points)
    estimated = c.bow.weight.basis == "mark" or hearsay or not c.bow.weight_is_own
    return "estimated" if estimated or c.bow.weight.beyond_mm > FAR_BEYOND_POINTS_MM else "settled"


def _weight_value(c: Computed) -> j.Value:
    if c.bow.weight is None:
        return j.Value(
            key="draw_weight", label="Weight at your draw", missing="No mark or weighed point yet"
        )
    sources = [point.recorded.source for point in c.bow.weight.points]
    estimated = c.bow.weight.basis == "mark" or not c.bow.weight_is_own
    return j.Value(
        key="draw_weight",
        label="Weight at your draw" if c.bow.weight_is_own else "Weight at the marked draw",
        figure=weight_figure(c.bow.weight.weight),
        origin=j.weakest("estimated", *sources) if estimated else j.weakest(*sources),
        entries=tuple(point.recorded.entry.id for point in c.bow.weight.points),
    )


def _weight_values(c: Computed) -> list[j.Value]:
    values = []
    if c.bow.weight is not None:
        weighed = c.bow.weight.basis == "weighed" and len(c.bow.weight.points) > 1
        values.append(
            j.Value(
                key="slope",
                label="Grows here",
                figure=lbf_per_in(c.bow.weight.slope.value, 2 * c.bow.weight.slope.sd),
                origin="weighed" if weighed else "rule",
            )
        )
    wished = c.setup.archer.wished_weight
    if wished is None:
        values.append(j.Value(key="wished_weight", label="Wished weight", missing="Not told yet"))
        return values
    hold = wished.reading.draw_weight_lbf
    values.append(_recorded("wished_weight", "Wished weight", wished, lbf(hold)))
    if c.archer.at_hook is not None:
        values.append(
            j.Value(
                key="mark_to_ask",
                label="Mark to look for",
                figure=weight_figure(mark_to_ask_for(hold, c.archer.at_hook, c.bow.likeness)),
                detail=phrase("at {draw}", draw=mm(MARKED_DRAW_MM)),
                origin="rule",
            )
        )
    return values


def _energy_values(c: Computed) -> list[j.Value]:
    """Return what the mechanics say at the archer's own draw."""
    why = "Needs a draw length and a weight"
    if c.bow.thrust is None:
        return [
            j.Value(key="stored", label="Energy stored", missing=why),
            j.Value(key="stack_margin", label="Before stack", missing=why),
            j.Value(key="speed", label="Arrow speed", missing=why),
        ]
    values = [
        j.Value(
            key="stored",
            label="Energy stored",
            figure=joules(c.bow.thrust.stored_j.value, c.bow.thrust.stored_j.plus_minus),
            origin="rule",
            because=energy_sum(c),
        ),
        _margin_value(c),
    ]
    if c.arrow.finished is None:
        values.append(j.Value(key="speed", label="Arrow speed", missing="Needs an arrow's mass"))
        return values
    speed = c.bow.thrust.speed_estimate(c.arrow.finished.mass.value)
    clocked = c.bow.calibration is not None and bool(c.bow.calibration.used)
    values.append(
        j.Value(
            key="speed",
            label="Arrow speed",
            figure=mps(speed.value, speed.plus_minus),
            origin="measured" if clocked else "rule",
        )
    )
    return values


def _margin_value(c: Computed) -> j.Value:
    margin = c.bow.stack_margin_mm
    if margin is None:
        return j.Value(
            key="stack_margin", label="Before stack", missing="Stack lies beyond the computed draw"
        )
    return j.Value(
        key="stack_margin",
        label="Before stack" if margin.value >= 0 else "Past the onset of stack",
        figure=mm(abs(margin.value), margin.plus_minus),
        origin="rule",
    )


def _recorded(
    key: str,
    label: str,
    recorded: Recorded[BaseReading] | None,
    figure: Figure | None,
    detail: Phrase | None = None,
) -> j.Value:
    if recorded is None or figure is None:
        return j.Value(key=key, label=label, missing="Not told yet")
    return j.Value(
        key=key,
        label=label,
        figure=figure,
        detail=detail,
        origin=recorded.source,
        entries=(recorded.entry.id,),
    )


def _known(c: Computed) -> list[j.Value]:
    """Return what has been told or measured of the bow, present or missing."""
    bow = c.setup.bow
    length, riser, limit = bow.length, bow.riser_length, bow.draw_limit
    mark, brace, maker = bow.mark, c.setup.string.brace_height, bow.brace_range
    return [
        choice_value("family", "Family", bow.family, FAMILY_WORDS),
        _recorded(
            "mark",
            "Marked weight",
            mark,
            lbf(mark.reading.draw_weight_lbf) if mark else None,
            phrase("at {draw}", draw=mm(mark.reading.draw_length_mm)) if mark else None,
        ),
        _recorded(
            "bow_length", "Bow length", length, mm(length.reading.back_mm) if length else None
        ),
        _recorded(
            "riser_length", "Riser", riser, mm(riser.reading.riser_length_mm) if riser else None
        ),
        _recorded(
            "draw_limit",
            "Maker's longest draw",
            limit,
            mm(limit.reading.draw_length_mm) if limit else None,
        ),
        _recorded(
            "stack_felt",
            "Stack felt from",
            bow.stack_felt,
            mm(bow.stack_felt.reading.draw_length_mm) if bow.stack_felt else None,
        ),
        _recorded(
            "arrow_minimum", "Bowyer's lightest arrow", bow.arrow_minimum, _minimum_figure(c)
        ),
        _recorded(
            "brace_height",
            "Brace height",
            brace,
            mm(brace_to_pivot(c.setup.string, c.setup.archer) or 0.0) if brace else None,
        ),
        _string_value(c),
        _recorded(
            "brace_range",
            "Maker's brace",
            maker,
            mm(maker.reading.low_mm) if maker else None,
            phrase("to {high}", high=mm(maker.reading.high_mm)) if maker else None,
        ),
    ]


def _string_value(c: Computed) -> j.Value:
    """Return the fitted string's length and strands, as last told."""
    builds = c.setup.string.builds
    length = next((b for b in reversed(builds) if b.reading.string_length_mm), None)
    strands = next((b for b in reversed(builds) if b.reading.strands), None)
    said = f"{strands.reading.strands} strands" if strands else None
    if length is None:
        known = {"text": said} if said else {"missing": "Not told yet"}
        return j.Value(key="string", label="String", **known)
    return j.Value(
        key="string",
        label="String",
        figure=mm(length.reading.string_length_mm or 0.0),
        detail=phrase(said) if said else None,
        origin=length.source,
        entries=(length.entry.id,),
    )


def _minimum_figure(c: Computed) -> Figure | None:
    minimum = c.setup.bow.arrow_minimum
    if minimum is None:
        return None
    if minimum.reading.arrow_mass_gr is not None:
        return gr(minimum.reading.arrow_mass_gr)
    return gpp(minimum.reading.grains_per_pound or 0.0)


def missing(c: Computed) -> j.NextStep | None:
    """Ask for the bow's weight."""
    if c.bow.weight is not None:
        return None
    return j.NextStep(
        title=phrase("Weigh the bow"),
        why=phrase("There is no weight for this bow yet. Its mark will do to begin with."),
        tells=phrase("It tells what you hold at your own draw."),
        minutes=5,
        action=WEIGH,
        aside="scale",
    )


LOOK_OVER = j.NextStep(
    title=phrase("Look the bow over"),
    why=phrase(
        "Nobody has looked at it here yet. What can let go at full draw is found before the first "
        "shot, above all on a bow that is borrowed, old or new to you."
    ),
    tells=phrase("It clears limbs, tips, finish and string, or says what to put right."),
    minutes=4,
    action=j.Action(label="Begin the look-over", stage="bow", control="inspection"),
)


def unchecked(c: Computed) -> tuple[j.Unchecked, ...]:
    """Return what of the bow nobody has looked at yet."""
    if c.setup.fitted.bow is None and c.setup.rig is not None:
        return (j.Unchecked(what=phrase("no bow is fitted"), before_shooting=True),)
    bow, result = c.setup.bow, looked_over(c.setup.bow.inspections)
    dangerous = _dangers_unseen(bow)
    left: list[j.Unchecked] = []
    if not result:
        what = phrase("the bow is not looked over")
        known = bow != BowFacts(name=bow.name)
        step = LOOK_OVER if known else None
        left.append(j.Unchecked(what=what, before_shooting=True, step=step, turn=0))
    elif dangerous:
        names = ", ".join(item.replace("_", " ") for item in dangerous)
        what = phrase(f"the look-over is not whole ({names})")
        left.append(j.Unchecked(what=what, before_shooting=True))
    if c.bow.weight is None or c.bow.weight.basis == "mark":
        asked = c.bow.weight is not None and c.archer.draw is not None
        step = _weigh_it(c) if asked else None
        left.append(j.Unchecked(what=phrase("the bow's weight"), step=step, turn=6))
    if bow.draw_limit is None:
        limit = j.NextStep(
            title=phrase("Enter the maker's longest draw"),
            why=phrase("Nobody draws past it."),
            tells=phrase(""),
            minutes=1,
            action=j.Action(label="Enter it", stage="bow", control="limit"),
        )
        left.append(j.Unchecked(what=phrase("the maker's longest draw"), step=limit))
    return tuple(left)


def _dangers_unseen(bow: BowFacts) -> list[InspectionItem]:
    """Return what can let go at full draw and was not looked at."""
    seen = looked_over(bow.inspections)
    return [item for item in ITEMS if SEVERITY[item] == "stop" and item not in seen]


def whole_look_over(bow: BowFacts) -> bool:
    """Return whether all that can let go at full draw was looked at.

    >>> from lyrandis.core.example import rig
    >>> whole_look_over(rig().setup.bow), whole_look_over(rig(["inspect all good"]).setup.bow)
    (False, True)
    """
    return not _dangers_unseen(bow)


def _weigh_it(c: Computed) -> j.NextStep:
    """Ask for the bow on a scale: its mark says nothing of this draw."""
    at = mm(c.archer.drawn_to.value)
    return j.NextStep(
        title=phrase("Weigh the bow at {at}", at=at),
        why=phrase(
            "The mark is written for another draw, and bows differ. Hang it on a scale and read it "
            "with the string at {at}, pivot + {1 3/4 in}.",
            at=at,
        ),
        tells=phrase("Spine, grains per pound and crawls stand on it."),
        minutes=5,
        action=WEIGH,
        aside="scale",
    )


def _more_points(c: Computed) -> j.NextStep | None:
    """Ask for more points of the draw curve, once everything is settled."""
    if c.bow.weight is None or len(c.bow.weight.points) >= 3:
        return None
    return j.NextStep(
        title=phrase("Weigh at two more draws"),
        why=phrase(
            "All stages are settled. {2 in} either side of your draw would show how the "
            "weight grows."
        ),
        tells=phrase(
            "It sharpens how weight grows, now {slope}.",
            slope=lbf_per_in(c.bow.weight.slope.value, 2 * c.bow.weight.slope.sd),
        ),
        minutes=10,
        action=WEIGH,
    )


def _length_is_vague(setup: Setup) -> bool:
    """Return whether static tips have a length that may be of the strung bow."""
    family, length = setup.bow.family, setup.bow.length
    if family is None or length is None:
        return False
    return family.reading.family.endswith("rigid_tip") and length.reading.taken is None


ASKS = (
    plain_ask(
        3,
        lambda setup: setup.bow.family is None,
        "Say what sort of bow it is",
        "It gives the curve, the stack and the floor of its kind.",
        "bow",
        "family",
    ),
    plain_ask(
        4,
        lambda setup: setup.bow.length is None,
        "Enter the bow's length",
        "It says where this bow stacks and what it stores.",
        "bow",
        "bow",
    ),
    plain_ask(
        7,
        lambda setup: setup.bow.draw_limit is None,
        "Enter the maker's longest draw",
        "It tells whether your draw is inside it.",
        "bow",
        "limit",
        assumed=False,
    ),
    plain_ask(
        8,
        _length_is_vague,
        "Say how the bow's length was taken",
        "Bowyers of static tips often measure the strung bow, {3 in} less than along the back.",
        "arrow",
        "lengthtaken",
    ),
    plain_ask(
        9,
        lambda setup: setup.bow.arrow_minimum is None,
        "Ask the bowyer for the lightest arrow",
        "It puts a floor from the one who knows in place of the usual one.",
        "bow",
        "floor",
        assumed=False,
    ),
    Ask(20, _more_points),
)
