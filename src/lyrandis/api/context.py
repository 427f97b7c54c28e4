"""What a request needs from the app."""

from typing import Annotated

from fastapi import Depends, Request, Response
from pydantic import BaseModel

from lyrandis.store.bench import Bench


def as_json(model: BaseModel, status: int = 200) -> Response:
    """Answer with a model that is known to be valid, without checking it once more.

    The route names it as its `response_model`, so the document stays true.
    """
    return Response(model.model_dump_json(), status_code=status, media_type="application/json")


def _bench(request: Request) -> Bench:
    bench: Bench = request.app.state.bench
    return bench


BenchOf = Annotated[Bench, Depends(_bench)]
