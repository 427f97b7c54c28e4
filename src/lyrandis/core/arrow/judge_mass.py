"""Judging the arrow: grains per pound against the floor, mass, parts and length."""

import math
from dataclasses import replace
from functools import partial
from typing import Literal

from lyrandis.core import judgement as j
from lyrandis.core.archer.draw import draw_to_pivot
from lyrandis.core.arrow.mass import (
    DANGER_GPP,
    MEND_OVER_DANGER_GPP,
    NEVER_GOOD_GPP,
    SCALE_SD_GR,
    STATIC_DANGER_UNDER_GPP,
    UNDER_TOLD_GPP,
    ArrowMass,
    Floor,
    grains_per_pound,
    shaft_length,
)
from lyrandis.core.bow.judge_weight import WEIGH
from lyrandis.core.bow.schools import band_words
from lyrandis.core.bow.thrust import FLOOR_TIMES, USUAL_WEIGHT_LBF
from lyrandis.core.bow.weight import DrawWeight
from lyrandis.core.computed import Computed
from lyrandis.core.constants import MARKED_DRAW_MM, MM_PER_IN
from lyrandis.core.estimate import Estimate
from lyrandis.core.phrase import Phrase, gpp, gr, joules, lbf, mm, phrase

MASS_SPREAD_TO_WATCH = 0.03
MASS_SPREAD_TO_MEND = 0.06
"""Heaviest less lightest, as a share of the mean. Lyrandis convention."""
LEAST_BEYOND_PIVOT_MM = MM_PER_IN
REFUSED_BEYOND_MM = MM_PER_IN / 2

KNOWN_WEIGHT_SHARE = 0.08
"""Draw weights vaguer than this refuse no arrow."""
FIT_INDEX = -1.0
"""A shaft of this index or stiffer takes up what a light arrow leaves."""
_DANGER_WORDS = ", ".join(
    f"{line:g} gr/lb ({family.replace('_', ' ')})" for family, line in DANGER_GPP.items()
)

