"""Judging the nock's height, the tiller, what stands in line, and riser weights."""

from functools import partial

from lyrandis.core import judgement as j
from lyrandis.core.archer.words import HOLD_WORDS, Hold
from lyrandis.core.arrow.shooting import outward_is_left
from lyrandis.core.bow.two_limbs import (
    EXTRA_DRAW,
    HOOK_UNDER_NOCK_MM,
    NOCK_OVER_MIDDLE_MM,
    crawl_draw,
)
from lyrandis.core.computed import Computed
from lyrandis.core.nock.fit import FAR_MM, LOOSE_MM, TIGHT_MM, fit_of, slack_of
from lyrandis.core.nock.height import HEIGHT_PER_CRAWL, START_MM
from lyrandis.core.nock.riser_weights import DOWN_MM, NEAR_ROOT_G, NEAR_ROOT_MM
from lyrandis.core.nock.tiller import (
    BANDS_MM,
    MEND_MM,
    NEAR_EVEN_MM,
    WALKING_MM,
    WATCH_MM,
    tiller_word,
    turn_effect,
)
from lyrandis.core.phrase import count, gap, mm, phrase
from lyrandis.core.string.strands import served_diameter

IN_LINE_MM = 1.0
"""A string this far off the middle of a limb's root is in line. Convention."""
FAR_OUT_OF_LINE_MM = 3.0
CENTRE_RADII = (0.0, 1.0)
"""Assumption: with a plunger the point stands outside the string's line by so many shaft radii."""
BOLTS_KEEP = 0.5
"""Turns short of the maker's most from which bolts are warned of."""


def _start(hold: Hold) -> str:
    start, low, high = START_MM[hold]
    return f"{start:g}{' mm' * (hold == 'split')} ({low:g} to {high:g})"


def _band(hold: Hold) -> str:
    _, low, high = BANDS_MM[hold]
    return f"{low:g} to {'+' * (low < 0)}{high:g}"


MISREAD_MM = 6.0
"""Assumption: a setting so far outside all that is usual was misread."""

