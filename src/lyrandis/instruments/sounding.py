"""What the simulated microphone would hear of a rig: the rig's own numbers as a sounding body."""

from collections.abc import Sequence

from lyrandis.core.arrow.spine import stiffness
from lyrandis.core.computed import Computed
from lyrandis.core.crawls.plan import drag_of
from lyrandis.core.listen.partials import ServedString, partials_hz
from lyrandis.core.listen.shafts import ringing_as_tapped
from lyrandis.core.listen.words import TappedState
from lyrandis.instruments.microphone import USUAL_LEFT_J, Sounding

USUAL_TENSION_N, USUAL_SPEED_MPS, USUAL_SPINE_LBF = 370.0, 52.0, 52.0
USUAL_STRING = ServedString(1.36, 1.47, 0.0071, 0.0012, 0.18)
RINGS_STIFFER = {"wood": 1.06, "cane": 1.06}
RECURVED = frozenset({"hunting_recurve", "target_recurve"})


def sounding_of(
    c: Computed, *, shafts: Sequence[float] = (), state: TappedState = "bare"
) -> Sounding:
    """Return a rig as it sounds; `shafts` are how far each tapped shaft's spine lies off, a share.

    What nobody told takes usual values.
    """
    listen = c.listen
    braced = listen.braced
    string = braced.served if braced else USUAL_STRING
    tension = braced.tension.value if braced and braced.tension else USUAL_TENSION_N
    mass = c.arrow.finished.mass.value if c.arrow.finished else None
    thrust, sheet = c.bow.thrust, c.arrow.sheet
    spine = sheet.spine.value.value if sheet.spine else USUAL_SPINE_LBF
    stiffer = RINGS_STIFFER.get(sheet.material or "", 1.01)
    notes = ringing_as_tapped(sheet, state, None).notes
    return Sounding(
        notes_hz=tuple(partials_hz(string, tension, 13).tolist()),
        left_j=listen.left_j or USUAL_LEFT_J,
        recurve=1.0 if c.bow.likeness.shape.family in RECURVED else 0.2,
        speed_mps=thrust.speed(mass) if thrust and mass else USUAL_SPEED_MPS,
        drag=drag_of(mass, c.setup.arrows.part("shaft_diameter_mm")[0]).value,
        arrow_m=sheet.length_mm / 1000,
        taps_hz=tuple(
            tuple(note * (stiffness(spine * (1 + off)) * stiffer) ** 0.5 for note in notes)
            for off in shafts
        ),
    )
