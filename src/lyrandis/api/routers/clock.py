"""What the bench's clock says."""

from lyrandis.api.bounded import api_router
from lyrandis.api.context import BenchOf
from lyrandis.core.clock import ClockCheck

router = api_router("bench")


@router.get("/clock")
def read_clock(bench: BenchOf) -> ClockCheck:
    """Return the clock beside the newest entry, and the entries that lie in the future."""
    return bench.check_clock()
