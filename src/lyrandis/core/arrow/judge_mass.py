"""Judging the arrow: grains per pound against the floor, mass, parts and length."""

import math
from dataclasses import replace

from lyrandis.core import judgement as j
from lyrandis.core.archer.draw import to_pivot
from lyrandis.core.arrow.mass import (
    BY_TRADITION,
    SCALE_SD_GR,
    ArrowMass,
    grains_per_pound,
    shaft_length,
)
from lyrandis.core.bow.thrust import floor_times
from lyrandis.core.bow.weight import DrawWeight
from lyrandis.core.computed import Computed
from lyrandis.core.constants import MM_PER_IN
from lyrandis.core.estimate import Estimate
from lyrandis.core.phrase import Phrase, gpp, gr, lbf, mm, phrase

SPREAD_TO_WATCH = 0.03
SPREAD_TO_MEND = 0.06
"""Heaviest less lightest, as a share of the mean. Lyrandis convention."""
LEAST_BEYOND_PIVOT_MM = MM_PER_IN

RULES: tuple[j.Rule, ...] = (
    j.Rule(
        id="arrow-floor",
        stage="arrow",
        title="Grains per pound and the floor",
        statement="Grains per pound is the finished arrow's mass over the draw weight at your own "
        "full draw. The bowyer's minimum is the floor; without one, the mass that still takes 81 % "
        "of the energy coming back: 4.2 times the bow's virtual mass, less for bows storing under "
        "50 J, good to about one grain per pound. The lightest arrow of the set is judged. "
        "Under the floor is Mend; reaching under it within the ± is Watch. Stop begins half a "
        "grain under a bowyer's word and a whole one, its error, under a computed floor; for "
        "straight limbs half a grain under what tradition allows, a fifth less.",
        school="Maker's limit, else the computed floor",
        source="The bowyer's word decides. The computed floor leaves a constant share of the "
        "energy behind. By tradition all-natural, solid-glass and plain straight limbs take a "
        "fifth less: a school, not mechanics.",
    ),
    j.Rule(
        id="arrow-mass",
        stage="arrow",
        title="Weigh the finished arrow",
        statement="A weighed arrow outranks its parts and hearsay. Parts that nobody gave are "
        "taken at usual values with a wide ±.",
        school="Measuring practice",
        source="Usual part masses and their ± are Lyrandis's own assumptions.",
    ),
    j.Rule(
        id="arrow-spread",
        stage="arrow",
        title="A set of one mass",
        statement="Heaviest less lightest over the mean: past 3 % is Watch, past 6 % is Mend.",
        school="Lyrandis convention",
        source="A convention; tighter is better for far targets.",
    ),
    j.Rule(
        id="arrow-parts",
        stage="arrow",
        title="Parts and scale should agree",
        statement="Where all parts are known, their sum should meet the scale within its ±. What "
        "is left over is unexplained. Three tenths apart they cannot be the same arrow: Mend.",
        school="Measuring practice",
        source="Sum of masses.",
    ),
    j.Rule(
        id="arrow-length",
        stage="arrow",
        title="The arrow must reach past the rest",
        statement="A shaft shorter than the true draw to the pivot can fall behind the rest at "
        "full draw: Stop. Less than an inch beyond it is Mend. Where the ± of draw and shaft "
        "leaves open whether it reaches, that is said (Watch): measure the draw.",
        school="Safety",
        source="Geometry of the drawn arrow; the inch is Lyrandis's own convention.",
    ),
)


WEIGH_ARROW = j.Action(label="Weigh an arrow", stage="arrow", control="arrow")
WEIGH_HEAVIER = j.Action(label="Weigh a heavier arrow", stage="arrow", control="arrow")
ASK_BOWYER = j.Action(label="Ask the bowyer", stage="bow", control="floor")
"""Under a floor that only the mechanics set, the bowyer's word is the cheapest next thing."""
MOST_FROM_POINT_GR = 60.0
"""Beyond this a heavier point is no cure: it needs a heavier shaft."""
WILD = 0.3
"""Parts and scale further apart than this share cannot be the same arrow."""
_HEAVIER = j.Action(label="Try a heavier point", stage="arrow", control="point")


