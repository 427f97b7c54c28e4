"""Judging what was heard: what it points to, what was told apart, tension, shafts, recordings."""

from functools import partial

from lyrandis.core import judgement as j
from lyrandis.core.computed import Computed
from lyrandis.core.constants import NEWTONS_PER_LBF
from lyrandis.core.estimate import Estimate
from lyrandis.core.listen.naming import Pointed
from lyrandis.core.listen.numbers import TENSION_MEND_SD, TENSION_SD
from lyrandis.core.listen.shafts import (
    LEAST_TAP_SHARE,
    OTHER_TAP_SHARE,
    OTHERWISE,
    STIFFER,
    TOLD_APART,
    UNEVEN_SHARE,
)
from lyrandis.core.listen.shot_time import EXPECTED_SHARE, PACED_SHARE, SPEED_SHARE, agrees
from lyrandis.core.listen.tap import LEAST_OVER_DB
from lyrandis.core.listen.words import FAULT_WORDS, TAPPED_STATE_WORDS, TROUBLE_WORDS, Fault
from lyrandis.core.phrase import Figure, Phrase, counted, decibels, lbf, mps, percent, phrase, spine
from lyrandis.core.tried import share_of, times_of

MADE_UP = "Proved on made-up sound only, of a second kind that shares nothing with the first: no " \
    "recorded bow was compared."  # fmt: skip
RECORD_SOUND = j.Action(label="Record", stage="listen", control="bring")
LIST = j.Action(label="See the list", stage="listen", control="checks")
RECORDINGS = j.Action(label="See the recordings", stage="listen", control="recordings")
SPEED = j.Action(label="See the speeds", stage="listen", control="speed")
TAPS = j.Action(label="See the shafts", stage="listen", control="shafts")
_finding = partial(j.found, "listen")


def _stiffer(times: Estimate) -> str:
    return f"{100 * (times.value - 1):.0f} ± {100 * times.plus_minus:.0f} %"


NAMING_TRIED = (
    f"Of {times_of('naming')} bows each of another synthesiser, 20 dB over a quiet room, gain "
    f"control off: loose parts named in {share_of('naming', 'right', among='loose')}, brace off in "
    f"{share_of('naming', 'right', among='brace')}, nothing on a healthy one in "
    f"{share_of('naming', 'right', among='healthy')}. Where the gain rides and nothing is found, "
    f"it says that it cannot be told in {share_of('naming', 'cannot', among='rides')}. "
)
TAKES_TRIED = (
    f"In a quiet room all takes are found in {share_of('takes', 'right', among='quiet')} of "
    f"{times_of('takes')} recordings, in a club in "
    f"{share_of('takes', 'right', among='club')}: there "
    f"{share_of('takes', 'flagged', among='club')} of the neighbours' shots are flagged. Cut off "
    f"and then brought to another rate, {share_of('recording', 'found', among='cut off')} are "
    "known as overloaded. "
)
SPEED_TRIED = (
    f"Of {times_of('speed')} made-up recordings of each of stiff and soft butts, through coders "
    "and under a gain that rides, taped and paced, the true speed lay inside what was said in "
    f"{share_of('speed', 'inside')}. "
)
TAP_TRIED = (
    f"Of {times_of('tap')} made-up shafts each of carbon, wood and aluminium that bend and shear, "
    f"the true stiffness lay inside what was said in {share_of('tap', 'inside')}; no shaft was "
    "compared."
)

