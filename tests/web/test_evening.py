"""One whole evening on the page, by the card's buttons alone: three rigs whose truth we know."""

import math
import re
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np
import pytest
from playwright.sync_api import Page, expect

from lyrandis.core.computed import compute
from lyrandis.core.flight.curves import Curves, Touch, UprightCurves, contact
from lyrandis.core.flight.evidence import reckon
from lyrandis.core.flight.likely import angle_class
from lyrandis.core.jot import parse
from lyrandis.core.setup import fold
from tests.entries import entries
from tests.web.wire import Wire

RECURVE = (
    "hand right", "hold split", "draw 28", "hook 1/2", "anchor mouth", "family hunting recurve",
    "bow 62", "riser 17", "kit rest", "limit 31", "string 59 16 strands", "settled string",
    "brace 8 grip", "turns 20", "scale 45.5 @ 28 1/2", "scale 43.3 @ 27 1/2", "inspect all good",
    "material carbon", "shaft 29 1/2", "point 110gr", "insert 12gr", "diameter 7mm", "window 2mm",
    "window plate", "arrow 1 400gr", "arrow 1 sound",
)  # fmt: skip
LONGBOW = (
    "hand right", "hold split", "draw 28", "hook 1/2", "anchor mouth", "family straight longbow",
    "bow 68", "kit plain", "limit 31", "string 65 16 strands", "fibre polyester",
    "settled string", "turns 20", "brace 6 3/4 grip", "scale 45 @ 28 1/2", "scale 42.8 @ 27 1/2",
    "inspect all good", "material wood", "shaft 29 1/2", "point 125gr", "diameter 8.7mm",
    "window 5mm", "arrow 1 450gr", "arrow 1 sound",
)  # fmt: skip
AS_COMPUTED = contact(Touch.BOTH)
FAR = 400.0
"""Half the butt that is shown [mm]."""
MOST_STEPS = 70
PUSHES = {"draw_short": 0.5 / 25.4, "draw_extra": -0.3 / 12.7, "plate": 0.15, "silencers": 0.01,
          "point": -0.012}  # fmt: skip


@dataclass
class Truth:
    """What is so of a rig: its shaft's index, and how far its nock stands too low, in 2 mm."""

    curves: Curves
    own_lbf: float
    index: float
    nock: float = 0.0

    def shifted(self, trial: dict[str, Any] | None) -> tuple[float, float]:
        if trial is None:
            return self.index, self.nock
        what, amount = trial["what"], trial["amount"]
        if what == "other_shafts":
            return self.index + 10 * math.log(amount / self.own_lbf), self.nock
        if what == "nock":
            return self.index, self.nock - amount / 2
        return self.index + PUSHES[what] * amount, self.nock

    def tail(self, trial: dict[str, Any] | None) -> tuple[int, int]:
        """Return the classes seen across and up, - weak and - nock high."""
        index, nock = self.shifted(trial)
        across = float(self.curves.tail(np.array(index), AS_COMPUTED))
        up = float(UprightCurves().tail(np.array(nock), AS_COMPUTED))
        return angle_class(across) - 3, angle_class(up) - 3

    def bare(self) -> tuple[float, float]:
        """Return where bare shafts strike [mm], + stiff and + high."""
        across = 1000 * float(self.curves.bare(np.array(self.index), AS_COMPUTED, 18.0))
        up = 1000 * float(UprightCurves().bare(np.array(self.nock), AS_COMPUTED, 18.0))
        return max(-FAR, min(FAR, across)), max(-FAR, min(FAR, up))


def made(wire: Wire, name: str, lines: Sequence[str]) -> str:
    """Make a rig of its own from jot lines; return its id."""
    readings: dict[str, list[Any]] = {}
    for line in lines:
        said = parse(line)
        reading = said.reading.model_dump(mode="json", exclude_none=True)
        readings.setdefault(said.subject, []).append({"reading": reading})
    parts = {
        kind: {"name": f"{name} {kind}", "readings": told}
        for kind, told in readings.items()
        if kind != "rig"
    }
    answer = wire.client.post("/api/rigs", json={"name": name, **parts})
    assert answer.status_code == 201, answer.text
    rig: str = answer.json()["rig"]
    subject = {"kind": "rig", "id": rig}
    own = [{"subject": subject, **one} for one in readings.get("rig", [])]
    answer = wire.client.post("/api/entries", json={"entries": own})
    assert answer.status_code == 201, answer.text
    return rig


