"""The arrow on the page: spine and match, the build sheet, its parts, and where it passes."""

from collections.abc import Callable, Mapping
from typing import Any

from lyrandis.core import judgement as j
from lyrandis.core.archer.stage import choice_value
from lyrandis.core.arrow.judge_spine import (
    CLEARANCE_WORDS,
    STIFFNESS_WORDS,
    from_flight,
)
from lyrandis.core.arrow.words import LENGTH_DATUM_WORDS, SHAFT_MATERIAL_WORDS
from lyrandis.core.computed import Computed
from lyrandis.core.phrase import (
    Figure,
    Phrase,
    gap,
    gr,
    gr_per_in,
    hertz,
    millis,
    mm,
    percent,
    phrase,
    ratio,
    spine,
)

_NO_SHOT = "Needs a draw length and the bow's weight"
_PARTS: tuple[tuple[str, str, Callable[[float], Figure]], ...] = (
    ("shaft_length_mm", "Shaft length", mm),
    ("shaft_gr_per_in", "Shaft per inch", gr_per_in),
    ("shaft_gr", "Bare shaft", gr),
    ("shaft_diameter_mm", "Diameter", gap),
    ("tail_taper_mm", "Tail taper", mm),
    ("tail_diameter_mm", "Tail end", gap),
    ("head_taper_mm", "Head taper", mm),
    ("head_diameter_mm", "Head end", gap),
    ("point_gr", "Point", gr),
    ("insert_gr", "Insert", gr),
    ("arrow_nock_gr", "Arrow nock", gr),
    ("fletching_gr", "Fletching", gr),
    ("fletching_length_mm", "Fletching length", mm),
    ("wrap_gr", "Wrap", gr),
)


def spine_values(c: Computed) -> list[j.Value]:
    """Return what the rig wants, what the shafts are, and how the two go together."""
    return [_wanted(c), _own(c), _verdict(c), _clearance(c), *_timing(c)]


def _wanted(c: Computed) -> j.Value:
    label = "This rig wants"
    if c.match is None or c.arrow.shooting is None:
        return j.Value(key="matched_spine", label=label, missing=_NO_SHOT)
    half = (c.match.high - c.match.low) / 2
    moved = from_flight(c)
    return j.Value(
        key="matched_spine",
        label=label,
        figure=spine(c.match.matched, half),
        detail=phrase("from your own flight") if moved else None,
        origin="measured" if moved else "estimated",
    )


def _own(c: Computed) -> j.Value:
    own = c.arrow.sheet.spine
    if own is None:
        return j.Value(key="spine", label="Your shafts", missing="Spine not told yet")
    return j.Value(
        key="spine",
        label="Your shafts",
        figure=spine(own.value.value, own.value.plus_minus),
        choice=own.standard,
        origin="measured" if own.basis == "measured" else "told",
        entries=own.entries,
    )


def _verdict(c: Computed) -> j.Value:
    label = "Your shafts are"
    if c.match is None or c.arrow.shooting is None or c.arrow.shooting.own_lbf is None:
        return j.Value(key="spine_verdict", label=label, missing="Needs their spine")
    word = c.match.word(c.arrow.shooting.own_lbf)
    return j.Value(
        key="spine_verdict",
        label=label,
        text=STIFFNESS_WORDS[word],
        choice=word,
        origin="estimated",
    )


def _clearance(c: Computed) -> j.Value:
    label = "Tail at the plate"
    if c.match is None or c.match.shot.clearance is None:
        return j.Value(key="clearance", label=label, missing="Needs their spine")
    return j.Value(
        key="clearance",
        label=label,
        text=CLEARANCE_WORDS[c.match.shot.clearance],
        choice=c.match.shot.clearance,
        origin="estimated",
    )


def _timing(c: Computed) -> list[j.Value]:
    time = j.Value(key="time_on_string", label="Time on the string", missing=_NO_SHOT)
    bends = j.Value(key="bends", label="Bends on the string", missing="Needs a spine")
    if c.match is not None:
        time = j.Value(
            key="time_on_string",
            label="Time on the string",
            figure=millis(c.match.shot.time_on_string),
            origin="estimated",
        )
        if c.match.bends_on_string is not None:
            bends = j.Value(
                key="bends",
                label="Bends on the string",
                figure=ratio(c.match.bends_on_string),
                origin="estimated",
            )
    return [time, bends]


