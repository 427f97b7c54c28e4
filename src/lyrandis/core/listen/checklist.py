"""The check list in the trade's order: what the sound shows of each, what the entries say of it."""

from dataclasses import dataclass
from typing import Literal

import numpy as np

from lyrandis.core.computed import Computed
from lyrandis.core.listen.naming import Pointed
from lyrandis.core.listen.numbers import TENSION_SD, ListenNumbers, rings_of
from lyrandis.core.listen.readings import SoundHeard
from lyrandis.core.listen.second import MAYBE, POINTS
from lyrandis.core.phrase import Phrase, gpp, mm, percent, phrase
from lyrandis.core.string.words import STRING_MATERIAL_WORDS

CheckState = Literal["heard", "gone", "not_heard", "cannot", "not_needed", "may_help"]
LONG_RING_S = 0.35
"""Assumption: a shot that rings longer at 125 to 500 Hz wants dampers."""


@dataclass(frozen=True, slots=True)
class Check:
    """One line of the list."""

    key: str
    name: str
    state: CheckState
    shows: Phrase
    """What the sound shows."""
    from_entries: Phrase | None
    do: str
    """What would prove or mend it."""


def checks(c: Computed) -> tuple[Check, ...]:
    """Return the list, in the trade's order: the first that is heard is the first to look at.

    Source: the trade's order of looking for noise; what the sound adds is our own.

    >>> from lyrandis.core.example import rig
    >>> [one.key for one in checks(rig())]
    ['brace', 'strand', 'strands', 'loose', 'dampers', 'mass', 'spine']
    """
    listen = c.listen
    pointed = listen.pointed
    shot = listen.of("shot")[-1].reading if listen.of("shot") else None
    pluck = listen.of("pluck")[-1].reading if listen.of("pluck") else None
    return (
        _brace(c, shot, pointed),
        _strand(listen, pluck, pointed),
        _strands(c),
        _loose(pluck, pointed),
        _dampers(c, shot, pointed),
        _mass(c, pointed),
        _spine(c, shot, pointed),
    )


_NO_SHOT = phrase("no shot recorded")


def _brace(c: Computed, shot: SoundHeard | None, pointed: Pointed | None) -> Check:
    brace = c.string.brace
    says = phrase("{brace}", brace=mm(brace.value)) if brace else None
    do = "Sweep the brace: record it a step higher and lower."
    pair = c.listen.shots
    state: CheckState = "cannot"
    shows = _NO_SHOT
    if shot is not None:
        shows = phrase("record a shot before and after a change")
        if pointed is not None and pointed.blind:
            shows = phrase("the phone adjusts its gain")
        if pointed is not None and pointed.louder is not None:
            state = "heard" if pointed.fault == "brace" else "not_heard"
            shows = phrase("no louder than before")
            if pointed.louder.told_apart:
                way = "louder" if pointed.louder.change_db > 0 else "quieter"
                shows = phrase(f"{abs(pointed.louder.change_db):.1f} dB {way} than before")
            braced = pair is not None and any(item.of == "brace" for item in pair.changed)
            if braced and pointed.louder.told_apart and pointed.louder.change_db < 0:
                state = "gone"
    return Check("brace", "brace height", state, shows, says, do)


def _strand(listen: ListenNumbers, pluck: SoundHeard | None, pointed: Pointed | None) -> Check:
    says = phrase(f"{listen.setup.string.strands} strands") if listen.setup.string.strands else None
    do = "Untwist, even the strands, wax; else a new string."
    if pluck is None or pluck.note_hz is None or pointed is None:
        heard = "no note heard" if pluck else "no pluck recorded"
        return Check("strand", "slack strand", "cannot", phrase(heard), says, do)
    lower = 1 - pointed.second_ratio
    if pointed.second > POINTS:
        shows = phrase("a second note {lower} lower: a hint", lower=percent(lower))
        return Check("strand", "slack strand", "heard", shows, says, do)
    if pointed.second > MAYBE:
        shows = phrase("perhaps a second note {lower} lower", lower=percent(lower))
    else:
        shows = phrase(f"no second note beside {pluck.note_hz:.1f} Hz")
    return Check("strand", "slack strand", "not_heard", shows, says, do)


def _strands(c: Computed) -> Check:
    facts, tension = c.setup.string, c.listen.tension
    parts = [f"{facts.strands} strands"] if facts.strands else []
    if facts.material:
        parts.append(STRING_MATERIAL_WORDS[facts.material])
    says = phrase(", ".join(parts)) if parts else None
    do = "Weigh the string, try the nock's fit: it should click on and fall off with a tap."
    name = "strand count, nock fit"
    if tension is None or tension.by_statics is None:
        return Check("strands", name, "cannot", phrase("needs a pluck, and the draw weight"), says,
                     do)  # fmt: skip
    off = tension.by_note.value / tension.by_statics.value - 1
    apart = tension.apart or 0.0
    way = "over" if off > 0 else "under"
    shows = phrase(
        f"tension {{off}} {way} the sum", off=percent(abs(off), 2 * tension.by_note.sd
                                                      / tension.by_statics.value)
    )  # fmt: skip
    return Check(
        "strands", name, "heard" if abs(apart) > TENSION_SD else "not_heard", shows, says, do
    )


