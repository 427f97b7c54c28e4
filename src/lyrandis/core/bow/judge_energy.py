"""Judging the bow's energy by a chronograph: what breaks it, what calibrates it."""

from functools import partial

from lyrandis.core import judgement as j
from lyrandis.core.bow.thrust import LOST, RETURNED_SD, VIRTUAL_MASS_SD, Clocked
from lyrandis.core.computed import Computed
from lyrandis.core.constants import KG_PER_GRAIN
from lyrandis.core.estimate import Estimate
from lyrandis.core.phrase import Phrase, gr, joules, mps, phrase

RULES: tuple[j.Rule, ...] = (
    j.Rule(
        id="stored-energy",
        stage="bow",
        title="Energy, virtual mass and speed",
        statement="The area under the draw curve is the energy stored; about "
        f"{100 * LOST['hunting_recurve']:.0f} % of it is lost as heat. Arrow and bow share the "
        "rest by mass: the bow counts with its virtual mass, what of limbs, tips and string "
        f"moves with the arrow. Speed is good to about {100 * RETURNED_SD:.0f} % and virtual "
        f"mass to about {200 * VIRTUAL_MASS_SD:.0f} % until a chronograph is read.",
        school="Mechanics",
        source="Work and kinetic energy of a mechanism with one degree of freedom. Virtual mass "
        "holds near 8 to 12 grains per pound; it falls with heavier arrows.",
    ),
    j.Rule(
        id="chronograph",
        stage="bow",
        title="What a chronograph settles",
        statement="One reading draws the energy that comes back to what was measured; two with "
        "arrows far apart in mass tell energy and virtual mass from each other. A reading whose "
        "arrow carries more than the bow stores is set aside.",
        school="Measuring practice",
        source="Least squares with the mechanics' doubt as the prior; a reading is taken as good "
        "to 1.2 % of speed, Lyrandis's own assumption.",
    ),
)
_SPEED = j.Action(label="Look at the speeds", stage="bow", control="speed")
_finding = partial(j.found, "bow")


def judge(c: Computed) -> list[j.Finding]:
    """Return the findings on chronograph readings."""
    calibration = c.bow.calibration
    if calibration is None:
        return []
    wrong = [_judge_wrong(clocked, calibration.after.stored_j) for clocked in calibration.readings]
    return [finding for finding in wrong if finding is not None][:1] or _judge_calibrated(c)


def _judge_wrong(clocked: Clocked, stored_j: Estimate) -> j.Finding | None:
    if not clocked.impossible and not clocked.off:
        return None
    speed = clocked.recorded.reading.speed_mps
    carried = clocked.mass_gr * KG_PER_GRAIN * speed**2 / 2
    figures = {
        "speed": mps(speed),
        "mass": gr(clocked.mass_gr),
        "carried": joules(carried),
        "stored": joules(stored_j.value, stored_j.plus_minus),
        "expected": mps(clocked.before.value, clocked.before.plus_minus),
    }
    if clocked.impossible:
        text = (
            "{mass} at {speed} carries {carried}; this bow stores {stored}. Check speed, mass and "
            "draw. The reading is set aside."
        )
    else:
        text = (
            "{mass} at {speed} does not go with this bow: {expected} is expected. Check speed, "
            "mass and draw." + (" It waits until a second agrees." if clocked.aside else "")
        )
    return _finding(
        "speed-impossible" if clocked.impossible else "speed-off",
        "mend" if clocked.impossible else "watch",
        phrase(text, **figures),
        (
            phrase("{mass} at {speed} is {carried}.", **figures),
            phrase("Stored at your draw {stored}.", **figures),
        ),
        _SPEED,
        rule="chronograph",
    )


def _judge_calibrated(c: Computed) -> list[j.Finding]:
    calibration = c.bow.calibration
    if calibration is None or not calibration.used:
        return []
    last = calibration.used[-1]
    after = calibration.after.speed_estimate(last.mass_gr)
    count = len(calibration.used)
    return [
        _finding(
            "chronograph",
            "good",
            phrase(
                f"{count} chronograph reading{'s' * (count > 1)}: {{mass}} was expected at "
                "{before}, and is now {after}.",
                mass=gr(last.mass_gr),
                before=mps(last.before.value, last.before.plus_minus),
                after=mps(after.value, after.plus_minus),
            ),
            energy_sum(c),
        )
    ]


def energy_sum(c: Computed) -> tuple[Phrase, ...]:
    """Return the lines from stored energy to virtual mass, before and after a chronograph."""
    if c.bow.thrust is None:
        return ()
    stored = joules(c.bow.thrust.stored_j.value, c.bow.thrust.stored_j.plus_minus)
    lines = [phrase("Stored {stored}, the area under the curve.", stored=stored)]
    stages = [("By the mechanics", c.bow.calibration.before if c.bow.calibration else c.bow.thrust)]
    if c.bow.calibration and c.bow.calibration.used:
        stages.append(("By the chronograph", c.bow.calibration.after))
    lines += [
        phrase(
            f"{who} {{back}} comes back and the bow's virtual mass is {{mass}}.",
            back=joules(thrust.returned_j, 2 * thrust.returned_sd * thrust.returned_j),
            mass=gr(thrust.virtual_mass_gr, 2 * thrust.virtual_mass_sd * thrust.virtual_mass_gr),
        )
        for who, thrust in stages
    ]
    return tuple(lines)
