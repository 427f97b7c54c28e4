"""The field helper as one file: the built page with its script, style, font and table inside."""

import base64
import re
from pathlib import Path

from pydantic import BaseModel
from starlette.exceptions import HTTPException

_SCRIPT = re.compile(r'<script type="module"[^>]*src="/(?P<path>[^"]+)"></script>')
_STYLE = re.compile(r'<link rel="stylesheet"[^>]*href="/(?P<path>[^"]+)">')
_FACE = re.compile(r"@font-face\s*{[^}]*}")
_FONT = re.compile(r"url\(['\"]?/(?P<path>[^)'\"]+[.]woff2)['\"]?\)")
_CARRIED_FONT = "-latin-wght"
"""Figures and Latin letters; other scripts are written in the phone's own type."""
_ICON = re.compile(r"<link rel=\"icon\"[^>]*>")
_OFFLINE = (
    '<meta http-equiv="content-security-policy" content="default-src \'none\'; '
    "script-src 'unsafe-inline'; style-src 'unsafe-inline'; font-src data:; img-src data:\">"
)
FIELD_PAGE = "field.html"


def carried_page(static: Path, table: BaseModel) -> str:
    """Return the field helper with everything inside, for a phone that reaches no server.

    Raises `HTTPException` where the page was not built. Its own policy forbids it any network.
    """
    page = static / FIELD_PAGE
    if not page.is_file():
        raise HTTPException(404)
    html = page.read_text(encoding="utf-8")
    script = style = ""
    if found := _SCRIPT.search(html):
        script = (static / found["path"]).read_text(encoding="utf-8")
    if found := _STYLE.search(html):
        style = _with_fonts(static, (static / found["path"]).read_text(encoding="utf-8"))
    html = _ICON.sub("", _STYLE.sub("", _SCRIPT.sub("", html)))
    # a closing tag inside a script or its data would end it
    data = table.model_dump_json().replace("<", "\\u003c")
    script = script.replace("</script", "<\\/script")
    inside = (
        f"{_OFFLINE}<style>{style}</style>"
        f'<script type="application/json" id="carried">{data}</script>'
    )
    html = html.replace("</head>", f"{inside}</head>")
    return html.replace("</body>", f'<script type="module">{script}</script></body>')


def _with_fonts(static: Path, style: str) -> str:
    def inline(found: re.Match[str]) -> str:
        font = base64.b64encode((static / found["path"]).read_bytes()).decode()
        return f"url(data:font/woff2;base64,{font})"

    def face(found: re.Match[str]) -> str:
        return _FONT.sub(inline, found[0]) if _CARRIED_FONT in found[0] else ""

    return _FACE.sub(face, style)