RULES: tuple[j.Rule, ...] = (
    j.Rule(
        id="sound-points",
        stage="listen",
        title="What the sound points to",
        statement="Separate evidences, each with its own threshold: a shot louder than this bow's "
        "own before, a second pitch beside the string's, clicks that do not come with the string's "
        "period. Without a before of its own no fault of the shot is named. A slack strand is only "
        "ever a hint; an arrow too light is named by the mechanics, the sound agrees or not.",
        school="Lyrandis's own, in the trade's order of looking",
        source=NAMING_TRIED + MADE_UP,
    ),
    j.Rule(
        id="sound-apart",
        stage="listen",
        title="Told apart, or not",
        statement="Levels compare only with the same phone, place and gain, or over a reference "
        "knock. A difference is told when nought lies outside the 95 % interval of the takes.",
        school="Statistics",
        source="Huber means, Student's t with four degrees of freedom of a careful archer's "
        "decibel beforehand.",
    ),
    j.Rule(
        id="sound-tension",
        stage="listen",
        title="The note and the tension",
        statement="The braced string's note asks for a tension. Two standard deviations from what "
        "the draw weight asks for are looked into: mass or strand count, brace measured to another "
        "datum, string length, weighed draw weight. Three are mended. Pitch cannot tell brace "
        "height: 1/8 in is 2 to 11 cents.",
        school="Mechanics",
        source="Waves on a served string between tips that give way; "
        + MADE_UP[0].lower()
        + MADE_UP[1:],
    ),
    j.Rule(
        id="sound-recording",
        stage="listen",
        title="What is wrong with a recording",
        statement="Overloaded, too quiet, too noisy, too few takes, too low a rate, a gain that "
        "the phone adjusts, a voice between the takes, another bow's shots: each forbids what it "
        "spoils and no more. Of two beginnings within a second the louder is the take; a missed "
        "one is added by hand.",
        school="Lyrandis's own",
        source=TAKES_TRIED + "The checks of gain and voice were never tried on a real phone.",
    ),
    j.Rule(
        id="speed-heard",
        stage="listen",
        title="Speed by ear",
        statement="The release is where the high notes begin, the same in all shots; the strike is "
        f"where several bands rise at once. Never better than {200 * SPEED_SHARE:.0f} %; a soft "
        "butt, whose strike rises slowly, widens it, and so does a distance in paces, good to "
        f"{200 * PACED_SHARE:.0f} %. What the mechanics expect, good to "
        f"{200 * EXPECTED_SHARE:.0f} % at best, only checks it: where the two disagree by more "
        "than both are doubtful, see distance and marks (Watch).",
        school="Lyrandis's own",
        source="Sound's and arrow's ways, quadratic drag. " + SPEED_TRIED + MADE_UP,
    ),
    j.Rule(
        id="tap-uneven",
        stage="listen",
        title="Uneven round its axis",
        statement=f"A shaft whose stiffness differs by more than {100 * UNEVEN_SHARE:.0f} % "
        "after a quarter turn has a stiff side worth marking: a known trait of wood.",
        school="Practitioners of wooden arrows",
        source="Two taps of one shaft; " + MADE_UP[0].lower() + MADE_UP[1:],
    ),
    j.Rule(
        id="tap-point",
        stage="listen",
        title="Was the point on?",
        statement="A shaft whose ring asks for a stiffness over "
        f"{100 * TOLD_APART:.0f} % off its told spine was perhaps tapped otherwise than it was "
        "said: with its point on, or without (Watch). A tap that fits the other way better, stands "
        f"less than {LEAST_OVER_DB:.0f} dB out of the room, or whose lines are no comb, is refused "
        "when it is heard.",
        school="Lyrandis's own",
        source="A beam that bends and shears, as built. " + TAP_TRIED,
    ),
    j.Rule(
        id="tap-shared",
        stage="listen",
        title="Ring against gauge",
        statement="A shaft rings stiffer than it bends slowly: wood by "
        f"{_stiffer(STIFFER['wood'])}, others by {_stiffer(OTHERWISE)}. Within a set that is the "
        "same for all; one shaft measured on a gauge too calibrates the rest of its kind. However "
        "often it is tapped, no ring tells stiffness better than "
        f"{100 * OTHER_TAP_SHARE:.0f} %, of wood, which has a stiffer plane, "
        f"{100 * LEAST_TAP_SHARE['wood']:.0f} % (one sd).",
        school="Lyrandis's own",
        source="Assumption; no shaft was compared.",
    ),
)


def judge(c: Computed) -> list[j.Finding]:
    """Return the findings on what was heard; none where nothing was."""
    return [
        *_judge_pointed(c),
        *_judge_apart(c),
        *_judge_tension(c),
        *_judge_recording(c),
        *_judge_speed(c),
        *_judge_shafts(c),
    ]


CHECKS: dict[Fault, str] = {
    "rattle": "Tighten one part, pluck again: it must vanish.",
    "slack": "Untwist, even the strands, wax; pluck again.",
    "brace": "Go back a step in brace and record it: it must fall.",
    "arrow": "Record a heavier arrow; under the floor it is not shot.",
    "contact": "Shoot a bare shaft, and feel along the plate.",
}


def _judge_pointed(c: Computed) -> list[j.Finding]:
    pointed = c.listen.pointed
    if pointed is None or pointed.fault is None:
        return []
    fault = pointed.fault
    hint = "may point" if pointed.hint else "points"
    sentence = phrase(
        f"The sound {hint} to {FAULT_WORDS[fault]}, {{sure}}. {CHECKS[fault]}",
        sure=percent(pointed.sure),
    )
    # a sound is looked into; what must not be shot is said by the mechanics
    severity: j.Severity = "watch" if pointed.hint or fault in ("brace", "contact") else "mend"
    if fault == "arrow":
        severity = "watch"
    return [_finding("sound-points", severity, sentence, sum_of_sound(c, pointed), LIST)]