RULES: tuple[j.Rule, ...] = (
    j.Rule(
        id="nock-height",
        stage="nock",
        title="Nock height",
        statement="The lift is the underside of the arrow at the string over square. A start: "
        f"split {_start('split')}, three under {_start('three_under')}, thumb {_start('thumb')}, "
        f"and {HEIGHT_PER_CRAWL:g} mm more per mm of crawl, at most an arrow's width. It is a "
        "place to begin searching: flight finds it. A height that is fixed is not overwritten.",
        school="Habit of the trade; found by flight",
        source="No honest mechanics gives the best height: the upright shot is not calibrated.",
    ),
    j.Rule(
        id="nock-schools",
        stage="nock",
        title="Schools of nock height",
        statement="Low as clean: the lowest that does not bounce. Bare shaft: bare level with "
        "fletched. Start high, come down. Lyrandis goes by the bare shaft, and by low as clean "
        "where bare shafts are not shot.",
        school="Schools of the trade, side by side",
        source="A bare shaft above the fletched means the nock is too low.",
    ),
    j.Rule(
        id="nock-fit",
        stage="nock",
        title="The arrow's nock on the serving",
        statement="The served string is its bundle and two walls of thread, flattened to 0.8. A "
        f"groove to {LOOSE_MM:g} mm wider clips on and falls at a tap, to {TIGHT_MM:g} mm narrower "
        "springs over it: Good. Beyond that and the ± is Watch, "
        f"{FAR_MM:g} mm beyond it Mend: the nock splits, or drops off the string at full draw.",
        school="Practice of the trade; some who shoot by the thumb want it to hang loose",
        source="A nock that drops off is a dry fire; one that clings pulls the string aside.",
    ),
    j.Rule(
        id="hand-clearance",
        stage="nock",
        title="Clearance over the hand",
        statement="Where the arrow lies on the hand, its tail passes over it by the lift, plus how "
        "far the grip's mark lies under the square line, less how far the hand stands over the "
        "mark at full draw. Nothing or more is Good. Under nothing is Watch, and Mend where the "
        "hand was watched and it lies under nothing by more than its ±.",
        school="Geometry; practice of those who shoot off the hand",
        source="A hand 1 mm too high eats 1 mm; what touches it at speed is a feather's front.",
    ),
    j.Rule(
        id="tiller-band",
        stage="nock",
        title="Tiller by hold",
        statement="Upper gap less lower gap, both square from the string at the same place. Split "
        f"{_band('split')} mm, three under {_band('three_under')}, thumb {_band('thumb')}; "
        f"walking the string {NEAR_EVEN_MM:g} mm less a tenth of the crawl, near even from "
        f"{WALKING_MM:g} mm. Outside the band by {WATCH_MM:g} mm Watch, by {MEND_MM:g} Mend "
        "where bolts can set it; on a plain bow know it, do not sand it.",
        school="Habit of the trade",
        source="Statics agree in sign and are far too soft in size for recurves.",
    ),
    j.Rule(
        id="limbs-line",
        stage="nock",
        title="Limbs and string in line",
        statement=f"The string runs through the middle of both limbs' roots within {IN_LINE_MM:g} "
        f"mm (Good), to {FAR_OUT_OF_LINE_MM:g} Watch, beyond Mend.",
        school="Practice of the trade",
        source="The string lies elsewhere across the riser otherwise.",
    ),
    j.Rule(
        id="centre-shot",
        stage="nock",
        title="Centre shot",
        statement="With a plunger the point stands outside the string's line, seen from behind, by "
        "nothing to half the shaft's thickness. Elsewhere is Watch, "
        f"more than {MISREAD_MM:g} mm off it Mend: read it again.",
        school="Practice of the trade",
        source="In the mechanics a millimetre is about a pound of spine.",
    ),
    j.Rule(
        id="limb-bolts",
        stage="nock",
        title="Limb bolts keep their grip",
        statement="Bolts further out than the maker allows are a Stop, within half a turn of it "
        f"Watch. A turn of both is about {100 * turn_effect().value:.1f} % of weight until your "
        "own weighings say.",
        school="Maker's limit, and statics",
        source="A degree of root lean is 1.9 % of weight; pitch and lever are assumed.",
    ),
    j.Rule(
        id="riser-weights",
        stage="nock",
        title="Weight near the lower limb",
        statement=f"{NEAR_ROOT_G:g} g and more within {NEAR_ROOT_MM:g} mm of the lower limb's "
        f"root, or a balance brought down by more than {DOWN_MM:g} mm, slows that end and wants "
        "a higher nock (Watch).",
        school="Practice of the trade",
        source="Recoil of a rigid riser; no number of millimetres is honest.",
    ),
    j.Rule(
        id="deep-hook",
        stage="nock",
        title="A hook far under the middle",
        statement="Kept square by a heeled grip, the lower limb is bent as by more draw: "
        f"{EXTRA_DRAW:g} in times the hook's distance under the middle in mm over the bow's "
        "length in inches. Where that uses up the margin before stack it is Watch from 1/2 in, "
        "Mend from nothing.",
        school="Statics of two limbs, the worst case",
        source="Two elastic chains on one string; a bow free in the hand tips instead.",
    ),
)

HEIGHT = j.Action(label="See the nock", stage="nock", control="height")
SERVE = j.Action(label="See the serving", stage="string", control="thread")
HAND = j.Action(label="Watch the hand", stage="nock", control="handrise")
TILLER = j.Action(label="See tiller and bolts", stage="nock", control="tiller")
ALIGN = j.Action(label="See the line", stage="nock", control="alignment")
WEIGHTS = j.Action(label="See the weights", stage="nock", control="weights")
_finding = partial(j.found, "nock")


def judge(c: Computed) -> list[j.Finding]:
    """Return the findings at the nock and on the riser."""
    return [
        *_judge_height(c),
        *_judge_hand(c),
        *_judge_fit(c),
        *_judge_tiller(c),
        *_judge_line(c),
        *_judge_centre(c),
        *_judge_bolts(c),
        *_judge_weights(c),
        *_judge_hook(c),
    ]


