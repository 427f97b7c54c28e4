"""The trade's words: each found once, said in a sentence, and none said twice."""

from collections import Counter

from lyrandis.core.glossary import GLOSSARY
from lyrandis.core.phrase import as_written, phrase
from lyrandis.core.stages import RULEBOOK


def test_there_are_more_than_forty_and_each_says_what_it_is_for() -> None:
    assert len(GLOSSARY) >= 40
    for term in GLOSSARY:
        assert term.means.endswith("."), term.key
        assert term.why.endswith("."), term.key
        assert len(term.means.split()) <= 40, term.key


def test_no_spelling_stands_for_two_terms() -> None:
    counts = Counter(spelling for term in GLOSSARY for spelling in term.spellings)
    assert [spelling for spelling, count in counts.items() if count > 1] == []
    assert all(spelling == spelling.lower() for spelling in counts)
    assert len({term.key for term in GLOSSARY}) == len(GLOSSARY)


def test_quantities_of_the_trade_are_said_in_the_readers_units() -> None:
    said = phrase("At {1 3/4 in}, {25 gr} and {1/8 in}; {48 lb}.")
    assert said.text() == "At 1 3/4 in, 25 gr and 1/8 in; 48.0 lb."
    assert said.text("metric") == "At 44 mm, 1.6 g and 3 mm; 214 N (48.0 lb)."
    assert as_written("Of {braces} and 3 in.").text("metric") == "Of (braces) and 7.6 cm."


def test_no_rule_is_said_in_inches_to_a_metric_reader() -> None:
    for rule in RULEBOOK:
        for text in (rule.statement, rule.source, rule.school):
            metric = as_written(text).text("metric")
            assert " inch" not in metric or rule.id == "deep-hook", rule.id  # a formula in inches
            assert "¾" not in metric, rule.id
