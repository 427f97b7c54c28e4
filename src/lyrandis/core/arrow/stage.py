"""The arrow on the page: mass, grains per pound and parts, with the stage's mark."""

from lyrandis.core import judgement as j
from lyrandis.core.archer.draw import Draw
from lyrandis.core.arrow.facts import ArrowFacts
from lyrandis.core.arrow.judge_mass import WEIGH_ARROW
from lyrandis.core.arrow.judge_spine import STIFFNESS_WORDS
from lyrandis.core.arrow.mass import shaft_length
from lyrandis.core.arrow.quiver import QuiverArrow
from lyrandis.core.arrow.stage_build import build_values, part_values, pass_values, spine_values
from lyrandis.core.bow.weight import DrawWeight
from lyrandis.core.computed import Computed
from lyrandis.core.phrase import Phrase, counted, gpp, gr, phrase
from lyrandis.core.stage_spec import Ask, plain_ask

CAUTIONS = (
    j.Caution(
        id="flex",
        text="Before shooting, flex and look at every arrow. A cracked one is broken in two "
        "and binned.",
    ),
    j.Caution(
        id="new-arrows",
        text="Shooting an arrow you have not shot before: eye protection, a backstop, nobody "
        "behind or beside it. A badly matched arrow goes anywhere.",
    ),
    j.Caution(
        id="too-light",
        text="An arrow that is too light is half a dry fire. Local rules on arrows and places "
        "decide.",
    ),
)


def stage(c: Computed, findings: list[j.Finding]) -> j.Standing:
    """Return the arrow's stage: finished mass, grains per pound, floor and parts."""
    mass = _mass_value(c)
    moved = next((f.sentence for f in findings if f.id == "arrow-changed"), None)
    return j.Standing(
        mark=_mark(c, moved),
        headline=mass.key,
        detail=phrase("{gpp}", gpp=gpp(c.arrow.gpp.value)) if c.arrow.gpp else None,
        answer=_answer(c),
        moved=moved,
        values=(
            mass,
            *_gpp_values(c),
            *spine_values(c),
            *build_values(c),
            *part_values(c),
            *pass_values(c),
        ),
        cautions=CAUTIONS,
    )


def _answer(c: Computed) -> Phrase:
    finished, gpp_ = c.arrow.finished, c.arrow.gpp
    if finished is None:
        return phrase("No arrow is weighed yet.")
    said = "{mass} is {gpp}, {by} over the floor"
    if gpp_ is None:
        return phrase("An arrow is {mass}.", mass=gr(finished.mass.value))
    over = gpp_.value - c.arrow.floor.grains_per_pound
    if over < 0:
        said = "{mass} is {gpp}, {by} under the floor"
    shooting, match = c.arrow.shooting, c.match
    if match is not None and shooting is not None and shooting.own_lbf is not None:
        said += f"; your shafts are {STIFFNESS_WORDS[match.word(shooting.own_lbf)]}"
    return phrase(f"{said}.", mass=gr(finished.mass.value), gpp=gpp(gpp_.value), by=gpp(abs(over)))


def _mark(c: Computed, moved: Phrase | None) -> j.Mark:
    if c.arrow.finished is None:
        return "unset"
    if moved:
        return "in_doubt"
    return "settled" if c.arrow.finished.basis == "weighed" else "estimated"


def _mass_value(c: Computed) -> j.Value:
    label = "Finished mass"
    if c.arrow.finished is None:
        return j.Value(key="arrow_mass", label=label, missing="No arrow weighed or built yet")
    sources = [recorded.source for recorded in c.arrow.finished.weighed]
    return j.Value(
        key="arrow_mass",
        label=label,
        figure=gr(c.arrow.finished.mass.value, c.arrow.finished.mass.plus_minus),
        origin=j.weakest(*sources) if sources else "estimated",
        entries=tuple(recorded.entry.id for recorded in c.arrow.finished.weighed),
    )


FLOOR_LABELS = {
    "bowyer": "Bowyer's minimum",
    "computed": "Computed floor",
    "school": "Floor of its kind",
}


def _gpp_values(c: Computed) -> list[j.Value]:
    floor = c.arrow.floor.grains_per_pound
    values = []
    finished, weight, draw = c.arrow.finished, c.bow.own_weight, c.archer.draw
    if c.arrow.gpp is None or finished is None or weight is None or draw is None:
        why = "Needs a draw length, a bow's weight and an arrow's mass"
        values.append(j.Value(key="gpp", label="Grains per pound", missing=why))
    else:
        values.append(
            j.Value(
                key="gpp",
                label="Grains per pound",
                figure=gpp(c.arrow.gpp.value, c.arrow.gpp.plus_minus),
                origin=_gpp_origin(weight, draw, _mass_value(c)),
            )
        )
    values.append(
        j.Value(
            key="floor",
            label=FLOOR_LABELS[c.arrow.floor.basis],
            figure=gpp(floor, c.arrow.floor.plus_minus or None),
            origin=c.arrow.floor.recorded.source if c.arrow.floor.recorded else "rule",
            entries=(c.arrow.floor.recorded.entry.id,) if c.arrow.floor.recorded else (),
        )
    )
    if weight is not None:
        values.append(
            j.Value(
                key="floor_mass",
                label="An arrow at the floor",
                figure=gr(floor * weight.weight.value),
                origin="rule",
            )
        )
    return values


