"""What a request needs from the app."""

from typing import Annotated

from fastapi import Depends, Request, Response
from pydantic import BaseModel

from lyrandis.api.rig_cache import RigCache
from lyrandis.store.bench import Bench
from lyrandis.store.own_words import OwnWords


def as_json(model: BaseModel | bytes, status: int = 200) -> Response:
    """Answer with a model, or its JSON, that is known to be valid, without checking it once more.

    The route names it as its `response_model`, so the document stays true.
    """
    body = model if isinstance(model, bytes) else model.model_dump_json()
    return Response(body, status_code=status, media_type="application/json")


# what a request stands on is handed over at once, not by a thread of the pool
async def _bench(request: Request) -> Bench:
    bench: Bench = request.app.state.bench
    return bench


async def _rigs(request: Request) -> RigCache:
    rigs: RigCache = request.app.state.rigs
    return rigs


async def _own_words(request: Request) -> OwnWords:
    own: OwnWords = request.app.state.own_words
    return own


BenchOf = Annotated[Bench, Depends(_bench)]
OwnWordsOf = Annotated[OwnWords, Depends(_own_words)]
RigsOf = Annotated[RigCache, Depends(_rigs)]
