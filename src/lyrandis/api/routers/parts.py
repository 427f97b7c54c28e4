"""The parts on the bench: who has each, and when it was last looked over."""

from pydantic import BaseModel

from lyrandis.api.bounded import api_router
from lyrandis.api.context import BenchOf
from lyrandis.core.look_over import LookOver
from lyrandis.core.reading import PartKind
from lyrandis.core.stages import STAGES

router = api_router("subjects")

_LOOKS_OVER = {spec.looks_over.part: spec.looks_over for spec in STAGES if spec.looks_over}


class OnRig(BaseModel):
    """A rig that has the part on, and who shoots it."""

    rig: str
    name: str
    put_away: bool
    archer: str | None
    string: str | None
    """Id of the string that is on with it."""


class PartOut(BaseModel):
    """A part: what it is called, who has it, and how it was last found."""

    id: str
    kind: PartKind
    name: str
    origin: str
    on: list[OnRig]
    looked_over: LookOver | None
    """None for what is not looked over."""


@router.get("/parts")
def list_parts(bench: BenchOf) -> list[PartOut]:
    """List every archer, bow, string and arrow set: who has it, and the last look-over."""
    subjects = bench.subjects()
    names = {subject.id: subject.name for subject in subjects}
    rigs = bench.rigs_as_fitted()
    told = bench.standing_of(*(kind for one in _LOOKS_OVER.values() for kind in one.kinds))
    return [
        PartOut(
            id=part.id,
            kind=part.kind,
            name=part.name,
            origin=part.origin,
            on=[
                OnRig(
                    rig=rig.id,
                    name=rig.name,
                    put_away=away,
                    archer=names.get(fitted.archer or ""),
                    string=fitted.string,
                )
                for rig, fitted, away in rigs
                if getattr(fitted, part.kind) == part.id
            ],
            looked_over=_LOOKS_OVER[part.kind].found(told.get(part.id, ()))
            if part.kind in _LOOKS_OVER
            else None,
        )
        for part in subjects
        if part.kind != "rig"
    ]