def _loose(pluck: SoundHeard | None, pointed: Pointed | None) -> Check:
    do = "Tighten one part, pluck again: it must vanish."
    if pluck is None or pointed is None:
        return Check("loose", "anything loose", "cannot",
                     phrase("a shot cannot tell it: pluck it"), None, do)  # fmt: skip
    unrep = float(np.median([mark.unrep for mark in pluck.counting]))
    rattles = pointed.fault == "rattle"
    if "low_rate" in pluck.troubles and not rattles:
        return Check("loose", "anything loose", "cannot",
                     phrase("recorded too dull to tell"), None, do)  # fmt: skip
    if unrep >= 0.5:
        shows = phrase(f"{unrep:.0f} clicks in 100 ms while it rings")
    elif rattles and pointed.rattle is not None:
        shows = phrase(f"notes and spread of a loose part, {pointed.rattle:.1f} over the threshold")
    elif rattles:
        shows = phrase("a high note stands out as a loose part's does")
    else:
        shows = phrase("no clicks while it rings")
    return Check("loose", "anything loose", "heard" if rattles else "not_heard", shows, None, do)


def _dampers(c: Computed, shot: SoundHeard | None, pointed: Pointed | None) -> Check:
    fitted = c.setup.string.part("silencers_gr")
    says = phrase("silencers fitted") if fitted else phrase("none told")
    do = "Where your class allows them: add them, record before and after."
    if shot is None:
        return Check("dampers", "dampers", "cannot", _NO_SHOT, says, do)
    rings = [ring for octave in range(3) for ring in rings_of(shot.counting, octave)]
    if not rings:
        return Check("dampers", "dampers", "cannot",
                     phrase("ring not measurable: too noisy, or cut by the arrow's blow"), says,
                     do)  # fmt: skip
    longest = max(
        float(np.median(result)) for octave in range(3)
        if (result := rings_of(shot.counting, octave))
    )  # fmt: skip
    long = longest > LONG_RING_S
    shows = phrase(f"rings {longest:.2f} s, {'long' if long else 'short enough'}")
    other = pointed is not None and pointed.fault is not None
    state: CheckState = "may_help" if long and not other else "not_needed"
    return Check("dampers", "dampers", state, shows, says, do)


def _mass(c: Computed, pointed: Pointed | None) -> Check:
    do = "A heavier arrow; under the floor the arrow's own findings rule, not the sound."
    per_pound, floor = c.arrow.gpp, c.arrow.floor
    if per_pound is None:
        return Check("mass", "arrow mass", "cannot", phrase("weigh an arrow"), None, do)
    under = per_pound.value < floor.grains_per_pound
    says = phrase(
        "{gpp}, floor {floor}", gpp=gpp(per_pound.value), floor=gpp(floor.grains_per_pound)
    )
    louder = pointed.louder if pointed else None
    if louder is None or not louder.told_apart:
        shows = phrase("the sums decide it, not the sound")
    elif louder.change_db > 0:
        shows = phrase("louder than before, as a light arrow is")
    else:
        shows = phrase("quieter than before")
    return Check("mass", "arrow mass", "heard" if under else "not_needed", shows, says, do)


def _spine(c: Computed, shot: SoundHeard | None, pointed: Pointed | None) -> Check:
    do = "To the stage Flight: shoot a bare shaft, feel along the plate."
    seen = len(c.setup.flight.seen)
    says = phrase(f"{seen} reading{'' if seen == 1 else 's'} of its flight") if seen else None
    if shot is None:
        return Check("spine", "spine and contact", "cannot", _NO_SHOT, says, do)
    bursts = [mark.bursts for mark in shot.counting]
    several = float(np.median(bursts)) >= 3 and max(bursts) > min(bursts)
    shows = (
        phrase(f"{min(bursts)} to {max(bursts)} bursts round the release, changing")
        if several
        else phrase("one burst, the same in every take")
        if max(bursts) <= 1
        else phrase(f"{min(bursts)} to {max(bursts)} bursts round the release")
    )
    contact = pointed is not None and pointed.fault == "contact"
    if contact and not several:
        shows = phrase(f"{shows.template}; the shot's crack changed as a tail's does")
    return Check("spine", "spine and contact", "heard" if contact else "not_heard", shows, says,
                 do)  # fmt: skip


def first_to_do(found: tuple[Check, ...]) -> Check | None:
    """Return the first line that is heard.

    Source: the trade's order.

    >>> first_to_do(()) is None
    True
    """
    return next((item for item in found if item.state == "heard"), None)