def _judge_height(c: Computed) -> list[j.Finding]:
    lift, start = c.nock.lift, c.nock.start
    if lift is None:
        return []
    schools = c.nock.schools
    lines = [
        phrase(
            "To begin with {start}, searched from {low} to {high}.",
            start=gap(start.lift_mm),
            low=gap(start.low_mm),
            high=gap(start.high_mm),
        )
    ]
    bare, clean = schools.bare, schools.clean
    if bare is not None:
        lines.append(phrase("Bare shaft: {low} to {high}.", low=gap(bare[0]), high=gap(bare[1])))
    if clean is not None:
        lines.append(
            phrase("Low as clean: {low} to {high}.", low=gap(clean[0]), high=gap(clean[1]))
        )
    wanted = bare or clean
    if wanted is not None:
        low, high = wanted[0] - 0.5, wanted[1] + 0.5
        name = "bare shafts" if bare is not None else "the lowest that flew clean"
        fine = low <= lift.value <= high
        text = (
            f"The nock stands at {{lift}}, where {name} put it."
            if fine
            else f"The nock stands at {{lift}}; {name} put it at {{low}} to {{high}}."
        )
        sentence = phrase(text, lift=gap(lift.value), low=gap(wanted[0]), high=gap(wanted[1]))
        return [
            _finding("nock-schools", "good" if fine else "watch", sentence, tuple(lines),
                     None if fine else HEIGHT)
        ]  # fmt: skip
    off = max(start.low_mm - lift.value, lift.value - start.high_mm)
    if off > MISREAD_MM:
        return [
            _finding(
                "nock-height",
                "mend",
                phrase(
                    "A nock at {lift} is {off} outside {low} to {high}, where any is set: read it "
                    "again, from square, to the arrow's underside.",
                    lift=gap(lift.value),
                    off=gap(off),
                    low=gap(start.low_mm),
                    high=gap(start.high_mm),
                ),
                tuple(lines),
                HEIGHT,
            )
        ]
    if c.nock.fixed or off <= 0:
        return []
    hold = HOLD_WORDS[c.nock.hold] if c.nock.hold else "your hold"
    return [
        _finding(
            "nock-height",
            "watch",
            phrase(
                f"The nock stands at {{lift}}; for {hold} the search begins at {{start}}. Flight "
                "decides.",
                lift=gap(lift.value),
                start=gap(start.lift_mm),
            ),
            tuple(lines),
            HEIGHT,
        )
    ]


def _judge_fit(c: Computed) -> list[j.Finding]:
    told, bundle = c.setup.nock.arrow_nock, c.string.diameter
    groove = told.reading.groove_mm if told else None
    thread = c.setup.string.part("thread_mm")
    if groove is None or bundle is None or thread is None:
        return []
    slack = slack_of(groove, bundle, thread)
    how, severity = fit_of(slack)
    texts = {
        "clips": "The arrow's nock fits the serving: it clips on and falls at a tap.",
        "tight": "The arrow's nock is {slack} tighter than the serving: it splits, or pulls the "
        "string aside. Serve with a thinner thread.",
        "loose": "The arrow's nock is {slack} wider than the serving: it can drop off the string. "
        "Serve with a thicker thread.",
    }
    text = texts[how]
    if how == "loose" and c.nock.hold == "thumb":
        text += " Some who shoot by the thumb want it so; then the finger holds it on."
        severity = "watch"
    served = served_diameter(bundle.value, thread)
    figures = {"slack": gap(abs(slack.value), slack.plus_minus)}
    return [
        _finding(
            "nock-fit",
            severity,
            phrase(text, **(figures if "{slack}" in text else {})),
            (
                phrase(
                    f"Bundle {bundle.value:.2f} ± {bundle.plus_minus:.2f} mm and two walls of "
                    f"{thread:.2f} mm make {served:.2f} mm; the groove is {groove:.2f} mm."
                ),
            ),
            None if severity == "good" else SERVE,
        )
    ]