RULES: tuple[j.Rule, ...] = (
    j.Rule(
        id="arrow-floor",
        stage="arrow",
        also=("bow",),
        title="Grains per pound and the floor",
        statement="Grains per pound is the finished arrow's mass over the draw weight at your "
        "own full draw. The bowyer's minimum is the floor. Without one it is computed: "
        f"{FLOOR_TIMES:g} times the virtual mass of a bow of this kind, length and draw that "
        f"weighs {USUAL_WEIGHT_LBF:g} lb at {MARKED_DRAW_MM / MM_PER_IN:g} in, per pound, held "
        f"inside what the trade allows the kind: target recurves {band_words('target_recurve')}, "
        f"selfbows {band_words('selfbow')}, longbows and hunting recurves "
        f"{band_words('hunting_recurve')}, static tips {band_words('short_rigid_tip')} short, "
        f"{band_words('long_rigid_tip')} long, {band_words('large_rigid_tip')} large. The "
        "lightest arrow of the set is judged. Danger and economy are two lines. A told least: at "
        f"it or over is Good, more than {UNDER_TOLD_GPP:g} gr/lb under it Stop, between them Watch "
        "with a shaft of its match or stiffer, else Mend. Where nobody told one, "
        f"Stop is under {_DANGER_WORDS}, for static tips {STATIC_DANGER_UNDER_GPP:g} under the "
        f"floor, after the ± of grains per pound; to {MEND_OVER_DANGER_GPP:g} above that Mend; "
        "under the floor Watch, for that costs energy, not the bow. Only weighed arrows on a bow "
        f"of known kind whose weight is known to {100 * KNOWN_WEIGHT_SHARE:.0f} % are more than "
        f"Watch. Nothing under {NEVER_GOOD_GPP:g} gr/lb is ever Good.",
        school="Maker's limit, else mechanics inside the trade's band",
        source="The bowyer's word decides. The computed floor leaves a constant share of the "
        "energy behind, good to a grain per pound; the bands are sayings of the trade.",
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
        statement=f"Heaviest less lightest over the mean: past {100 * MASS_SPREAD_TO_WATCH:.0f} "
        f"% is Watch, past {100 * MASS_SPREAD_TO_MEND:.0f} % is Mend.",
        school="Lyrandis convention",
        source="A convention; tighter is better for far targets.",
    ),
    j.Rule(
        id="arrow-parts",
        stage="arrow",
        title="Parts and scale should agree",
        statement="Where all parts are known, their sum should meet the scale within its ±. What "
        "is left over is unexplained. Three tenths apart and beyond the ±, with shaft and point "
        "given, they cannot be the same arrow: Mend.",
        school="Measuring practice",
        source="Sum of masses.",
    ),
    j.Rule(
        id="arrow-length",
        stage="arrow",
        title="The arrow must reach past the rest",
        statement="A shaft that does not reach past the true draw to the pivot by the ± of a "
        "measured draw, or by 1/2 in, can fall behind the rest at full draw: Stop. Less than "
        "1 in is Mend. "
        "Where the draw is only a guess and its ± leaves it open, mark the draw first (Watch).",
        school="Safety",
        source="Geometry of the drawn arrow; what it must reach past is Lyrandis's own convention.",
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
_finding = partial(j.found, "arrow")


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
    light, floor = lightest_gpp(finished, weight), c.arrow.floor
    known = mass_is_known(c)
    severity = floor_severity(light, floor, known=known, fit=_fit(c))
    least = floor.grains_per_pound
    needed = (
        least if floor.told or severity == "watch" else _mended_from(floor)
    ) * weight.weight.value
    lightest = finished.heaviest_gr > finished.lightest_gr
    which = "The lightest arrow, {mass}," if lightest else "{mass}"
    text = f"{which} on {{weight}} is {{gpp}}" + _floor_text(light.value, floor, severity, known)
    figures = {
        "mass": gr(finished.lightest_gr),
        "weight": lbf(weight.weight.value),
        "gpp": gpp(light.value, light.plus_minus),
        "floor": gpp(least),
        "danger": gpp(floor.danger),
        "needed": gr(needed),
        "energy": joules(_kept_more(c, finished.lightest_gr, least * weight.weight.value)),
    }
    action = None
    if severity == "watch" and not known:
        action = WEIGH_ARROW if finished.basis != "weighed" else WEIGH
    elif severity in ("stop", "mend") or (severity == "watch" and floor.told):
        point = needed - finished.lightest_gr <= MOST_FROM_POINT_GR and not _weak(c)
        action = _HEAVIER if point else WEIGH_HEAVIER
    elif severity == "watch" and not floor.told:
        action = ASK_BOWYER
    return [
        _finding(
            "arrow-floor",
            severity,
            phrase(text, **{k: v for k, v in figures.items() if f"{{{k}}}" in text}),
            floor_sum(c, finished, weight),
            action,
            title="These arrows are too light",
        )
    ]


def _floor_text(light_gpp: float, floor: Floor, severity: j.Severity, known: bool) -> str:
    """Return what follows the arrow's own grains per pound."""
    whose = _WHOSE[floor.basis]
    if severity == "good":
        return f", at or above the {whose}, {{floor}}."
    if severity == "stop":
        limit = f"the {whose}, {{floor}}" if floor.told else "{danger}, where this kind is refused"
        return f": too far under {limit}. Do not shoot it. It wants {{needed}} or more."
    if severity == "mend":
        if floor.told:
            return f", under the {whose}, {{floor}}. It wants {{needed}} or more."
        near = "under" if round(light_gpp, 1) < round(floor.danger, 1) else "close to"
        return f", {near} {{danger}}, where this kind is refused. It wants {{needed}} or more."
    if round(light_gpp, 1) >= round(floor.grains_per_pound, 1):
        return ": under 6 gr/lb nothing is good, whoever allows it."
    if not known and light_gpp < _mended_from(floor):
        return f", under the {whose}, {{floor}}. Not yet for sure: weigh arrow and bow first."
    if floor.told:
        return f", a little under the {whose}, {{floor}}: tolerated with a stiff enough shaft."
    return (
        f", under the {whose}, {{floor}}: the bow keeps {{energy}} more than it need. Heavier is "
        "quieter and kinder."
    )


def _mended_from(floor: Floor) -> float:
    """Return grains per pound from which an arrow is not sent to be made heavier."""
    return floor.grains_per_pound if floor.told else floor.danger + MEND_OVER_DANGER_GPP


def _kept_more(c: Computed, mass_gr: float, floor_gr: float) -> float:
    """Return the energy the bow keeps beyond what it keeps with an arrow at its floor [J]."""
    thrust = c.bow.thrust
    return thrust.left_behind(mass_gr) - thrust.left_behind(floor_gr) if thrust else 0.0


def mass_is_known(c: Computed) -> bool:
    """Return whether arrow, bow's weight and kind are known: else no arrow is refused.

    Source: `KNOWN_WEIGHT_SHARE`; what nobody measured never says Stop.

    >>> from lyrandis.core.example import rig
    >>> mass_is_known(rig()), mass_is_known(rig(["draw 28", "mark 40", "arrow about 400gr"]))
    (True, False)
    """
    finished, weight = c.arrow.finished, c.bow.own_weight
    if finished is None or weight is None or finished.basis != "weighed":
        return False
    if c.setup.bow.family is None and not c.arrow.floor.told:
        return False
    return weight.weight.plus_minus <= KNOWN_WEIGHT_SHARE * weight.weight.value


def _fit(c: Computed) -> bool:
    """Return whether the shafts are told, and of their match or stiffer."""
    match, shooting = c.match, c.arrow.shooting
    if match is None or shooting is None or shooting.own_lbf is None:
        return False
    own = shooting.own_lbf
    return match.index(own) >= FIT_INDEX or match.word(own) == "matched"


_WHOSE = {
    "bowyer": "bowyer's minimum",
    "computed": "computed floor of this bow",
    "school": "floor of this kind of bow",
}


def _weak(c: Computed) -> bool:
    """Return whether the shafts are weak: a heavier point would make them act weaker still."""
    match, shooting = c.match, c.arrow.shooting
    if match is None or shooting is None or shooting.own_lbf is None:
        return False
    index = match.index(shooting.own_lbf)
    return index < 0 and match.word(shooting.own_lbf) != "matched"


def floor_severity(light: Estimate, floor: Floor, *, known: bool, fit: bool) -> j.Severity:
    """Return how grains per pound stand against danger and economy.

    Compared as they are said, to a tenth: a last bit of a division is no finding. `known`: arrow
    and weight were measured; `fit`: the shaft is of its match or stiffer.

    Source: docs/MECHANICS.md, danger and economy; the bowyer's or maker's word goes first.

    >>> from lyrandis.core.example import rig
    >>> floor = rig().arrow.floor
    >>> told = {"known": True, "fit": True}
    >>> [floor_severity(Estimate(gpp, 0.0), floor, **told) for gpp in (5.2, 6.2, 6.9, 9.6)]
    ['stop', 'mend', 'watch', 'good']
    """
    said, least = round(light.value, 1), round(floor.grains_per_pound, 1)
    severity: j.Severity
    if said >= least:
        severity = "good" if said >= NEVER_GOOD_GPP else "watch"
    elif floor.told:
        under = said < round(floor.danger, 1)
        severity = "stop" if under else "watch" if fit else "mend"
    else:
        severity = "watch"
    if not floor.told:
        surely = light.value + light.plus_minus
        if surely < floor.danger:
            severity = "stop"
        elif light.value < floor.danger or surely < floor.danger + MEND_OVER_DANGER_GPP:
            severity = "mend"
    return severity if known or severity == "good" else "watch"


def floor_sum(c: Computed, finished: ArrowMass, weight: DrawWeight) -> tuple[Phrase, ...]:
    """Return the lines from the lightest arrow and the weight to the floor it stands against."""
    light = lightest_gpp(finished, weight)
    floor = c.arrow.floor
    margin = light.value - floor.grains_per_pound
    computed = floor.computed
    says = gpp(computed.per_pound.value, computed.per_pound.plus_minus)
    low, high = floor.band
    lines = [
        phrase(
            f"A usual bow of its kind: {FLOOR_TIMES:g} × its virtual mass, {{mass}}, ÷ {{usual}} = "
            "{computed}.",
            mass=gr(computed.virtual_mass_gr),
            usual=lbf(computed.weight_lbf),
            computed=says,
        ),
        phrase("The trade allows this kind {low} to {high}.", low=gpp(low), high=gpp(high)),
    ]
    binds = {
        "bowyer": "The bowyer's word binds: {floor}.",
        "computed": "The computed one lies inside and binds: {floor}.",
        "school": "The computed one lies outside; the end of the band binds: {floor}.",
    }[floor.basis]
    return (
        phrase(
            "{mass} ÷ {weight} = {gpp}.",
            mass=gr(finished.lightest_gr),
            weight=lbf(weight.weight.value, weight.weight.plus_minus),
            gpp=gpp(light.value, light.plus_minus),
        ),
        *lines,
        phrase(binds, floor=gpp(floor.grains_per_pound)),
        phrase(
            "Stop begins at {stop}."
            if round(abs(margin), 1) == 0
            else f"{{margin}} {'above' if margin > 0 else 'under'} it; Stop begins at {{stop}}.",
            **({} if round(abs(margin), 1) == 0 else {"margin": gpp(abs(margin))}),
            stop=gpp(floor.danger),
        ),
    )


def _judge_mass(c: Computed) -> list[j.Finding]:
    finished = c.arrow.finished
    if finished is None:
        return []
    mass = gr(finished.mass.value, finished.mass.plus_minus)
    if finished.stale is not None:
        return [
            _finding(
                "arrow-changed",
                "watch",
                phrase(
                    "Parts changed since these arrows were weighed: by the sum they are {mass} "
                    "now. Weigh one to be sure.",
                    mass=mass,
                ),
                mass_sum(finished),
                WEIGH_ARROW,
                rule="arrow-mass",
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
        _finding(
            "arrow-not-weighed",
            "watch",
            phrase(f"{{mass}} is {how}. A grain scale settles it.", mass=mass),
            mass_sum(finished),
            WEIGH_ARROW,
            rule="arrow-mass",
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
    if share > MASS_SPREAD_TO_WATCH:
        severity = "mend" if share > MASS_SPREAD_TO_MEND else "watch"
    count = len(finished.weighed)
    advice = "" if severity == "good" else " Set the odd ones aside."
    return [
        _finding(
            "arrow-spread",
            severity,
            phrase(
                f"{count} arrows within {{spread}}, {share:.1%} of their mass.{advice}",
                spread=gr(spread),
            ),
            mass_sum(finished),
            (
                None
                if severity == "good"
                else j.Action(label="Look at the arrows", stage="arrow", control="masses")
            ),
        )
    ]


def _wildly_off(arrow: ArrowMass, parts: Estimate) -> j.Finding:
    """Question a scale and parts that cannot be the same arrow."""
    return _finding(
        "arrow-parts",
        "mend",
        phrase(
            "Parts add up to {parts}, the scale says {scale}. They cannot be the same arrow: "
            "one of them was typed or read wrong.",
            parts=gr(parts.value, parts.plus_minus),
            scale=gr(arrow.mass.value),
        ),
        mass_sum(replace(arrow, weighed=())),
        j.Action(label="Look at the parts", stage="arrow", control="shaft"),
    )


def _judge_parts(c: Computed) -> list[j.Finding]:
    arrow = c.arrow.finished
    if arrow is None or arrow.basis != "weighed" or arrow.parts_mass is None or arrow.stale:
        return []
    gap = arrow.mass.value - arrow.parts_mass.value
    explained = 2 * (arrow.mass.sd**2 + arrow.parts_mass.sd**2) ** 0.5
    given = {part.name for part in arrow.parts if part.given}
    told = {"shaft", "point"} <= given
    if told and abs(gap) > max(WILD * arrow.parts_mass.value, explained):
        return [_wildly_off(arrow, arrow.parts_mass)]
    if not all(part.given or part.mass.value == 0 for part in arrow.parts):
        return []
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
        _finding(
            "arrow-parts",
            "good" if agrees else "watch",
            phrase(text, **figures),
            tuple(
                phrase(f"{part.name.capitalize()} {{mass}}.", mass=gr(part.mass.value))
                for part in arrow.parts
                if part.mass.value
            ),
            (
                None
                if agrees
                else j.Action(label="Look at the parts", stage="arrow", control="shaft")
            ),
        )
    ]


_LENGTH_TEXTS = {
    "stop": "A {length} shaft is {beyond} shorter than your draw to the pivot, {pivot}. It can "
    "fall behind the rest: do not draw it.",
    "mend": "A {length} shaft reaches only {beyond} past your draw to the pivot, {pivot}.",
    "watch": "A {length} shaft may fall behind the rest: your draw to the pivot is only known as "
    "{pivot}. Mark the draw on a long arrow first.",
}


def length_severity(beyond: Estimate, *, marked: bool) -> Literal["stop", "mend", "watch"] | None:
    """Return how a shaft is judged that reaches `beyond` [mm] the draw to the pivot.

    `marked` says that the draw was marked on an arrow: its ± is then believed.

    >>> guess, measured = Estimate(10.0, 20.0), Estimate(20.0, 3.0)
    >>> length_severity(guess, marked=False), length_severity(measured, marked=True)
    ('watch', 'mend')
    """
    open_still = beyond.value - beyond.plus_minus < 0
    if open_still and not marked and beyond.value + beyond.plus_minus > 0:
        return "watch"
    if open_still or (marked and beyond.value < REFUSED_BEYOND_MM):
        return "stop"
    return "mend" if beyond.value < LEAST_BEYOND_PIVOT_MM else None


_MARK_DRAW = j.Action(label="Mark the draw", stage="archer", control="draw")


def _judge_length(c: Computed) -> list[j.Finding]:
    shaft = shaft_length(c.setup.arrows)
    if shaft is None or c.archer.draw is None:
        return []
    draw = c.archer.draw.length
    pivot = draw_to_pivot(draw.value, "trade", c.setup.archer).value
    beyond = Estimate(shaft.value - pivot, math.hypot(shaft.sd, draw.sd))
    severity = length_severity(beyond, marked=c.archer.draw.basis == "direct")
    if severity is None:
        return []
    text = _LENGTH_TEXTS[severity]
    if severity == "stop" and beyond.value >= 0:
        text = (
            "A {length} shaft reaches only {beyond} past your draw to the pivot, {pivot}. It can "
            "fall behind the rest: do not draw it."
        )
    figures = {
        "length": mm(shaft.value),
        "pivot": mm(pivot, draw.plus_minus),
        "beyond": mm(abs(beyond.value)),
    }
    spread = {**figures, "beyond": mm(abs(beyond.value), beyond.plus_minus)}
    return [
        _finding(
            "arrow-length",
            severity,
            phrase(text, **figures),
            (
                phrase("{pivot} to the pivot less {length} is {beyond} short.", **spread)
                if beyond.value < 0
                else phrase("{length} less {pivot} to the pivot leaves {beyond}.", **spread),
            ),
            (
                _MARK_DRAW
                if severity == "watch"
                else j.Action(label="Enter the shaft length", stage="arrow", control="shaft")
            ),
            title="These arrows are too short",
            before_shooting=severity == "watch",
        )
    ]
