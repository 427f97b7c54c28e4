"""The demo rigs, a click away."""

from contextlib import suppress

from fastapi import Request

from lyrandis.api.bounded import api_router
from lyrandis.api.context import BenchOf
from lyrandis.api.problems import CONFLICT
from lyrandis.api.routers.rigs import RigOut, named_rigs
from lyrandis.core.errors import DomainError
from lyrandis.demo.scenario import SUBJECTS, drafts, sounds
from lyrandis.sounds.recording_store import RecordingStore

router = api_router("demo")


@router.post("/demo", status_code=201, responses=CONFLICT)
def load_demo(request: Request, bench: BenchOf) -> list[RigOut]:
    """Bring the three made-up demo rigs onto this bench."""
    wanted = {subject_id for _, subject_id, _ in SUBJECTS}
    taken = wanted & {subject.id for subject in bench.subjects()}
    if taken:
        raise DomainError(
            "demo_already_there",
            "The demo rigs, or something of the same name, are already on this bench.",
            "Look in the rig list, put-away rigs included.",
        )
    bench.load(drafts(), origin="demo")
    recordings: RecordingStore = request.app.state.recordings
    put_sounds(recordings)
    return named_rigs(bench)


def put_sounds(recordings: RecordingStore) -> None:
    """Put the demo's own recordings beside its entries; without them the numbers stand alone."""
    for name, data in sounds():
        with suppress(DomainError):
            recordings.put(data, name, simulated=True)