def _judge_hand(c: Computed) -> list[j.Finding]:
    over, lift = c.nock.hand_clearance, c.nock.lift
    if over is None or lift is None:
        return []
    side = c.setup.nock.side.reading if c.setup.nock.side else None
    hand = side.hand_at_full_mm if side else None
    mark = (side.grip_under_rest_mm or 0.0) if side else 0.0
    severity: j.Severity = "good"
    text = "The arrow's tail passes over your hand by {over}."
    if round(over.value, 1) < 0:
        sure = hand is not None and over.value + over.plus_minus < 0
        severity = "mend" if sure else "watch"
        text = (
            "The arrow's tail comes home {over} under the top of your hand. Set the hand lower on "
            "the grip, or the nock higher, by as much."
        )
    figures = {"lift": gap(lift.value), "mark": gap(mark), "hand": gap(abs(hand or 0.0))}
    rise = (
        "nothing for the hand, which nobody watched"
        if hand is None
        else f"{{hand}} by which the hand stands {'over' if hand >= 0 else 'under'} its mark"
    )
    way = "plus" if hand is not None and hand < 0 else "less"
    line = f"Lift {{lift}}, plus {{mark}} from the square line down to its mark, {way} {rise}."
    return [
        _finding(
            "hand-clearance",
            severity,
            phrase(text, over=gap(abs(over.value), over.plus_minus)),
            (phrase(line, **{k: v for k, v in figures.items() if f"{{{k}}}" in line}),),
            HAND,
        )
    ]


def _judge_tiller(c: Computed) -> list[j.Finding]:
    tiller, band = c.nock.tiller, c.nock.band
    if tiller is None or c.nock.hold is None:
        return []
    word = tiller_word(tiller.value, band)
    adjustable = c.nock.kit == "full"
    severity: j.Severity = word if adjustable or word != "mend" else "watch"
    crawl = c.setup.nock.crawl_mm
    hold = HOLD_WORDS[c.nock.hold]
    if crawl > 0:
        hold += " and your crawl"
    text = f"Tiller {{tiller}} is inside what {hold} wants, {{low}} to {{high}}."
    if word != "good":
        text = f"Tiller {{tiller}} is {{off}} outside what {hold} wants, {{low}} to {{high}}."
        if adjustable:
            high = tiller.value > band.high_mm
            which = "Stiffen the upper limb" if high else "Stiffen the lower limb"
            text += f" {which}, or ease the other, a quarter turn at a time."
        else:
            text += " Know it, do not sand it."
    return [
        _finding(
            "tiller-band",
            severity,
            phrase(
                text,
                tiller=gap(tiller.value, tiller.plus_minus),
                off=gap(band.outside(tiller.value)),
                low=gap(band.low_mm),
                high=gap(band.high_mm),
            ),
            (
                phrase("Upper gap less lower gap; both at the same place on each limb."),
                phrase("Target {target}.", target=gap(band.target_mm)),
            ),
            TILLER if severity in ("watch", "mend") and adjustable else None,
        )
    ]


def _judge_line(c: Computed) -> list[j.Finding]:
    read = c.setup.nock.in_line
    if read is None:
        return []
    worst = max(abs(read.reading.upper_mm), abs(read.reading.lower_mm))
    severity: j.Severity = "good"
    if worst > IN_LINE_MM:
        severity = "watch" if worst <= FAR_OUT_OF_LINE_MM else "mend"
    text = (
        "The string runs through the middle of both limbs."
        if severity == "good"
        else "The string runs {worst} off the middle of a limb: bring limb or pocket in line."
    )
    return [
        _finding(
            "limbs-line",
            severity,
            phrase(text, worst=gap(worst)),
            (
                phrase(
                    "Upper {upper}, lower {lower}; within {limit} is in line.",
                    upper=gap(read.reading.upper_mm),
                    lower=gap(read.reading.lower_mm),
                    limit=gap(IN_LINE_MM),
                ),
            ),
            None if severity == "good" else ALIGN,
        )
    ]


