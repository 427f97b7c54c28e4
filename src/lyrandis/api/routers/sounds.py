"""Recordings over HTTP: bringing one, listening to it, looking at it, forgetting it."""

from collections.abc import Callable
from typing import Annotated, Any

from fastapi import Depends, Query, Request, Response
from fastapi.concurrency import run_in_threadpool
from pydantic import AfterValidator, BaseModel, ConfigDict, Field

from lyrandis.api.bounded import api_router
from lyrandis.api.context import RigsOf, as_json
from lyrandis.api.long_work import LONG, LongWork, LongWorkOf
from lyrandis.api.problems import NOT_FOUND
from lyrandis.api.worker import Priority, Tell
from lyrandis.core.by_ear import SoundMark
from lyrandis.core.computed import Computed
from lyrandis.core.crawls.plan import drag_of
from lyrandis.core.errors import DomainError
from lyrandis.core.listen.brought import (
    Hearing,
    Marks,
    Sounded,
    SpeedHearing,
    TapHearing,
    check_places,
    hearing,
    restruck,
    speed_hearing,
    tap_hearing,
)
from lyrandis.core.listen.hear import StringVoice
from lyrandis.core.listen.page import PairBoard, ShaftsBoard, board_of, shafts_board
from lyrandis.core.listen.readings import MOST_TAKES, TakeNumber
from lyrandis.core.listen.shafts import ringing_as_tapped
from lyrandis.core.listen.shot_time import Range
from lyrandis.core.listen.sound import Sound, at_working_rate
from lyrandis.core.listen.traces import Trace, picture, traces
from lyrandis.core.listen.words import TappedState, What
from lyrandis.core.reading import SubjectId, plain_text
from lyrandis.instruments.microphone import Faults, PhonePlace, RecordingKind, record
from lyrandis.instruments.sounding import sounding_of
from lyrandis.sounds.reading import wav_of
from lyrandis.sounds.recording_store import Kept, RecordingStore

OTHER: dict[TappedState, TappedState] = {"bare": "finished", "finished": "bare"}
router = api_router("sounds")

MOST_NUMBER = 999
_Asked = ConfigDict(extra="forbid")
Takes = Annotated[list[TakeNumber], Field(max_length=MOST_TAKES)]
NameAsked = Annotated[str, Query(min_length=1, max_length=120), AfterValidator(plain_text)]


async def _recordings(request: Request) -> RecordingStore:
    recordings: RecordingStore = request.app.state.recordings
    return recordings


RecordingsOf = Annotated[RecordingStore, Depends(_recordings)]


class Moved(BaseModel):
    """An onset put elsewhere by hand."""

    model_config = _Asked

    take: TakeNumber
    at_s: Annotated[float, Field(ge=0, le=700)]


AddedAt = Annotated[list[Annotated[float, Field(ge=0, le=700)]], Field(max_length=MOST_TAKES)]


class ToHear(BaseModel):
    """Plucks, shots or knocks to listen to."""

    model_config = _Asked

    what: What
    struck: Takes = []
    moved: Annotated[list[Moved], Field(max_length=MOST_TAKES)] = []
    added: AddedAt = []
    """Where takes that were missed begin [s]; they are numbered after those that are found."""
    same_place: bool = False


class ShotMarks(BaseModel):
    """Release and strike of a shot, put by hand."""

    model_config = _Asked

    shot: TakeNumber
    release_s: Annotated[float, Field(ge=0, le=700)]
    strike_s: Annotated[float, Field(ge=0, le=700)]


class ToTime(BaseModel):
    """Shots at a butt to listen to."""

    model_config = _Asked

    butt_m: Annotated[float, Field(ge=3, le=100)]
    """From the braced string."""
    taped: bool = False
    """Measured with a tape, not paced or told by a mark."""
    microphone_m: Annotated[float, Field(ge=0, le=20)] = 0.4
    at_butt: bool = False
    celsius: Annotated[float, Field(ge=-30, le=50)] = 15.0
    marks: Annotated[list[ShotMarks], Field(max_length=MOST_TAKES)] = []
    struck: Takes = []
    added: AddedAt = []
    """Where shots that were missed begin [s]; they are numbered in their order."""