def sum_of_sound(c: Computed, pointed: Pointed) -> tuple[Phrase, ...]:
    """Return what a sound showed, in lines.

    Source: definition.

    >>> from lyrandis.core.example import rig
    >>> [one.text() for one in sum_of_sound(rig(), Pointed(None, 0.9, True, rattle=-2.0))]
    ['Clicks and lines: 2.0 under the threshold.', 'No second pitch.']
    """
    lines: list[Phrase] = []
    if pointed.louder is not None:
        one = pointed.louder
        way = "louder" if one.change_db > 0 else "quieter"
        change = decibels(abs(one.change_db), one.half_db)
        lines.append(phrase(f"The shot is {{change}} {way} than before.", change=change))
    if pointed.rattle is not None:
        where = "over" if pointed.rattle > 0 else "under"
        lines.append(phrase(f"Clicks and lines: {abs(pointed.rattle):.1f} {where} the threshold."))
    lower = percent(1 - pointed.second_ratio)
    if pointed.second > 6:
        lines.append(phrase(f"A second pitch {{lower}} lower, strength {pointed.second:.0f}; it "
                            "points from 15 on.", lower=lower))  # fmt: skip
    else:
        lines.append(phrase("No second pitch."))
    return (*lines, *beforehand(c))


def beforehand(c: Computed) -> tuple[Phrase, ...]:
    """Return what the rig's own facts say before anything is heard. Source: definition.

    >>> from lyrandis.core.example import rig
    >>> beforehand(rig())
    ()
    """
    return tuple(phrase(f"Beforehand: {why}.") for why in c.listen.odds.because)


def _judge_apart(c: Computed) -> list[j.Finding]:
    pair = c.listen.pair
    if pair is None:
        return []
    many = (
        f" {len(pair.changed)} things changed between: which of them did it cannot be told."
        if len(pair.changed) > 1
        else ""
    )
    if pair.level is None:
        if pair.how == "no" and not pair.few:
            text = "The two recordings are of different places or phones: levels do not compare."
            return [_finding("sound-apart", "watch", phrase(text),
                             (phrase("Knock a reference in both, or record both in one session."),),
                             RECORD_SOUND)]  # fmt: skip
        return []
    level = pair.level
    sums = (
        phrase(f"{counted(len(pair.before.reading.counting), 'take')} against "
               f"{len(pair.after.reading.counting)}, interval {{half}} either way.",
               half=decibels(level.half_db)),
        phrase("Surer than {sure}.", sure=percent(min(level.sure, 0.99))),
    )  # fmt: skip
    if not level.told_apart:
        sentence = phrase(
            "No difference shown; it would have shown from {least} on.{more}".replace(
                "{more}", many
            ),
            least=decibels(level.would_show_db),
        )
        return [_finding("sound-apart", "watch", sentence, sums, RECORD_SOUND)]
    way = "quieter" if level.change_db < 0 else "louder"
    said = f"After is {way} by {{change}}.{many}"
    sentence = phrase(said, change=decibels(abs(level.change_db), level.half_db))
    good = level.change_db < 0 and not many
    return [_finding("sound-apart", "good" if good else "watch", sentence, sums, LIST)]


def _pounds(tension: Estimate) -> Figure:
    return lbf(tension.value / NEWTONS_PER_LBF, tension.plus_minus / NEWTONS_PER_LBF)


def _judge_tension(c: Computed) -> list[j.Finding]:
    tension = c.listen.tension
    if tension is None or tension.by_statics is None or tension.apart is None:
        return []
    apart = abs(tension.apart)
    sums = (
        phrase("By the note {note}.", note=_pounds(tension.by_note)),
        phrase("By draw weight and brace {sum}.", sum=_pounds(tension.by_statics)),
        phrase(f"They lie {apart:.1f} standard deviations apart."),
    )
    if apart < TENSION_SD:
        sentence = phrase("The string's note agrees with its tension, {note}.",
                          note=_pounds(tension.by_note))  # fmt: skip
        return [_finding("sound-tension", "good", sentence, sums)]
    way = "more" if tension.apart > 0 else "less"
    sentence = phrase(
        f"The string's note asks for {way} tension than the draw weight does, {{note}} against "
        "{sum}. Check the brace and its datum, the string's mass or strands, its length, the "
        "weighed draw weight.",
        note=_pounds(tension.by_note), sum=_pounds(tension.by_statics),
    )  # fmt: skip
    severity: j.Severity = "mend" if apart >= TENSION_MEND_SD else "watch"
    return [_finding("sound-tension", severity, sentence, sums, RECORDINGS)]