def _judge_centre(c: Computed) -> list[j.Finding]:
    read = c.setup.nock.centre_shot
    if read is None:
        return []
    shaft = c.setup.arrows.part("shaft_diameter_mm")[0] or 7.0
    most = CENTRE_RADII[1] * shaft / 2
    out = read.reading.out_mm
    fine = CENTRE_RADII[0] <= out <= most + 0.25
    side = "left" if outward_is_left(c.setup.archer) else "right"
    misread = max(CENTRE_RADII[0] - out, out - most) > MISREAD_MM
    text = (
        f"The point stands {{out}} {side} of the string's line, as it should."
        if fine
        else f"The point stands {{out}} {'outside' if out >= 0 else 'inside'} the string's line; "
        f"0 to {{most}} {side} of it is usual."
    )
    return [
        _finding(
            "centre-shot",
            "good" if fine else "mend" if misread else "watch",
            phrase(
                text + (" So far off it was misread: sight it again." if misread else ""),
                out=gap(abs(out)),
                most=gap(round(most, 1)),
            ),
            (phrase("Half the shaft: {shaft} ÷ 2 = {most}.", shaft=gap(shaft), most=gap(most)),),
            None if fine else ALIGN,
        )
    ]


def _judge_bolts(c: Computed) -> list[j.Finding]:
    bolts = c.setup.nock.bolts
    if bolts is None or bolts.reading.most_turns is None:
        return []
    out = [t for t in (bolts.reading.upper_turns, bolts.reading.lower_turns) if t is not None]
    if not out:
        return []
    most, now = bolts.reading.most_turns, max(out)
    if now > most:
        severity: j.Severity = "stop"
        text = (
            "A limb bolt is {now} turns out; the maker allows {most}. Bolts must keep their grip."
        )
    elif now > most - BOLTS_KEEP:
        severity, text = "watch", "A limb bolt is {now} turns out, close to the maker's {most}."
    else:
        severity, text = "good", "The limb bolts are inside the maker's {most} turns."
    return [
        _finding(
            "limb-bolts",
            severity,
            phrase(text, now=count(now), most=count(most)),
            (phrase("Turns out from fully in, the further one: {now}.", now=count(now)),),
            None if severity == "good" else TILLER,
            "A limb bolt is out too far" if severity == "stop" else None,
        )
    ]


def _judge_weights(c: Computed) -> list[j.Finding]:
    balance = c.nock.balance
    if balance is None:
        return []
    slow = balance.slows_lower
    text = (
        "Weight near the lower limb slows that end and wants a higher nock: put it near the middle."
        if slow
        else "The riser weights leave the balance near the grip."
    )
    return [
        _finding(
            "riser-weights",
            "watch" if slow else "good",
            phrase(text),
            (
                phrase(
                    "Balance {down} under the bare riser's, {x} forward of the pivot; "
                    f"{balance.near_lower_g:.0f} g by the lower limb.",
                    down=gap(balance.down_mm),
                    x=gap(balance.x_mm),
                ),
                phrase(f"It turns the bow forward with {balance.torque_nm:.2f} N m."),
            ),
            WEIGHTS if slow else None,
        )
    ]


def _judge_hook(c: Computed) -> list[j.Finding]:
    """Warn where a deep crawl, held square, uses up the margin before stack."""
    crawl, margin = c.setup.nock.crawl_mm, c.bow.stack_margin_mm
    length = c.setup.bow.length
    if crawl <= 0 or margin is None or length is None:
        return []
    offset = crawl + HOOK_UNDER_NOCK_MM - NOCK_OVER_MIDDLE_MM
    extra = crawl_draw(length.reading.back_mm, crawl)
    left = margin.value - extra
    if left >= 12.7 or extra <= 0:
        return []
    severity: j.Severity = "watch" if left >= 0 else "mend"
    return [
        _finding(
            "deep-hook",
            severity,
            phrase(
                "At your crawl the lower limb is bent as by {extra} more draw: {left} is left "
                "before stack."
                if left >= 0
                else "At your crawl the lower limb is bent as by {extra} more draw, past the onset "
                "of stack.",
                extra=mm(extra),
                left=mm(max(left, 0.0)),
            ),
            (
                phrase(
                    "Hook {offset} under the string's middle; margin without a crawl {margin}.",
                    offset=gap(max(offset, 0.0)),
                    margin=mm(margin.value),
                ),
            ),
            HEIGHT,
        )
    ]
