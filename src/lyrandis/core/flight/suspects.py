"""What was done between readings that contradict each other."""

from lyrandis.core.computed import Computed
from lyrandis.core.flight.shapes import Suspect

_SUSPECTS: dict[str, str] = {
    "nock_height": "the nocking point may have slipped, or was moved",
    "nock_locked": "the nock was fixed or freed",
    "brace_height": "the string crept, or was twisted",
    "string_turns": "the string was twisted",
    "part_fitted": "other parts were put on",
    "arrow_build": "the arrows were changed",
    "arrow_pass": "the plate was moved",
    "string_build": "the string was changed",
    "limb_bolts": "the bolts were turned",
    "setting_moved": "something was moved and not measured",
    "trial_set": "a trial was on or off",
    "hold_chosen": "the string was held otherwise",
    "anchor_chosen": "another anchor",
    "riser_weight": "the riser's weights were changed",
}
MOST_SUSPECTS = 5


def suspects(c: Computed) -> tuple[Suspect, ...]:
    """Return what was done between the first reading and the odd one, where they contradict.

    Source: the log between two instants.

    >>> from lyrandis.core.example import rig
    >>> suspects(rig())
    ()
    """
    flight = c.flight
    if not flight.verdict.contradicts:
        return ()
    seen = [
        entry.at[0] for entry in flight.log if entry.seen is not None and entry.step is not None
    ]
    result = [
        Suspect(says=recorded.reading.say(), why=_SUSPECTS[recorded.reading.kind])
        for recorded in c.setup.effective.between(seen[0], seen[-1])
        if recorded.reading.kind in _SUSPECTS
    ]
    return tuple(result[-MOST_SUSPECTS:])