def build_values(c: Computed) -> list[j.Value]:
    """Return what the build sheet works out: balance, forward of centre, ring, what is missing."""
    sheet = c.arrow.sheet
    if not sheet.parts:
        why = "Needs the shaft or the point"
        return [
            j.Value(key="balance", label="Balances at", missing=why),
            j.Value(key="forward", label="Forward of the middle", missing=why),
            j.Value(key="ring", label="Rings at", missing=why),
        ]
    values = [
        j.Value(
            key="balance",
            label="Balances at",
            figure=mm(sheet.balance_mm),
            origin="estimated",
        ),
        j.Value(
            key="forward",
            label="Forward of the middle",
            figure=percent(sheet.forward),
            origin="estimated",
        ),
    ]
    ring = sheet.frequency_hz
    values.append(
        j.Value(key="ring", label="Rings at", figure=hertz(ring), origin="estimated")
        if ring is not None
        else j.Value(key="ring", label="Rings at", missing="Needs a spine")
    )
    values.append(_unexplained(c))
    return values


def _unexplained(c: Computed) -> j.Value:
    label = "Unexplained"
    left = c.arrow.sheet.unexplained_gr
    if left is None or c.arrow.finished is None or c.arrow.finished.parts_mass is None:
        return j.Value(key="unexplained", label=label, missing="Needs the scale and the parts")
    more = "scale" if left >= 0 else "parts"
    return j.Value(
        key="unexplained",
        label=label,
        figure=gr(abs(left)),
        detail=phrase(f"more on the {more}"),
        origin="estimated",
    )


def part_values(c: Computed) -> list[j.Value]:
    """Return the parts as told."""
    arrows = c.setup.arrows
    values = []
    choices: tuple[tuple[str, str, Mapping[Any, str]], ...] = (
        ("material", "Shaft material", SHAFT_MATERIAL_WORDS),
        ("length_datum", "Length is measured", LENGTH_DATUM_WORDS),
    )
    for name, label, words in choices:
        told, build = arrows.part(name)
        values.append(choice_value(name, label, None if told is None else build, words))
    for key, label, figure in _PARTS:
        value, build = arrows.part(key)
        if value is None or build is None:
            values.append(j.Value(key=key, label=label, missing="Not told yet"))
            continue
        values.append(
            j.Value(
                key=key,
                label=label,
                figure=figure(value),
                origin=build.source,
                entries=(build.entry.id,),
            )
        )
    return values


def pass_values(c: Computed) -> list[j.Value]:
    """Return where the arrow passes the bow."""
    arrows = c.setup.arrows
    window, told = arrows.passing("window_mm")
    track, tracked = arrows.passing("track_mm")
    plunger, fitted = arrows.passing("plunger")
    side = c.arrow.shooting.side if c.arrow.shooting else None
    values = [
        j.Value(
            key="window",
            label="Window",
            figure=gap(abs(window)),
            detail=_where(window),
            origin=told.source,
            entries=(told.entry.id,),
        )
        if window is not None and told is not None
        else j.Value(
            key="window",
            label="Window",
            missing="Not measured yet",
            because=(phrase("Taken as {window} short of centre.", window=gap(side.window.value)),)
            if side
            else None,
        )
    ]
    values.append(
        j.Value(
            key="track",
            label="String tracks",
            figure=gap(abs(track)),
            detail=phrase("to the arrow's side" if track >= 0 else "away from the arrow"),
            origin=tracked.source,
            entries=(tracked.entry.id,),
        )
        if track is not None and tracked is not None
        else j.Value(key="track", label="String tracks", missing="Not looked at; taken as central")
    )
    values.append(
        j.Value(
            key="plunger",
            label="Side",
            text="plunger" if plunger else "hard plate",
            choice="plunger" if plunger else "plate",
            origin=fitted.source if fitted else "estimated",
            entries=(fitted.entry.id,) if fitted else (),
        )
    )
    return values


def _where(window: float) -> Phrase:
    if window == 0:
        return phrase("at centre")
    return phrase("short of centre" if window > 0 else "past centre")