def truth_of(lines: Sequence[str], index: float, nock: float = 0.0) -> Truth:
    c = compute(fold(entries(*lines)))
    assert c.flight.basis.asked is not None
    return Truth(reckon(c.flight.basis.asked).curves, c.flight.basis.own_lbf or 0.0, index, nock)


class EveningOnThePage:
    """Somebody who does what the card says, and puts down what is to be seen."""

    def __init__(self, wire: Wire, rig: str, truth: Truth, *, looks_up: bool) -> None:
        self.wire, self.rig, self.truth, self.looks_up = wire, rig, truth, looks_up
        self.page: Page = wire.open(f"/rigs/{rig}/flight")
        self.titles: list[str] = []

    def get(self, path: str) -> Any:
        return self.wire.client.get(f"/api/rigs/{self.rig}{path}").json()

    @property
    def card(self) -> Any:
        return self.page.get_by_role("complementary").locator("section.card")

    def settled(self) -> Any:
        """Wait until the card says the step the bench has; return that step."""
        for _ in range(200):
            if "sentence" in self.get("/flight") and not self.get("").get("reckoning"):
                break
            self.page.wait_for_timeout(100)
        step = self.get("")["next_step"]
        expect(self.card.locator("h2")).to_contain_text(step["title"]["template"].split("{")[0])
        self.titles.append(" ".join(self.card.locator("h2").inner_text().split()))
        return step

    def see(self) -> None:
        """Put down what the test that is asked for shows, on the page's own forms."""
        expect(self.page).to_have_url(re.compile("/flight/record$"))
        asked = self.get("?page=flight")["page"]
        sees = asked["asked"]["sees"] if asked.get("asked") else "tail"
        if sees == "tail":
            self._tail(asked.get("trial"))
        elif sees == "bare":
            self._hits(asked["asked"]["arrows"])
        else:
            struck = float(self.truth.curves.strike(np.array(self.truth.index), AS_COMPUTED))
            name = ("mark" if struck > 0.008 else "no mark") if sees == "mark" else "no"
            self.page.get_by_role("button", name=name, exact=True).click()

    def _tail(self, trial: dict[str, Any] | None) -> None:
        across, up = self.truth.tail(trial)
        if not self.looks_up:
            word = ["straight", "slight", "clear", "strong"][abs(across)]
            side = "" if across == 0 else " right" if across > 0 else " left"
            self.page.get_by_role("button", name=f"{word}{side}", exact=True).click()
            return
        borders = [0.0, 20.0, 45.0, 85.0]
        plane = self.page.get_by_role("slider", name="The nock, left and right")
        box = plane.bounding_box()
        face = self.page.get_by_role("group", name=re.compile("The butt seen from behind"))
        whole = face.bounding_box()
        assert box is not None
        assert whole is not None
        per_mm = self._pixels_per_mm()
        x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
        self.page.mouse.move(x, y)
        self.page.mouse.down()
        self.page.mouse.move(
            x + math.copysign(borders[abs(across)], across) * per_mm,
            y + math.copysign(borders[abs(up)], up) * per_mm,
            steps=4,
        )
        self.page.mouse.up()

    def _pixels_per_mm(self) -> float:
        straight = self.page.get_by_role("button", name="straight", exact=True).bounding_box()
        border = self.get("?page=flight")["page"]["borders_mm"][0]
        assert straight is not None
        return float(straight["width"] / (2 * border))

    def _hits(self, arrows: int) -> None:
        face = self.page.get_by_role("application")
        face.scroll_into_view_if_needed()
        box = face.bounding_box()
        assert box is not None
        right, up = self.truth.bare()
        half, centre = box["width"] / 2, (box["x"] + box["width"] / 2, box["y"] + box["width"] / 2)
        hits = self.page.get_by_role("region", name="Hits")
        for name, (dx, dy) in (("fletched", (0.0, 0.0)), ("bare", (-right, up))):
            hits.get_by_role("button", name=name, exact=True).click()
            for i in range(arrows):
                # an archer's arrows stand beside each other, not in one hole
                aside = 24 * (i - (arrows - 1) / 2)
                self.page.mouse.click(
                    centre[0] + (dx / 420 + aside / 420) * half,
                    centre[1] - (dy / 420) * half + (9 if name == "bare" else -9),
                )
        hits.get_by_role("button", name=re.compile(r"^Record \d+ hits")).click()

    def change(self) -> None:
        """What the first lever does to the rig, before the card is pressed that it is done."""
        board = self.get("/flight")
        lever = next(one for one in board["correction"]["levers"] if one["first"])
        if lever["axis"] == "upright":
            moved = float(re.findall(r"[\d.]+", lever["what"]["template"])[0])
            up = "up" in lever["what"]["template"]
            self.truth.nock -= (moved if up else -moved) / 2
        else:
            by = 10 * math.log(lever["reads_lbf"] / board["correction"]["own_lbf"])
            self.truth.index += by

    def get_shafts(self) -> None:
        """Shafts of the spine the card names are told where it leads."""
        wanted = float(re.findall(r"(\d+) lb", self.titles[-1])[0])
        field = self.page.get_by_label("Spine, on the label or gauge")
        field.fill(f"{wanted:g} lb")
        field.press("Enter")
        expect(field).to_have_value("")
        self.truth.index += 10 * math.log(wanted / self.truth.own_lbf)
        self.truth.own_lbf = wanted
        self.page.goto(self.page.url.split("/rigs/")[0] + f"/rigs/{self.rig}/flight")

    def begin(self) -> None:
        """The first tail: nothing is under way before something was seen."""
        before = self.get("")["revision"]
        self.page.goto(self.page.url + "/record")
        self.see()
        self.until_newer(before)

    def fly(self) -> str:
        """Do what the card says, until it says to keep; return its last title."""
        self.begin()
        for _ in range(MOST_STEPS):
            step = self.settled()
            records = [one["reading"]["kind"] for one in step["action"]["records"]]
            button = self.card.get_by_role("button", name=step["action"]["label"], exact=True)
            if "rig_tuned" in records:
                button.click()
                return self.titles[-1]
            if step["action"]["label"] == "It is done":
                self.change()
            before = self.get("")["revision"]
            if button.count():
                button.click()
            if step["action"]["stage"] == "arrow":
                self.get_shafts()
                continue
            if not records:
                self.see()
            self.until_newer(before)
        raise AssertionError(f"it never ended: {self.titles}")

    def until_newer(self, revision: int) -> None:
        for _ in range(200):
            if self.get("")["revision"] > revision:
                return
            self.page.wait_for_timeout(50)
        raise AssertionError(f"nothing was recorded after {self.titles[-1]}")


