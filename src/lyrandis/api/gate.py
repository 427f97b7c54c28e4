"""The gate before the app: own host only, no cross-site writes, bounded bodies, strict headers."""

from urllib.parse import urlsplit

from starlette.datastructures import Headers, MutableHeaders
from starlette.types import ASGIApp, Message, Receive, Scope, Send

from lyrandis.api.problems import problem_of, respond
from lyrandis.core.errors import DomainError

MOST_BODY_BYTES = 1_000_000
_OWN_HOSTS = frozenset({"127.0.0.1", "localhost", "[::1]", "::1"})
_READING = frozenset({"GET", "HEAD", "OPTIONS"})
_HEADERS = {
    "content-security-policy": "default-src 'none'; script-src 'self'; style-src 'self'; "
    "img-src 'self' data:; font-src 'self'; connect-src 'self'; manifest-src 'self'; "
    "base-uri 'none'; form-action 'none'; frame-ancestors 'none'",
    "x-content-type-options": "nosniff",
    "referrer-policy": "no-referrer",
    "cross-origin-opener-policy": "same-origin",
    "cross-origin-resource-policy": "same-origin",
}


class Gate:
    """ASGI middleware in front of everything."""

    def __init__(self, app: ASGIApp) -> None:
        self._app = app

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] != "http":
            await self._app(scope, receive, send)
            return

        async def send_with_headers(message: Message) -> None:
            if message["type"] == "http.response.start":
                headers = MutableHeaders(scope=message)
                for name, value in _HEADERS.items():
                    headers[name] = value
                if scope["path"].startswith("/api"):
                    headers["cache-control"] = "no-store"
            await send(message)

        try:
            check_request(scope["method"], Headers(scope=scope))
            body = await _bounded_body(scope, receive)
        except DomainError as error:
            await respond(problem_of(error))(scope, receive, send_with_headers)
            return
        await self._app(scope, _replay(body, receive), send_with_headers)


def check_request(method: str, headers: Headers) -> None:
    """Raise `DomainError` for another host's name, a cross-site write or a body that is no JSON."""
    host = headers.get("host", "")
    if _without_port(host) not in _OWN_HOSTS:
        raise DomainError(
            "foreign_host",
            "This bench answers only under this machine's own name.",
            "Open it as http://127.0.0.1 with its port.",
        )
    if method in _READING:
        return
    origin = headers.get("origin")
    foreign_origin = origin is not None and urlsplit(origin).netloc != host
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
    if has_body and kind != "application/json":
        raise DomainError(
            "not_json", "Readings are sent as JSON.", "Set the content type to application/json."
        )


def _without_port(host: str) -> str:
    if host.startswith("["):
        return host.split("]")[0] + "]"
    return host.rsplit(":", 1)[0] if ":" in host else host


async def _bounded_body(scope: Scope, receive: Receive) -> bytes:
    if scope["method"] in _READING:
        return b""
    too_large = DomainError(
        "body_too_large",
        "That is more than this bench takes at once.",
        f"Send at most {MOST_BODY_BYTES // 1000} kB at a time.",
    )
    length = Headers(scope=scope).get("content-length", "")
    if length.isdecimal() and int(length) > MOST_BODY_BYTES:
        raise too_large
    body = b""
    more = True
    while more:
        message = await receive()
        if message["type"] == "http.disconnect":
            break
        body += message.get("body", b"")
        more = message.get("more_body", False)
        if len(body) > MOST_BODY_BYTES:
            raise too_large
    return body


def _replay(body: bytes, receive: Receive) -> Receive:
    sent = False

    async def again() -> Message:
        nonlocal sent
        if sent:
            return await receive()
        sent = True
        return {"type": "http.request", "body": body, "more_body": False}

    return again
