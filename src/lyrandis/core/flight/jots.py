"""The jot line's words for what is seen of arrows in flight."""

from lyrandis.core import entries as e
from lyrandis.core.errors import Guess
from lyrandis.core.flight.readings import (
    BareApart,
    Change,
    ColumnMark,
    FeathersSeen,
    FlightKit,
    MatchSource,
    PlateMarked,
    ShotCare,
    SittingEnded,
    SlapHeard,
    TailSeen,
    TrialSet,
    WalkedBack,
)
from lyrandis.core.flight.words import Care, MatchFrom
from lyrandis.core.spoken import Line
from lyrandis.core.stage_spec import Word

_GRADES = {
    "slight": 1, "slightly": 1, "little": 1, "clear": 2, "clearly": 2, "strong": 3, "strongly": 3,
}  # fmt: skip
_ACROSS = {"left": -1, "right": 1}
_UP = {"low": -1, "down": -1, "high": 1, "up": 1}
_STRAIGHT = ("straight", "none", "centre", "center")
_CARES: dict[str, Care] = {
    "steady": "steady", "kind": "steady", "ordinary": "ordinary", "beginning": "beginning",
    "beginner": "beginning", "careless": "beginning",
}  # fmt: skip
_YES = {"yes": True, "some": True, "none": False, "no": False}
_HEARD = {**_YES, "heard": True, "slap": True, "not heard": False}
_RUBBED = {**_YES, "rubbed": True, "clean": False}
_MARKED = {**_YES, "plate": True, "mark": True, "felt": True, "clean": False}
_SITTINGS = {"over": False, "another day": False, "anew": True}
_SOURCES: dict[str, MatchFrom] = {"flight": "flight", "tuning": "flight", "model": "model"}


def _distance(line: Line) -> float:
    """Take a distance and return metres."""
    return line.distance("@ 2.5m or @ 3 paces").metres


def _at(line: Line) -> float:
    if not line.take_word("@", "at", "from"):
        raise line.error(
            "missing_number", "The distance is missing.", "Add it, e.g. @ 2.5m or @ 3 paces."
        )
    return _distance(line)


def _way(line: Line, ways: dict[str, int]) -> int | None:
    """Take a word for a side, if it is one of these."""
    token = line.peek()
    if token is None or token.text.lower() not in ways:
        return None
    return ways[line.take().text.lower()]


def _grade_or_mm(line: Line, key: str) -> tuple[int | None, float | None]:
    """Take how far: 1 slight, 2 clear, 3 strong, or a length."""
    token = line.peek()
    if token is not None and token.text.lower() in _GRADES:
        return _GRADES[line.take().text.lower()], None
    if token is None or token.kind != "number":
        at = token.start if token else len(line.text)
        head, rest = line.text[:at].rstrip(), line.text[at:]
        error = line.error(
            "missing_number", "How far the tail points aside is missing.",
            "Say slight, clear or strong, or millimetres at the nock.",
        )  # fmt: skip
        error.guesses = tuple(
            Guess(f"{head} {grade} {rest}".strip(), f"{word}?")
            for grade, word in ((1, "Slightly"), (2, "Clearly"), (3, "Strongly"))
        )
        raise error
    behind = line.after_next()
    with_unit = behind is not None and behind.kind == "word" and behind.text.lower() in _LENGTHS
    if not with_unit and token.text in ("1", "2", "3"):
        return int(line.take().text), None
    return None, line.small(key)


_LENGTHS = frozenset(("mm", "cm", "in", "inch", "inches", '"'))


def _tail(line: Line) -> e.Reading:
    told: dict[str, object] = {}
    if line.take_word(*_STRAIGHT):
        told["across"] = 0
    if line.take_word("level"):
        told["up"] = 0
    while True:
        token = line.peek()
        before = _GRADES.get(token.text.lower()) if token else None
        if before is not None:
            line.take()
        for name, ways in (("across", _ACROSS), ("up", _UP)):
            sign = _way(line, ways)
            if sign is None:
                continue
            grade, off = (before, None) if before else _grade_or_mm(line, "tail_aside")
            if off is not None:
                told[f"{name}_mm"] = sign * off
            elif grade is not None:
                told[name] = sign * grade
            break
        else:
            break
        line.take_word("and")
    if not told:
        raise line.error(
            "missing_choice", "Which way the tail points is missing.",
            "Say straight, left or right, high or low; 1 slight, 2 clear, 3 strong.",
        )  # fmt: skip
    return TailSeen(distance_m=_at(line), **_behind(line), **told)


def _behind(line: Line) -> dict[str, object]:
    """Take what may stand behind a distance: arrows, bare, and what was changed for it."""
    told: dict[str, object] = {}
    token, behind = line.peek(), line.after_next()
    counted = behind is not None and behind.text.lower() in ("arrow", "arrows")
    if token is not None and token.kind == "number" and counted:
        told["arrows"] = line.whole("number of arrows", 1, 24)
        line.take()
    if line.take_word("bare"):
        told["bare"] = True
    if not line.done:
        told["trial"] = _change(line)
    return told


def _bare(line: Line) -> e.Reading:
    told: dict[str, object] = {}
    if line.take_word("level", "together", "with"):
        told = {"right_mm": 0.0, "up_mm": 0.0}
        line.take_word("fletched")
    while (token := line.peek()) is not None and token.kind == "number":
        off = line.length("hit_aside")
        across, up = _way(line, _ACROSS), _way(line, _UP)
        if across is None and up is None:
            raise line.error(
                "missing_choice", "Which side the bare shafts struck is missing.",
                "Say left or right, high or low of the fletched ones.",
            )  # fmt: skip
        told["right_mm" if across is not None else "up_mm"] = (across or up or 0) * off
        line.take_word("and")
    distance = _at(line)
    beside = _behind(line)
    arrows = beside.pop("arrows", None)
    if arrows is not None:
        beside |= {"bare": arrows, "fletched": arrows}
    elif beside.get("bare") is True:
        beside.pop("bare")
    return BareApart(distance_m=distance, **beside, **told)