class ToTap(BaseModel):
    """Tapped shafts to listen to."""

    model_config = _Asked

    state: TappedState = "bare"
    first: Annotated[int, Field(ge=1, le=MOST_NUMBER)] = 1
    again: Takes = []
    """Taps of the same shaft as the tap before."""
    quarter: Takes = []
    """Taps after the shaft was turned a quarter."""
    struck: Takes = []
    added: AddedAt = []
    """Where taps that were missed begin [s]; they are numbered in their order."""


class Heard(BaseModel):
    """What was heard."""

    hearing: Hearing | None = None
    speed: SpeedHearing | None = None
    taps: TapHearing | None = None


class Traces(BaseModel):
    """Takes of a kept recording, drawn."""

    traces: tuple[Trace, ...]


class SpectrogramOut(BaseModel):
    from_ms: float
    hop_ms: float
    rows_hz: tuple[float, ...]
    cells: tuple[tuple[int, ...], ...]


class Pretend(BaseModel):
    """What the simulated microphone is laid beside, and what is hidden in the bow."""

    model_config = _Asked

    what: RecordingKind
    takes: Annotated[int, Field(ge=1, le=12)] = 5
    seed: Annotated[int, Field(ge=0, le=2**31)] = 1
    noise_db: Annotated[float, Field(ge=0, le=50)] = 28.0
    """A take's loudness over the room's."""
    rattle: Annotated[float, Field(ge=0, le=1)] = 0.0
    slack: Annotated[float, Field(ge=0, le=1)] = 0.0
    brace_in: Annotated[float, Field(ge=-1, le=1)] = 0.0
    light: Annotated[float, Field(ge=0, le=0.6)] = 0.0
    contact: Annotated[float, Field(ge=0, le=1)] = 0.0
    gain_rides: bool = False
    butt_m: Annotated[float, Field(ge=3, le=100)] = 18.0
    state: TappedState = "bare"


_BODY: dict[str, Any] = {
    "requestBody": {
        "required": True,
        "content": {
            kind: {"schema": {"type": "string", "format": "binary"}}
            for kind in ("application/octet-stream", "audio/wav", "audio/flac")
        },
    }
}
_WAV: dict[int | str, dict[str, Any]] = {
    200: {"content": {"audio/wav": {}, "audio/flac": {}}, "description": "the recording"},
    **NOT_FOUND,
}


@router.post("/sounds", status_code=201, response_model=Kept, openapi_extra=_BODY)
async def keep_sound(
    request: Request, recordings: RecordingsOf, name: NameAsked = "recording", lossy: bool = False
) -> Response:
    """Keep a recording on this machine: WAV of any PCM format or FLAC, 50 MB and 3 minutes."""
    data = await request.body()
    kept = await run_in_threadpool(lambda: recordings.put(data, name, lossy=lossy))
    return as_json(kept, 201)


@router.get("/sounds")
def list_sounds(recordings: RecordingsOf) -> list[Kept]:
    """List the recordings that are kept."""
    return recordings.all()


@router.get("/sounds/{mark}", response_class=Response, responses=_WAV)
def read_sound_file(recordings: RecordingsOf, mark: SoundMark) -> Response:
    """Return a recording, to be heard."""
    about = recordings.about(mark)
    kind = "audio/flac" if about.format == "FLAC" else "audio/wav"
    return Response(recordings.data(mark), media_type=kind)


@router.delete("/sounds/{mark}", status_code=204)
def forget_sound(recordings: RecordingsOf, mark: SoundMark) -> Response:
    """Forget a recording for good; what was recorded of it in numbers stays."""
    recordings.forget(mark)
    return Response(status_code=204)


def _sound(recordings: RecordingStore, mark: str) -> Sound:
    read = recordings.read(mark)
    return at_working_rate(read.samples, float(read.head.rate_hz))


TakesAt = Annotated[list[float], Query(max_length=MOST_TAKES)]


@router.get("/sounds/{mark}/traces", response_model=Traces, responses=LONG)
async def read_traces(
    work: LongWorkOf, recordings: RecordingsOf, mark: SoundMark, at: TakesAt
) -> Response:
    """Return takes of a recording drawn from their onsets."""
    onsets = [min(max(one, 0.0), 700.0) for one in at]

    def make(_: Tell) -> Traces:
        return Traces(traces=traces(_sound(recordings, mark), onsets))

    return await work.take(("traces", mark, tuple(onsets)), make)