def judge(c: Computed) -> list[j.Finding]:
    """Return the findings on the arrow."""
    return [
        *_judge_length(c),
        *_judge_floor(c),
        *_judge_mass(c),
        *_judge_spread(c),
        *_judge_parts(c),
    ]


def lightest_gpp(finished: ArrowMass, weight: DrawWeight) -> Estimate:
    """Return grains per pound of the lightest arrow: the one that could hurt."""
    sd = SCALE_SD_GR if finished.basis == "weighed" else finished.mass.sd
    return grains_per_pound(Estimate(finished.lightest_gr, sd), weight.weight)


def _judge_floor(c: Computed) -> list[j.Finding]:
    finished, weight = c.arrow.finished, c.bow.own_weight
    if finished is None or weight is None:
        return []
    light = lightest_gpp(finished, weight)
    floor = c.arrow.floor.grains_per_pound
    severity = floor_severity(light, floor, c.arrow.floor.stop_below)
    needed = floor * weight.weight.value
    whose = "bowyer's minimum" if c.arrow.floor.basis == "bowyer" else "computed floor of this bow"
    lightest = finished.heaviest_gr > finished.lightest_gr
    which = "The lightest arrow, {mass}," if lightest else "{mass}"
    texts = {
        "stop": f"{which} on {{weight}} is {{gpp}}: too far under the {whose}, {{floor}}. "
        "Do not shoot it. It wants {needed} or more.",
        "mend": f"{which} on {{weight}} is {{gpp}}, under the {whose}, {{floor}}. "
        "It wants {needed} or more.",
        "watch": f"{which} on {{weight}} is {{gpp}}. The ± reaches under the {whose}, {{floor}}.",
        "good": f"{which} on {{weight}} is {{gpp}}, above the {whose}, {{floor}}.",
    }
    figures = {
        "mass": gr(finished.lightest_gr),
        "weight": lbf(weight.weight.value),
        "gpp": gpp(light.value, light.plus_minus),
        "floor": gpp(floor),
        "needed": gr(needed),
    }
    action = None
    if severity == "mend" and c.arrow.floor.basis == "computed":
        action = ASK_BOWYER
    elif severity in ("stop", "mend"):
        short_gr = needed - finished.lightest_gr
        action = _HEAVIER if short_gr <= MOST_FROM_POINT_GR else WEIGH_HEAVIER
    elif severity == "watch":
        action = WEIGH_ARROW if finished.basis != "weighed" else None
    return [
        j.Finding(
            id="arrow-floor",
            stage="arrow",
            title="These arrows are too light",
            severity=severity,
            sentence=phrase(texts[severity], **figures),
            sum=floor_sum(c, finished, weight),
            rule="arrow-floor",
            action=action,
        )
    ]


def floor_severity(light: Estimate, floor: float, stop_below: float) -> j.Severity:
    """Return how grains per pound stand against the floor.

    >>> [floor_severity(Estimate(g, 0.1), 9.0, 8.5) for g in (8.4, 8.6, 9.1, 9.5)]
    ['stop', 'mend', 'watch', 'good']
    """
    if light.value < stop_below:
        return "stop"
    if light.value < floor:
        return "mend"
    return "watch" if light.value - light.plus_minus < floor else "good"