def _judge_recording(c: Computed) -> list[j.Finding]:
    if not c.listen.facts.heard:
        return []
    last = c.listen.facts.heard[-1]
    troubles = [trouble for trouble in last.reading.troubles if trouble != "no_takes"]
    if c.listen.gain_rides(last) and "gain_rides" not in troubles:
        troubles.append("gain_rides")
    if not troubles:
        return []
    words = " ".join(TROUBLE_WORDS[trouble] for trouble in troubles)
    sums = (phrase(f"Of the last recording, {counted(len(last.reading.takes), 'take')}."),)
    return [_finding("sound-recording", "watch", phrase(words), sums, RECORDINGS)]


def _judge_speed(c: Computed) -> list[j.Finding]:
    thrust = c.bow.mechanical
    if not c.listen.speeds or thrust is None:
        return []
    told = c.listen.speeds[-1].reading
    mass = told.arrow_mass_gr or (c.arrow.finished.mass.value if c.arrow.finished else None)
    if mass is None or told.ear is None:
        return []
    heard, expected = Estimate(told.speed_mps, told.ear.half / 2), thrust.speed(mass)
    if agrees(heard, expected):
        return []
    way = "faster" if heard.value > expected else "slower"
    sentence = phrase(
        f"The arrow was heard {way} than the bow's sums expect, by more than both are doubtful. "
        "See the butt's distance, the marks and the weighed arrow."
    )
    sums = (
        phrase("By ear {heard}.", heard=mps(heard.value, heard.plus_minus)),
        phrase(
            "By the sums alone {sum}.",
            sum=mps(expected, 2 * EXPECTED_SHARE * expected),
        ),
    )
    return [_finding("speed-heard", "watch", sentence, sums, SPEED)]


def _judge_shafts(c: Computed) -> list[j.Finding]:
    tapped = c.listen.shafts
    if tapped is None:
        return []
    result = []
    uneven = [shaft for shaft in tapped.shafts if shaft.uneven is not None]
    if uneven:
        named = ", ".join(str(item.number) for item in uneven)
        shaft = "Shaft" if len(uneven) == 1 else "Shafts"
        has = "is" if len(uneven) == 1 else "are"
        sums = tuple(
            phrase(f"{item.number}: {{change}} after a quarter turn.",
                   change=percent(abs((item.uneven or 1.0) - 1)))
            for item in uneven[: j.MOST_LINES]
        )  # fmt: skip
        sentence = phrase(f"{shaft} {named} {has} uneven round the axis: mark the stiff side.")
        result.append(_finding("tap-uneven", "watch", sentence, sums, TAPS))
    apart = [shaft for shaft in tapped.shafts if shaft.apart is not None]
    if apart:
        named = ", ".join(str(item.number) for item in apart)
        one = len(apart) == 1
        sums = tuple(
            phrase(f"{item.number}, tapped as {TAPPED_STATE_WORDS[item.state]}: {{share}} "
                   f"{'stiffer' if (item.apart or 0) > 0 else 'weaker'} than told.",
                   share=percent(abs(item.apart or 0.0)))
            for item in apart[: j.MOST_LINES]
        )  # fmt: skip
        was = "was the point on?" if apart[0].state == "bare" else "was the point off?"
        sentence = phrase(
            f"{'Shaft' if one else 'Shafts'} {named} {'rings' if one else 'ring'} far from the "
            f"told spine: {was} Or the told spine is another shaft's."
        )
        result.append(_finding("tap-point", "watch", sentence, sums, TAPS))
    known = [shaft.spine.value for shaft in tapped.shafts if shaft.spine is not None]
    if known and not tapped.calibrated:
        middle = sum(known) / len(known)
        sentence = phrase(
            "All tapped shafts together may be off by {shared}: measure one of them on a gauge.",
            shared=spine(2 * tapped.shared * middle),
        )
        sums = (
            phrase("They ring {ratio} stiffer than a gauge finds.",
                   ratio=percent(tapped.ratio.value - 1, tapped.ratio.plus_minus)),
        )  # fmt: skip
        result.append(_finding("tap-shared", "watch", sentence, sums, TAPS))
    return result
