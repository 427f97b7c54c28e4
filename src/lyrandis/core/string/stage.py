"""The string on the page: its brace and what is known of it, with the stage's mark."""

from collections.abc import Callable

from lyrandis.core import judgement as j
from lyrandis.core.archer.stage import choice_value
from lyrandis.core.computed import Computed
from lyrandis.core.effective import Recorded
from lyrandis.core.phrase import Figure, Phrase, count, gap, gr, mm, phrase
from lyrandis.core.stage_spec import Ask, plain_ask
from lyrandis.core.string.readings import StringBuild
from lyrandis.core.string.words import STRING_MATERIAL_WORDS, STRING_TYPE_WORDS

CAUTIONS = (
    j.Caution(
        id="stringer",
        text="Use a stringer; the larger loop goes on the upper limb. Look at strands, servings "
        "and loops every time.",
    ),
    j.Caution(id="low-brace", text="A low brace can slap the arm: wear a guard."),
)


def stage(c: Computed, findings: list[j.Finding]) -> j.Standing:
    """Return the string's stage."""
    brace = _brace_value(c)
    return j.Standing(
        mark=_mark(c),
        headline=brace.key,
        detail=_detail(c),
        answer=_answer(c),
        moved=next((f.sentence for f in findings if f.severity == "stop"), None),
        values=(brace, *_string_values(c)),
        cautions=CAUTIONS,
    )


def _mark(c: Computed) -> j.Mark:
    if c.setup.string.brace_height is None:
        return "unset"
    quiet = c.string.quiet
    result = quiet is not None and quiet.enough and c.string.settled is not False
    return "settled" if result or c.string.settled else "estimated"


def _answer(c: Computed) -> Phrase:
    brace, quiet = c.string.brace, c.string.quiet
    if brace is None or c.setup.string.brace_height is None:
        return phrase("The brace height is not read with this string yet.")
    figures = {"brace": mm(brace.value)}
    if quiet is not None and quiet.enough:
        return phrase("It is braced at {brace}, and its quiet brace is found.", **figures)
    if c.string.settled is False:
        return phrase("It is braced at {brace}, and the string still settles.", **figures)
    return phrase("It is braced at {brace}; the quiet brace is not sought to its end.", **figures)


def _detail(c: Computed) -> Phrase | None:
    facts = c.setup.string
    said = [
        STRING_MATERIAL_WORDS[facts.material] if facts.material else "",
        f"{facts.strands} strands" if facts.strands else "",
    ]
    words = ", ".join(filter(None, said))
    return phrase(words) if words else None


def _brace_value(c: Computed) -> j.Value:
    read, brace = c.setup.string.brace_height, c.string.brace
    if read is None or brace is None:
        return j.Value(key="brace", label="Brace", missing="Not read with this string yet")
    return j.Value(
        key="brace",
        label="Brace",
        figure=mm(brace.value, brace.plus_minus),
        origin=read.source,
        entries=(read.entry.id,),
    )


def _string_values(c: Computed) -> list[j.Value]:
    facts = c.setup.string
    turns = facts.turns[-1] if facts.turns else None
    return [
        choice_value("material", "Fibre", _told(c, "material"), STRING_MATERIAL_WORDS),
        choice_value("string_type", "Made as", _told(c, "string_type"), STRING_TYPE_WORDS),
        _plain(c, "string_length", "Length, strung", "string_length_mm", mm),
        _plain(c, "strands", "Strands", "strands", count),
        _plain(c, "bundle", "Bundle", "bundle_mm", gap),
        _plain(c, "thread", "Serving thread", "thread_mm", gap),
        _plain(c, "serving", "Serving", "serving_mm", mm),
        _plain(c, "silencers", "Silencers", "silencers_gr", gr),
        j.Value(
            key="turns",
            label="Turns now",
            figure=count(turns.reading.turns) if turns else None,
            origin=turns.source if turns else None,
            entries=(turns.entry.id,) if turns else (),
            missing=None if turns else "Not counted yet",
        ),
    ]


def _told(c: Computed, name: str) -> Recorded[StringBuild] | None:
    builds = c.setup.string.builds
    return next((b for b in reversed(builds) if getattr(b.reading, name) is not None), None)


def _plain(
    c: Computed, key: str, label: str, name: str, figure: Callable[[float], Figure]
) -> j.Value:
    told = _told(c, name)
    said: Figure | None = figure(getattr(told.reading, name)) if told else None
    return j.Value(
        key=key,
        label=label,
        figure=said,
        origin=told.source if told else None,
        entries=(told.entry.id,) if told else (),
        missing=None if told else "Not told yet",
    )


def missing(_: Computed) -> j.NextStep | None:
    """The string is asked for by the order of work."""
    return None


def unchecked(c: Computed) -> tuple[j.Unchecked, ...]:
    """Return what of the string nobody has read yet."""
    if c.setup.string.brace_height is not None:
        return ()
    known = c.setup.bow.family is not None or c.setup.bow.length is not None
    what = phrase("the brace height")
    return (j.Unchecked(what=what, step=_READ_BRACE if known else None, turn=4),)


_READ_BRACE = j.NextStep(
    title=phrase("Read the brace height"),
    why=phrase("Too low it slaps the arm and strains the limbs, too high it strains them too."),
    tells=phrase("Nock height, weight and spine stand on it."),
    minutes=2,
    action=j.Action(label="Enter the reading", stage="string", control="brace"),
    aside="brace",
)
ASKS = (
    plain_ask(
        11,
        lambda setup: setup.bow.brace_range is None and setup.string.brace_height is not None,
        "Enter the maker's brace heights",
        "The quiet brace is sought between them.",
        "string",
        "bracerange",
    ),
    Ask(12, lambda c: c.order.step),
)