@pytest.mark.parametrize(
    ("name", "lines", "index", "nock", "looks_up"),
    [
        ("False weak longbow", (*LONGBOW, "spine 90 lb", "lift 4mm"), 6.5, 0.0, False),
        ("Weak recurve", (*RECURVE, "spine 700", "lift 4mm"), -3.4, 0.0, False),
        ("High nock", (*RECURVE, "spine 500", "lift 10mm"), 0.2, -2.8, True),
    ],
)
def test_an_evening_is_flown_by_the_cards_buttons_to_its_end(
    wire: Wire, name: str, lines: tuple[str, ...], index: float, nock: float, *, looks_up: bool
) -> None:
    rig = made(wire, name, lines)
    evening = EveningOnThePage(wire, rig, truth_of(lines, index, nock), looks_up=looks_up)
    last = evening.fly()
    assert last in ("Keep this tuning", "As near as this bow can be told"), evening.titles
    assert abs(evening.truth.index) <= 1.5, evening.titles
    if looks_up:
        assert abs(evening.truth.nock) <= 1.5, evening.titles
        assert any(title.startswith("Nock ") for title in evening.titles)
    kept = [one["reading"] for one in wire.client.get(f"/api/rigs/{rig}/entries").json()["entries"]]
    assert kept[-1]["kind"] == "rig_tuned"
    assert kept[-1]["settings"]["brace_mm"] > 0
    if name != "High nock":
        assert any("shafts" in title or "Silencers" in title or "Point" in title
                   for title in evening.titles)  # fmt: skip