@router.get("/sounds/{mark}/spectrogram", response_model=SpectrogramOut, responses=LONG)
async def read_spectrogram(
    work: LongWorkOf, recordings: RecordingsOf, mark: SoundMark,
    at_s: Annotated[float, Query(ge=0, le=700)],
) -> Response:  # fmt: skip
    """Return the spectrogram of one take."""

    def make(_: Tell) -> SpectrogramOut:
        return SpectrogramOut(**picture(_sound(recordings, mark), at_s)._asdict())

    return await work.take(("spectrogram", mark, at_s), make, slot=("spectrogram", mark))


def _voice(c: Computed) -> StringVoice:
    return c.listen.braced.voice if c.listen.braced else StringVoice()


async def _listen(
    work: LongWork, mark: str, key: object, make: Callable[[Tell], Heard]
) -> Response:
    """Listen to a recording; of what is asked of one only the newest waits."""
    slot = ("listening", mark)
    return await work.take(("listening", key), make, slot=slot, priority=Priority.LISTENING)


def _named(recordings: RecordingStore, mark: str) -> Sounded:
    about = recordings.about(mark)
    return Sounded(mark, about.name, about.lossy)


@router.post("/rigs/{rig}/sounds/{mark}/hear", response_model=Heard, responses=LONG)
async def hear_sound(
    work: LongWorkOf,
    rigs: RigsOf,
    recordings: RecordingsOf,
    rig: SubjectId,
    mark: SoundMark,
    asked: ToHear,
) -> Response:
    """Listen to plucks, shots or knocks of a rig; ask again while `share` is under 1.

    Where the recording is forgotten, its takes as they were heard can still be struck out.
    """
    c = await run_in_threadpool(rigs.computed, rig)
    known = c.listen.heard(mark)
    if known is not None and not recordings.has(mark):
        reading = restruck(known.reading, asked.struck)
        return as_json(Heard(hearing=Hearing(draft=reading, troubles=(), traces=())))
    places = [*(moved.at_s for moved in asked.moved), *asked.added]
    check_places(places, recordings.about(mark).seconds)
    voice, sounded = _voice(c), _named(recordings, mark)

    def make(tell: Tell) -> Heard:
        read = recordings.read(mark)
        return Heard(
            hearing=hearing(
                read.samples, float(read.head.rate_hz), asked.what, voice, sounded,
                struck=asked.struck, moved={one.take: one.at_s for one in asked.moved},
                added=asked.added, same_place=asked.same_place, progress=tell,
            ),
        )  # fmt: skip

    return await _listen(work, mark, (mark, voice, asked.model_dump_json()), make)


@router.post("/rigs/{rig}/sounds/{mark}/time", response_model=Heard, responses=LONG)
async def time_sound(
    work: LongWorkOf,
    rigs: RigsOf,
    recordings: RecordingsOf,
    rig: SubjectId,
    mark: SoundMark,
    asked: ToTime,
) -> Response:
    """Listen to shots at a butt, and return the speed they make."""
    c, sounded = await run_in_threadpool(rigs.computed, rig), _named(recordings, mark)
    places = [*(marks.release_s for marks in asked.marks), *asked.added]
    check_places(places, recordings.about(mark).seconds)
    mass = c.arrow.finished.mass.value if c.arrow.finished else None
    drag = drag_of(mass, c.setup.arrows.part("shaft_diameter_mm")[0]).value
    # the mechanics alone: a speed that was heard before shall not draw the next one to itself
    thrust = c.bow.mechanical
    expected = thrust.speed(mass) if thrust and mass else None
    where = Range(
        butt_m=asked.butt_m, arrow_m=c.arrow.sheet.length_mm / 1000,
        microphone_m=asked.microphone_m, celsius=asked.celsius, at_butt=asked.at_butt,
        taped=asked.taped,
    )  # fmt: skip

    def make(tell: Tell) -> Heard:
        read = recordings.read(mark)
        marks = {
            one.shot: Marks(release_s=one.release_s, strike_s=one.strike_s) for one in asked.marks
        }
        return Heard(
            speed=speed_hearing(
                read.samples, float(read.head.rate_hz), where, drag, sounded,
                expected_mps=expected, marks=marks, struck=asked.struck, added=asked.added,
                progress=tell,
            ),
        )  # fmt: skip

    return await _listen(work, mark, (mark, where, drag, expected, asked.model_dump_json()), make)


