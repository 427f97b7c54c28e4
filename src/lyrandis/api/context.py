"""What a request needs from the app."""

from typing import Annotated

from fastapi import Depends, Request

from lyrandis.store.bench import Bench


def _bench(request: Request) -> Bench:
    bench: Bench = request.app.state.bench
    return bench


BenchOf = Annotated[Bench, Depends(_bench)]
