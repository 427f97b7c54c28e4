"""What is refused before the app sees it: other hosts, cross-site writes, endless bodies."""

import asyncio
import re
from urllib.parse import urlsplit

from starlette.datastructures import Headers, MutableHeaders
from starlette.types import ASGIApp, Message, Receive, Scope, Send

from lyrandis.api.problems import problem_of, respond
from lyrandis.core.errors import DomainError

MOST_BODY_BYTES = 1_000_000
MOST_BYTES_OF = {"/api/logbooks": 12_000_000, "/api/sounds": 50_000_000}
"""A saved logbook is brought in whole, and so is a recording."""
BARE_BODIES = {"/api/sounds": frozenset({"application/octet-stream", "audio/wav", "audio/flac"})}
"""Where a body is no JSON."""
_OWN_HOST = re.compile(r"(?:127\.0\.0\.1|localhost|\[::1\])(?::[0-9]{1,5})?", re.IGNORECASE)
BODY_SECONDS = 20.0
"""A body that has not come by then is not waited for."""
_JSON = frozenset({"application/json"})
_READING = frozenset({"GET", "HEAD", "OPTIONS"})
_HEADERS = {
    "content-security-policy": "default-src 'none'; script-src 'self'; style-src 'self'; "
    "img-src 'self' data:; font-src 'self'; media-src 'self' blob:; connect-src 'self'; "
    "manifest-src 'self'; "
    "base-uri 'none'; form-action 'none'; frame-ancestors 'none'",
    "x-content-type-options": "nosniff",
    "referrer-policy": "no-referrer",
    "cross-origin-opener-policy": "same-origin",
    "cross-origin-resource-policy": "same-origin",
}


class RequestGuard:
    """ASGI middleware in front of everything."""

    def __init__(self, app: ASGIApp, page: str | None = None) -> None:
        """`page` names the build of the page: a page of another build can tell."""
        self._app = app
        self._headers = {**_HEADERS, **({"x-lyrandis-page": page} if page else {})}

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] != "http":
            await self._app(scope, receive, send)
            return

        async def send_with_headers(message: Message) -> None:
            if message["type"] == "http.response.start":
                headers = MutableHeaders(scope=message)
                for name, value in self._headers.items():
                    headers[name] = value
                if scope["path"].startswith("/api"):
                    headers["cache-control"] = "no-store"
            await send(message)

        try:
            check_request(scope["method"], Headers(scope=scope), scope["path"])
            if scope["method"] not in _READING:
                receive = _replay(await _body_in_time(scope, receive), receive)
        except DomainError as error:
            await respond(problem_of(error))(scope, receive, send_with_headers)
            return
        await self._app(scope, receive, send_with_headers)


def _check_reading(path: str, headers: Headers) -> None:
    """Raise `DomainError` when another site's page asks for readings."""
    if path.startswith("/api") and headers.get("sec-fetch-site") in ("cross-site", "same-site"):
        raise DomainError(
            "foreign_site",
            "Another site tried to read from this bench.",
            "Look at it in Lyrandis's own page.",
        )


def check_request(method: str, headers: Headers, path: str = "/api") -> None:
    """Raise `DomainError` for another host's name, a cross-site write or a body that is no JSON."""
    host = headers.get("host", "")
    if not _OWN_HOST.fullmatch(host):
        raise DomainError(
            "foreign_host",
            "This bench answers only under this machine's own name.",
            "Open it as http://127.0.0.1 with its port.",
        )
    if method in _READING:
        _check_reading(path, headers)
        return
    origin = headers.get("origin")
    foreign_origin = origin is not None and _host_of(origin) != host
    if foreign_origin or headers.get("sec-fetch-site", "same-origin") not in (
        "same-origin",
        "none",
    ):
        raise DomainError(
            "foreign_site",
            "Another site tried to write to this bench.",
            "Record from Lyrandis's own page.",
        )
    kind = headers.get("content-type", "").split(";")[0].strip().lower()
    has_body = headers.get("content-length", "0") != "0" or "transfer-encoding" in headers
    if has_body and kind not in BARE_BODIES.get(path, _JSON):
        raise DomainError(
            "not_json", "Readings are sent as JSON.", "Set the content type to application/json."
        )


def _host_of(origin: str) -> str | None:
    """Return the host an origin names; None for what is no address."""
    try:
        return urlsplit(origin).netloc
    except ValueError:
        return None


async def _body_in_time(scope: Scope, receive: Receive) -> bytes:
    try:
        return await asyncio.wait_for(_bounded_body(scope, receive), BODY_SECONDS)
    except TimeoutError:
        raise DomainError(
            "too_slow", "What was sent did not arrive whole.", "Send it again."
        ) from None


async def _bounded_body(scope: Scope, receive: Receive) -> bytes:
    most = MOST_BYTES_OF.get(scope["path"], MOST_BODY_BYTES)
    too_large = DomainError(
        "body_too_large",
        "That is more than this bench takes at once.",
        f"Send at most {most // 1000} kB at a time.",
    )
    length = Headers(scope=scope).get("content-length", "")
    if length.isdecimal() and int(length) > most:
        raise too_large
    pieces: list[bytes] = []
    size = 0
    more = True
    while more:
        message = await receive()
        if message["type"] == "http.disconnect":
            # what came so far is a part: nothing is to be made of it
            raise DomainError("broken_off", "What was sent broke off on its way.", "Send it again.")
        piece = message.get("body", b"")
        pieces.append(piece)
        size += len(piece)
        more = message.get("more_body", False)
        if size > most:
            raise too_large
    return b"".join(pieces)


def _replay(body: bytes, receive: Receive) -> Receive:
    sent = False

    async def again() -> Message:
        nonlocal sent
        if sent:
            return await receive()
        sent = True
        return {"type": "http.request", "body": body, "more_body": False}

    return again
