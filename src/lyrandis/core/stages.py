"""The stages in order of work. A new stage is its folder and one line in `STAGES`."""

from typing import TYPE_CHECKING, Annotated, Union, get_type_hints

from pydantic import Field

from lyrandis.core.archer.spec import SPEC as ARCHER
from lyrandis.core.arrow.spec import SPEC as ARROW
from lyrandis.core.bow.spec import SPEC as BOW
from lyrandis.core.crawls.spec import SPEC as CRAWLS
from lyrandis.core.flight.spec import SPEC as FLIGHT
from lyrandis.core.judgement import Rule
from lyrandis.core.listen.spec import SPEC as LISTEN
from lyrandis.core.nock.spec import SPEC as NOCK
from lyrandis.core.stage_spec import Page, StageSpec
from lyrandis.core.string.spec import SPEC as STRING

STAGES: tuple[StageSpec, ...] = (ARCHER, BOW, ARROW, STRING, NOCK, FLIGHT, CRAWLS, LISTEN)
RULEBOOK: tuple[Rule, ...] = tuple(rule for spec in STAGES for rule in spec.rules)

if TYPE_CHECKING:
    AnyPage = Page
else:
    AnyPage = Annotated[
        Union[tuple(get_type_hints(spec.page)["return"] for spec in STAGES)],  # noqa: UP007
        Field(discriminator="stage"),
    ]
    """Geometry of any stage's pages, told apart by the stage's key."""
