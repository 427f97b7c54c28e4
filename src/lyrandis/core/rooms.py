"""The rooms in order of work. A new stage is its folder and one line in `ROOMS`."""

from typing import TYPE_CHECKING, Annotated, Union, get_type_hints

from pydantic import Field

from lyrandis.core.archer.room import ROOM as ARCHER
from lyrandis.core.arrow.room import ROOM as ARROW
from lyrandis.core.bow.room import ROOM as BOW
from lyrandis.core.crawls.room import ROOM as CRAWLS
from lyrandis.core.flight.room import ROOM as FLIGHT
from lyrandis.core.judgement import Rule
from lyrandis.core.listen.room import ROOM as LISTEN
from lyrandis.core.nock.room import ROOM as NOCK
from lyrandis.core.room import Page, Room
from lyrandis.core.string.room import ROOM as STRING

ROOMS: tuple[Room, ...] = (ARCHER, BOW, ARROW, STRING, NOCK, FLIGHT, CRAWLS, LISTEN)
RULEBOOK: tuple[Rule, ...] = tuple(rule for room in ROOMS for rule in room.rules)

if TYPE_CHECKING:
    AnyPage = Page
else:
    AnyPage = Annotated[
        Union[tuple(get_type_hints(room.page)["return"] for room in ROOMS)],  # noqa: UP007
        Field(discriminator="stage"),
    ]
    """Geometry of any stage's pages, told apart by the stage's key."""