def floor_sum(c: Computed, finished: ArrowMass, weight: DrawWeight) -> tuple[Phrase, ...]:
    """Return the lines from the lightest arrow and the weight to the floor it stands against."""
    light = lightest_gpp(finished, weight)
    margin = light.value - c.arrow.floor.grains_per_pound
    computed = gpp(c.arrow.floor.computed.value, c.arrow.floor.computed.plus_minus)
    floors = [
        phrase(
            f"Floor {{floor}}: {floor_times(c.bow.thrust.stored_j.value):.1f} × the bow's virtual "
            "mass, {mass}, per pound.",
            floor=computed,
            mass=gr(c.bow.thrust.virtual_mass_gr),
        )
        if c.bow.thrust
        else phrase("Computed floor {floor}.", floor=computed)
    ]
    if c.arrow.floor.basis == "bowyer":
        floors = [
            phrase("Floor {floor}, from the bowyer.", floor=gpp(c.arrow.floor.grains_per_pound)),
            phrase("The mechanics alone would say {floor}.", floor=computed),
        ]
    elif c.arrow.floor.straight:
        less = gpp(BY_TRADITION * c.arrow.floor.computed.value)
        floors.append(phrase("Straight limbs by tradition take {less}, a school.", less=less))
    return (
        phrase(
            "{mass} ÷ {weight} = {gpp}.",
            mass=gr(finished.lightest_gr),
            weight=lbf(weight.weight.value, weight.weight.plus_minus),
            gpp=gpp(light.value, light.plus_minus),
        ),
        *floors,
        phrase(
            f"{{margin}} {'above' if margin >= 0 else 'under'} it; Stop begins at {{stop}}.",
            margin=gpp(abs(margin)),
            stop=gpp(c.arrow.floor.stop_below),
        ),
    )


def _judge_mass(c: Computed) -> list[j.Finding]:
    finished = c.arrow.finished
    if finished is None:
        return []
    mass = gr(finished.mass.value, finished.mass.plus_minus)
    if finished.stale is not None:
        return [
            j.Finding(
                id="arrow-changed",
                stage="arrow",
                severity="mend",
                sentence=phrase(
                    "Parts changed after these arrows weighed {mass}. Weigh again.", mass=mass
                ),
                sum=mass_sum(finished),
                rule="arrow-mass",
                action=WEIGH_ARROW,
            )
        ]
    if finished.basis == "weighed":
        return []
    how = {
        "parts": "added up from the parts",
        "told": "hearsay",
        "estimated": "supposed",
    }[finished.basis]
    return [
        j.Finding(
            id="arrow-not-weighed",
            stage="arrow",
            severity="watch",
            sentence=phrase(f"{{mass}} is {how}. A grain scale settles it.", mass=mass),
            sum=mass_sum(finished),
            rule="arrow-mass",
            action=WEIGH_ARROW,
        )
    ]


def mass_sum(arrow: ArrowMass) -> tuple[Phrase, ...]:
    if arrow.weighed:
        masses = sorted(m.reading.arrow_mass_gr for m in arrow.weighed)
        return (
            phrase(
                f"Mean of {len(masses)}: {{mass}}, from {{low}} to {{high}}.",
                mass=gr(arrow.mass.value, arrow.mass.plus_minus),
                low=gr(masses[0]),
                high=gr(masses[-1]),
            ),
        )
    lines = tuple(
        phrase(
            f"{part.name.capitalize()} {{mass}}{'' if part.given else ', usual value'}.",
            mass=gr(part.mass.value, part.mass.plus_minus),
        )
        for part in arrow.parts
        if part.mass.value or part.given
    )
    return (*lines, phrase("Together {mass}.", mass=gr(arrow.mass.value, arrow.mass.plus_minus)))


def _judge_spread(c: Computed) -> list[j.Finding]:
    finished = c.arrow.finished
    if finished is None or len(finished.weighed) < 2 or finished.stale is not None:
        return []
    spread = finished.heaviest_gr - finished.lightest_gr
    share = spread / finished.mass.value
    severity: j.Severity = "good"
    if share > SPREAD_TO_WATCH:
        severity = "mend" if share > SPREAD_TO_MEND else "watch"
    count = len(finished.weighed)
    advice = "" if severity == "good" else " Set the odd ones aside."
    return [
        j.Finding(
            id="arrow-spread",
            stage="arrow",
            severity=severity,
            sentence=phrase(
                f"{count} arrows within {{spread}}, {share:.1%} of their mass.{advice}",
                spread=gr(spread),
            ),
            sum=mass_sum(finished),
            rule="arrow-spread",
            action=None
            if severity == "good"
            else j.Action(label="Look at the arrows", stage="arrow", control="masses"),
        )
    ]


