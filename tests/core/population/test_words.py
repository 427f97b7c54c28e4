"""What is said of other people's rigs: nothing twice, nothing nobody sells, in their own units."""

import re
from functools import lru_cache

import pytest

from lyrandis.core.assessment import Assessment, assess
from lyrandis.core.phrase import Phrase
from lyrandis.core.setup import fold
from tests.core.population.rigs import DANGERS, TOLD, Told, endangered, rig_of
from tests.entries import entries

RIGS = 40
_MANY = "arrows|shafts|shots|takes|turns|readings|rigs|points|findings|quills"
ONE_OF_MANY = re.compile(rf"(?<![\d.,/½¼¾⅛⅜⅝⅞-])\b1 ({_MANY})\b")
SPINE = re.compile(r"(\d+)(?: ± \d+)? lb \(\d+\)")
SOLD = (15, 130)
"""Spines on the wood scale that anybody sells."""
BRACE_IN_MM = re.compile(r"\bbrace[^.;:]*\d mm\b", re.IGNORECASE)


@lru_cache(maxsize=256)
def judged(seed: int, how: Told) -> Assessment:
    return assess(fold(entries(*rig_of(seed).told(how, seed))))


def said(found: Assessment) -> list[str]:
    """Return every sentence of an assessment, in inches."""
    phrases: list[Phrase] = [found.next_step.title, found.next_step.why, found.next_step.tells]
    for finding in found.findings:
        phrases += [finding.sentence, *finding.sum]
    phrases += [*found.may_shoot.because, *(one.what for one in found.may_shoot.unchecked)]
    for stage in found.stages:
        phrases += [line for value in stage.values for line in (value.because or ())]
    return [one.text() for one in phrases]


@pytest.mark.parametrize("how", TOLD)
def test_no_finding_is_said_twice(how: Told) -> None:
    for seed in range(RIGS):
        sentences = [finding.sentence.text() for finding in judged(seed, how).findings]
        assert len(set(sentences)) == len(sentences), (seed, sentences)


@pytest.mark.parametrize("how", TOLD)
def test_numbers_are_said_as_people_say_them(how: Told) -> None:
    for seed in range(RIGS):
        for text in said(judged(seed, how)):
            assert not ONE_OF_MANY.search(text), text
            assert "0.0 gr/lb under" not in text, text
            assert "{" not in text, text
            assert not BRACE_IN_MM.search(text), text
            for pounds in SPINE.findall(text):
                assert SOLD[0] <= int(pounds) <= SOLD[1], text


def test_of_a_rig_in_danger_nothing_is_said_twice_either() -> None:
    for danger in DANGERS:
        found = assess(fold(entries(*endangered(1, danger).lines())))  # type: ignore[arg-type]
        sentences = [finding.sentence.text() for finding in found.findings]
        assert len(set(sentences)) == len(sentences), sentences
