"""The rooms in order of work. A new stage is its folder and one line here."""

from typing import Annotated

from pydantic import Field

from lyrandis.core.archer.page import ArcherPage
from lyrandis.core.archer.room import ROOM as ARCHER
from lyrandis.core.arrow.page import ArrowPage
from lyrandis.core.arrow.room import ROOM as ARROW
from lyrandis.core.bow.page import BowPage
from lyrandis.core.bow.room import ROOM as BOW
from lyrandis.core.judgement import Rule
from lyrandis.core.room import Room

ROOMS: tuple[Room, ...] = (ARCHER, BOW, ARROW)
RULEBOOK: tuple[Rule, ...] = tuple(rule for room in ROOMS for rule in room.rules)
AnyPage = Annotated[ArcherPage | BowPage | ArrowPage, Field(discriminator="stage")]
