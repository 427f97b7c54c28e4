"""The arrow on the page: mass, grains per pound and parts, with the stage's mark."""

from lyrandis.core import judgement as j
from lyrandis.core.arrow.judge_mass import floor_sum, lightest_gpp, mass_sum
from lyrandis.core.arrow.stage_build import build_values, part_values, pass_values, spine_values
from lyrandis.core.computed import Computed
from lyrandis.core.phrase import gpp, gr, phrase

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


def stage(c: Computed, findings: list[j.Finding]) -> j.Stage:
    """Return the arrow's stage: finished mass, grains per pound, floor and parts."""
    mass = _mass_value(c)
    moved = next((f.sentence.text() for f in findings if f.id == "arrow-changed"), None)
    return j.Stage(
        key="arrow",
        number=3,
        name="Arrow",
        mark=_mark(c, moved),
        headline=mass,
        detail=phrase("{gpp}", gpp=gpp(c.gpp.value)) if c.gpp else None,
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


def _mark(c: Computed, moved: str | None) -> j.Mark:
    if c.arrow is None:
        return "unset"
    if moved:
        return "in_doubt"
    return "settled" if c.arrow.basis == "weighed" else "estimated"


def _mass_value(c: Computed) -> j.Value:
    label = "Finished mass"
    if c.arrow is None:
        return j.Value(key="arrow_mass", label=label, missing="No arrow weighed or built yet")
    sources = [recorded.source for recorded in c.arrow.weighed]
    return j.Value(
        key="arrow_mass",
        label=label,
        figure=gr(c.arrow.mass.value, c.arrow.mass.plus_minus),
        origin=j.weakest(*sources) if sources else "estimated",
        entries=tuple(recorded.entry.id for recorded in c.arrow.weighed),
        because=mass_sum(c.arrow),
    )


def _gpp_values(c: Computed) -> list[j.Value]:
    floor = c.floor.grains_per_pound
    values = []
    if c.gpp is None:
        why = "Needs a draw length, a bow's weight and an arrow's mass"
        values.append(j.Value(key="gpp", label="Grains per pound", missing=why))
    else:
        light = lightest_gpp(c)
        values.append(
            j.Value(
                key="gpp",
                label="Grains per pound",
                figure=gpp(c.gpp.value, c.gpp.plus_minus),
                origin=_gpp_origin(c),
                because=floor_sum(c, light) if light else (),
            )
        )
    values.append(
        j.Value(
            key="floor",
            label="Bowyer's minimum" if c.floor.basis == "bowyer" else "Computed floor",
            figure=gpp(floor, c.floor.plus_minus or None),
            origin=c.floor.recorded.source if c.floor.recorded else "rule",
            entries=(c.floor.recorded.entry.id,) if c.floor.recorded else (),
        )
    )
    if c.weight is not None and c.weight_is_own:
        values.append(
            j.Value(
                key="floor_mass",
                label="Lightest arrow for this bow",
                figure=gr(floor * c.weight.weight.value),
                origin="rule",
            )
        )
    return values


def _gpp_origin(c: Computed) -> j.Origin:
    assert c.weight is not None
    assert c.draw is not None
    sources: list[j.Origin] = [point.recorded.source for point in c.weight.points]
    sources += [reading.recorded.source for reading in c.draw.used]
    mass = _mass_value(c).origin
    if c.weight.basis == "mark" or c.draw.basis == "guess":
        sources.append("estimated")
    return j.weakest(*sources, mass or "estimated")