def _walk_back(line: Line) -> e.Reading:
    marks = []
    while not line.done:
        distance = _distance(line)
        off = line.length("hit_aside")
        sign = _way(line, _ACROSS)
        if sign is None and off != 0:
            raise line.error(
                "missing_choice", "Which side it struck is missing.", "Say left or right."
            )
        marks.append(ColumnMark(distance_m=distance, right_mm=(sign or 0) * off))
        line.take_word(",", ";", "and")
    if not marks:
        raise line.error(
            "missing_number", "The distances are missing.",
            "Type each distance and where it struck, e.g. 10m 0, 20m 2cm left.",
        )  # fmt: skip
    return WalkedBack(marks=tuple(marks))


def _signed(line: Line, size: float, more: tuple[str, ...], less: tuple[str, ...]) -> float:
    if line.take_word(*less):
        return -size
    line.take_word(*more)
    return size


def _change(line: Line) -> Change:
    """Take what is changed for a trial, and by how much."""
    line.take_word("trial", "with", "draw", "drawn")
    token = line.peek()
    said = token.text.lower() if token else ""
    if said in ("short", "extra"):
        line.take()
        what = "draw_short" if said == "short" else "draw_extra"
        by = 25.4 if said == "short" else 12.7
        return Change(what=what, amount=by if line.done else line.length("hit_aside"))
    if said in _CHANGES:
        line.take()
        return _CHANGES[said](line)
    if token is not None and token.kind == "number":
        size = line.length("hit_aside")
        extra = line.take_word("extra", "long")
        if extra or line.take_word("short"):
            return Change(what="draw_extra" if extra else "draw_short", amount=size)
    raise line.error(
        "unknown_choice" if token else "missing_choice", "What is changed is not clear.",
        "Say draw short 1in, draw extra 1/2in, silencers 20gr on, plate 2mm out, point 25gr "
        "heavier, brace 1/4in up, shafts 57lb or nock 3mm up.",
    )  # fmt: skip


_CHANGES = {
    "silencers": lambda line: Change(
        what="silencers", amount=_signed(line, line.mass("part_mass"), ("on",), ("off",))
    ),
    "plate": lambda line: Change(
        what="plate", amount=_signed(line, line.small("aside"), ("out",), ("in",))
    ),
    "point": lambda line: Change(
        what="point",
        amount=_signed(line, line.mass("part_mass"), ("heavier", "more"), ("lighter", "less")),
    ),
    "brace": lambda line: Change(
        what="brace", amount=_signed(line, line.length("hit_aside"), ("up", "higher"),
                                     ("down", "lower")),
    ),
    "shafts": lambda line: Change(what="other_shafts", amount=line.weight("spine")),
    "nock": lambda line: Change(
        what="nock", amount=_signed(line, line.small("aside"), ("up", "higher"), ("down", "lower"))
    ),
}  # fmt: skip


def _trial(line: Line) -> e.Reading:
    if line.take_word("off", "over", "back", "none", "end"):
        return TrialSet(trial=None)
    return TrialSet(trial=_change(line))


def _wear(line: Line) -> e.Reading:
    return PlateMarked(mark=line.choice(_MARKED))


WORDS: tuple[Word, ...] = (
    Word("tail", "rig", "tail left 2 @ 3 paces", "which way the nocks point back: left or right, high or low, 1 slight, 2 clear, 3 strong, or mm", _tail),
    Word("bare", "rig", "bare 3cm left 1cm high @ 18m", "where bare shafts strike beside fletched ones", _bare),
    Word("wear", "rig", "wear plate", "a mark on felt at the side plate after six shots; “wear none”", _wear),
    Word("slap", "rig", "slap heard", "whether the shaft is heard slapping the bow; “slap none”", lambda line: SlapHeard(heard=line.choice(_HEARD))),
    Word("feathers", "rig", "feathers rubbed", "whether feathers are rubbed at their base; “feathers clean”", lambda line: FeathersSeen(rubbed=line.choice(_RUBBED))),
    Word("walkback", "rig", "walkback 10m 0, 20m 2cm left", "the same aim from growing distances, and where it strikes", _walk_back),
    Word("trial", "rig", "trial draw short 1in", "what is changed to prove a reading; “trial back” once it is put back", _trial),
    Word("shooting", "archer", "shooting ordinary", "how you shoot until your groups say it: steady, ordinary or beginning", lambda line: ShotCare(care=line.choice(_CARES))),
    Word("bareset", "rig", "bareset none", "whether there are bare shafts of this set", lambda line: FlightKit(bare_shafts=line.choice(_YES))),
    Word("feltset", "rig", "feltset none", "whether there is felt or powder to hand", lambda line: FlightKit(felt=line.choice(_YES))),
    Word("sitting", "rig", "sitting over", "to go on another day; “sitting anew”: what was seen before counts no more", lambda line: SittingEnded(anew=line.choice(_SITTINGS))),
    Word("range", "rig", "range 30m", "the furthest that can be shot", lambda line: FlightKit(longest_m=_distance(line))),
    Word("borrow", "rig", "borrow 57lb", "spine of other shafts to hand for a trial", lambda line: FlightKit(other_shafts_lbf=line.weight("spine"))),
    Word("matchfrom", "rig", "matchfrom model", "whether the match is what the flight says, or the model alone", lambda line: MatchSource(source=line.choice(_SOURCES))),
)  # fmt: skip