@router.post("/rigs/{rig}/sounds/{mark}/tap", response_model=Heard, responses=LONG)
async def tap_sound(
    work: LongWorkOf,
    rigs: RigsOf,
    recordings: RecordingsOf,
    rig: SubjectId,
    mark: SoundMark,
    asked: ToTap,
) -> Response:
    """Listen to shafts that are tapped one after another."""
    c, sounded = await run_in_threadpool(rigs.computed, rig), _named(recordings, mark)
    check_places(asked.added, recordings.about(mark).seconds)
    ringing = ringing_as_tapped(c.arrow.sheet, asked.state, None)
    otherwise = ringing_as_tapped(c.arrow.sheet, OTHER[asked.state], None)

    def make(tell: Tell) -> Heard:
        read = recordings.read(mark)
        return Heard(
            taps=tap_hearing(
                read.samples, float(read.head.rate_hz), ringing, sounded, state=asked.state,
                otherwise=otherwise,
                first=asked.first, again=asked.again, quarter=asked.quarter, struck=asked.struck,
                added=asked.added, progress=tell,
            ),
        )  # fmt: skip

    return await _listen(work, mark, (mark, ringing, otherwise, asked.model_dump_json()), make)


@router.get("/rigs/{rig}/sounds/pair", response_model=PairBoard, responses=LONG)
async def read_pair(
    work: LongWorkOf, rig: SubjectId, before: SoundMark, after: SoundMark
) -> Response:
    """Return two chosen recordings beside each other."""
    return await work.answer(
        rig, ("pair", before, after), lambda c: board_of(c, before, after), slot="pair"
    )


@router.get("/rigs/{rig}/tapped", response_model=ShaftsBoard, responses=LONG)
async def read_tapped(
    work: LongWorkOf, rig: SubjectId, width_lbf: Annotated[float, Query(ge=0.2, le=20)] = 1.5
) -> Response:
    """Return the tapped shafts, and where a band of some width holds the most of them."""

    def board(c: Computed) -> ShaftsBoard:
        found = shafts_board(c, width_lbf)
        if found is None:
            raise DomainError(
                "no_such_entry", "No shaft was tapped yet.", "Record some taps first.", "width_lbf"
            )
        return found

    return await work.answer(rig, ("tapped", width_lbf), board, slot="tapped")


SHAFT_SPREAD = (0.0, 0.012, -0.01, 0.045, -0.004, 0.006, -0.035, 0.002, 0.015, -0.012, 0.0, 0.06)
"""How far the spines of a made-up dozen lie off, as a share."""


@router.post(
    "/rigs/{rig}/instruments/microphone", status_code=201, response_model=Kept, responses=NOT_FOUND
)
def pretend_sound(
    rigs: RigsOf, recordings: RecordingsOf, rig: SubjectId, asked: Pretend
) -> Response:
    """Let the simulated microphone record this rig; nothing of it is measured."""
    c = rigs.computed(rig)
    shafts = SHAFT_SPREAD[: asked.takes] if asked.what == "taps" else ()
    made = record(
        asked.what,
        sounding_of(c, shafts=shafts, state=asked.state),
        seed=_seed_of(rig),
        take_seed=asked.seed,
        takes=asked.takes,
        faults=Faults(asked.brace_in, asked.light, asked.contact, asked.rattle, asked.slack),
        place=PhonePlace(noise_db=asked.noise_db, gain_rides=asked.gain_rides),
        butt_m=asked.butt_m,
    )
    name = f"simulated {asked.what} {asked.seed}.wav"
    return as_json(recordings.put(wav_of(made.samples, made.rate), name, simulated=True), 201)


def _seed_of(rig: str) -> int:
    """Return a number that stays with a rig: the same bow sounds the same."""
    return sum((number + 1) * ord(letter) for number, letter in enumerate(rig))