def _wildly_off(arrow: ArrowMass, parts: Estimate) -> j.Finding:
    """Question a scale and parts that cannot be the same arrow."""
    return j.Finding(
        id="arrow-parts",
        stage="arrow",
        severity="mend",
        sentence=phrase(
            "Parts add up to {parts}, the scale says {scale}. They cannot be the same arrow: "
            "one of them was typed or read wrong.",
            parts=gr(parts.value, parts.plus_minus),
            scale=gr(arrow.mass.value),
        ),
        sum=mass_sum(replace(arrow, weighed=())),
        rule="arrow-parts",
        action=j.Action(label="Look at the parts", stage="arrow", control="shaft"),
    )


def _judge_parts(c: Computed) -> list[j.Finding]:
    arrow = c.arrow.finished
    if arrow is None or arrow.basis != "weighed" or arrow.parts_mass is None or arrow.stale:
        return []
    gap = arrow.mass.value - arrow.parts_mass.value
    if abs(gap) > WILD * arrow.parts_mass.value:
        return [_wildly_off(arrow, arrow.parts_mass)]
    if not all(part.given or part.mass.value == 0 for part in arrow.parts):
        return []
    explained = 2 * (arrow.mass.sd**2 + arrow.parts_mass.sd**2) ** 0.5
    agrees = abs(gap) <= explained
    figures = {
        "parts": gr(arrow.parts_mass.value, arrow.parts_mass.plus_minus),
        "scale": gr(arrow.mass.value),
        "gap": gr(abs(gap)),
    }
    text = (
        "Parts add up to {parts}, the scale says {scale}."
        if agrees
        else "Parts add up to {parts}, the scale says {scale}: {gap} unexplained."
    )
    return [
        j.Finding(
            id="arrow-parts",
            stage="arrow",
            severity="good" if agrees else "watch",
            sentence=phrase(text, **figures),
            sum=tuple(
                phrase(f"{part.name.capitalize()} {{mass}}.", mass=gr(part.mass.value))
                for part in arrow.parts
                if part.mass.value
            ),
            rule="arrow-parts",
            action=None
            if agrees
            else j.Action(label="Look at the parts", stage="arrow", control="shaft"),
        )
    ]


_MARK_DRAW = j.Action(label="Measure the draw", stage="archer", control="draw")


def _judge_length(c: Computed) -> list[j.Finding]:
    shaft = shaft_length(c.setup.arrows)
    if shaft is None or c.archer.draw is None:
        return []
    draw = c.archer.draw.length
    pivot = to_pivot(draw.value, "trade", c.setup.archer).value
    beyond = Estimate(shaft.value - pivot, math.hypot(shaft.sd, draw.sd))
    open_still = abs(beyond.value) < beyond.plus_minus
    if beyond.value < 0:
        severity: j.Severity = "stop"
        text = (
            "A {length} shaft may be shorter than your draw to the pivot, {pivot}, and fall behind "
            "the rest: do not draw it fully before the draw is measured."
            if open_still
            else "A {length} shaft is {beyond} shorter than your draw to the pivot, {pivot}. "
            "It can fall behind the rest: do not draw it."
        )
    elif beyond.value < LEAST_BEYOND_PIVOT_MM:
        severity = "mend"
        text = "A {length} shaft reaches only {beyond} past your draw to the pivot, {pivot}."
    elif open_still:
        severity = "watch"
        text = (
            "A {length} shaft may be short: your draw to the pivot, {pivot}, is not known closer."
        )
    else:
        return []
    figures = {
        "length": mm(shaft.value),
        "pivot": mm(pivot, draw.plus_minus),
        "beyond": mm(abs(beyond.value)),
    }
    spread = {**figures, "beyond": mm(abs(beyond.value), beyond.plus_minus)}
    return [
        j.Finding(
            id="arrow-length",
            stage="arrow",
            title="These arrows may be too short" if open_still else "These arrows are too short",
            severity=severity,
            sentence=phrase(text, **figures),
            sum=(
                phrase("{pivot} to the pivot less {length} is {beyond} short.", **spread)
                if beyond.value < 0
                else phrase("{length} less {pivot} to the pivot leaves {beyond}.", **spread),
            ),
            rule="arrow-length",
            action=_MARK_DRAW
            if open_still
            else j.Action(label="Enter the shaft length", stage="arrow", control="shaft"),
        )
    ]