def _gpp_origin(weight: DrawWeight, draw: Draw, mass: j.Value) -> j.Origin:
    sources: list[j.Origin] = [point.recorded.source for point in weight.points]
    sources += [reading.recorded.source for reading in draw.used]
    if weight.basis == "mark" or draw.basis == "guess":
        sources.append("estimated")
    return j.weakest(*sources, mass.origin or "estimated")


def unchecked(c: Computed) -> tuple[j.Unchecked, ...]:
    """Return what of the arrows nobody has looked at yet."""
    if c.setup.fitted.arrow_set is None and c.setup.rig is not None:
        return (j.Unchecked(what=phrase("no arrows are fitted"), before_shooting=True),)
    in_use = [arrow for arrow in c.arrow.quiver if not arrow.out_of_use]
    unseen = [arrow for arrow in in_use if arrow.safety == "not_looked"]
    left: list[j.Unchecked] = []
    if unseen:
        verb = "is" if len(unseen) == 1 else "are"
        some = f"{counted(len(unseen), 'arrow')} {verb}"
        which = "the arrows are" if len(unseen) == len(in_use) else some
        what = phrase(f"{which} not flexed and looked at")
        left.append(j.Unchecked(what=what, before_shooting=True, step=FLEX, turn=3))
    elif not in_use:
        known = c.setup.arrows != ArrowFacts(name=c.setup.arrows.name)
        what = phrase("whether the arrows are sound")
        left.append(j.Unchecked(what=what, step=FLEX if known else None, turn=3))
    left += _hand_unchecked(c, in_use)
    if c.archer.draw is not None and shaft_length(c.setup.arrows) is None:
        what = phrase("whether the arrows are long enough")
        left.append(j.Unchecked(what=what, step=LONG_ENOUGH, turn=2))
    if c.arrow.finished is None or c.arrow.finished.basis != "weighed":
        left.append(j.Unchecked(what=phrase("the arrows' mass"), step=_WEIGH_ONE))
    return tuple(left)


def _hand_unchecked(c: Computed, in_use: list[QuiverArrow]) -> list[j.Unchecked]:
    """Return what is not known where the arrow lies, or may lie, on the hand."""
    if c.nock.off_the_hand is None:
        return [j.Unchecked(what=phrase("what the arrow lies on"), step=_LIES_ON, turn=3)]
    unseen = [arrow for arrow in in_use if arrow.quill is None]
    if not c.nock.off_the_hand or not unseen:
        return []
    of = "" if len(unseen) == len(in_use) else f" of {counted(len(unseen), 'arrow')}"
    what = phrase(f"the quill ends{of} are not looked at")
    return [j.Unchecked(what=what, before_shooting=True, step=_QUILLS, turn=3)]


_LIES_ON = j.NextStep(
    title=phrase("Say what the arrow lies on"),
    why=phrase("On a shelf or a rest a lifted quill wears off; on the hand it wounds."),
    tells=phrase(""),
    minutes=1,
    action=j.Action(label="Say what it lies on", stage="nock", control="lieson"),
)
_QUILLS = j.NextStep(
    title=phrase("Run a finger over every quill's front"),
    why=phrase("The arrow lies on your hand: a quill that lifts is driven into it."),
    tells=phrase(""),
    minutes=3,
    action=j.Action(label="Look the quills over", stage="arrow", control="quiver"),
)
FLEX = j.NextStep(
    title=phrase("Flex and look at every arrow"),
    why=phrase(
        "A cracked shaft breaks on the string. Number them, flex each, and look at its ends."
    ),
    tells=phrase(""),
    minutes=5,
    action=j.Action(label="Look the arrows over", stage="arrow", control="quiver"),
)
LONG_ENOUGH = j.NextStep(
    title=phrase("Measure the shafts"),
    why=phrase("A shaft shorter than your draw falls behind the rest and breaks there."),
    tells=phrase("Length also moves the spine this rig wants, 6 % for {1 in}."),
    minutes=2,
    action=j.Action(label="Enter the shaft length", stage="arrow", control="shaft"),
    aside="shaft",
)
_WEIGH_ONE = j.NextStep(
    title=phrase("Weigh a finished arrow"),
    why=phrase("An arrow too light for its bow is half a dry fire."),
    tells=phrase("It gives grains per pound, against the lightest this bow should be given."),
    minutes=2,
    action=WEIGH_ARROW,
    aside="arrow_mass",
)


def missing(c: Computed) -> j.NextStep | None:
    """Ask for the arrow's mass."""
    if c.arrow.finished is not None:
        return None
    return _WEIGH_ONE


_THE_REST = j.NextStep(
    title=phrase("Number and weigh the rest"),
    why=phrase("All stages are settled and nothing is in doubt. The set is next."),
    tells=phrase("It shows which arrows belong together."),
    minutes=15,
    action=WEIGH_ARROW,
)
ASKS = (
    plain_ask(
        5,
        lambda setup: not setup.arrows.spine_told,
        "Enter the shafts' spine",
        "It tells whether they are stiff or weak for this rig, and how to close the gap.",
        "arrow",
        "spine",
        assumed=False,
    ),
    plain_ask(
        6,
        lambda setup: not setup.arrows.passes,
        "Measure the window",
        "It moves the spine this rig wants by about a pound per mm.",
        "arrow",
        "window",
    ),
    Ask(21, lambda _: _THE_REST),
)
