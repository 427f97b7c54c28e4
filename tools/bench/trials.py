"""How often the judgements are right, on made-up archers and bows; and how long they take."""

import statistics
from concurrent.futures import ProcessPoolExecutor

import numpy as np
from tests.core.crawls.archers import named
from tests.core.crawls.archers import tried as walked
from tests.core.flight.trials import TESTS
from tests.core.listen.signals import r1
from tests.core.listen.test_blind import FAULTS
from tests.core.listen.test_blind import trial as blind
from tests.core.listen.test_shot_time import tried as heard_shots
from tests.core.listen.test_tap import tried as heard_taps
from tests.core.string.archers import by_ear, by_the_model, within
from tests.core.string.settling_worlds import WORLDS, creep_by, read
from tools.bench.material import NOW, RIG, many_drafts
from tools.bench.rows import Row, p95, timed
from tools.prove_flight import OUT as PROVED

from lyrandis.core.computed import compute
from lyrandis.core.crawls.fit import FitMark, Prior, fit_crawls, next_distance, odd_one
from lyrandis.core.estimate import Estimate
from lyrandis.core.flight.belief import new_axis
from lyrandis.core.flight.board import board
from lyrandis.core.flight.choose import PLAIN_TESTS, Sitting, ranked, seen
from lyrandis.core.flight.curves import SPINE_EXAMPLE
from lyrandis.core.flight.likely import NOISE
from lyrandis.core.flight.proved import EveningProved, Proved
from lyrandis.core.flight.shot_curves import curves_of, unfletched
from lyrandis.core.listen.hear import PLAIN_SERIES, StringVoice, as_take, hear
from lyrandis.core.order.doubt import states_of
from lyrandis.core.record import as_entries
from lyrandis.core.setup import fold
from lyrandis.core.string.settling import fit_settling
from lyrandis.core.string.sweep import Height, sweep
from lyrandis.core.tried import TriedSubject, tried


def bench_worlds() -> list[Row]:
    """Say what `make worlds` shot in worlds the engines were not made in."""
    rows = [
        Row(f"settling, {one.world}: too soon", percent(one.figures["early"]), 8, "%",
            f"{one.times} strings; median {one.figures['hours']:g} h, called "
            f"{percent(one.figures['called']):.0f} %")
        for one in tried().of("settling")
    ]  # fmt: skip
    own = tried().of("settling")[0]
    rows.append(Row(f"settling, {own.world}: median", own.figures["hours"], 27, "h",
                    "1.5 times what its own law alone needs; read every three hours there",
                    why="half are called between two readings, 27 and 30 h; sooner, more than "
                    "one in twelve that creep by a power of time would be too soon."))  # fmt: skip
    rows += [
        Row(f"quiet brace, {one.world}: said off what came true", percent(one.figures["off"]), 5,
            "%", f"{one.times} bows; said {percent(one.figures['said']):.0f}, came true "
            f"{percent(one.figures['came']):.0f} %; two spots said in "
            f"{percent(one.figures['two']):.0f}, a floor in {percent(one.figures['flat']):.0f} %",
            why=UNDER_SAID if one.figures["came"] > one.figures["said"] else OVER_SAID)
        for one in tried().of("sweep")
    ]  # fmt: skip
    rows += [
        Row(f"{name}, {one.world}: inside the said ±", percent(one.figures["inside"]), 90, "%",
            f"{one.times} recordings, a third synthesiser; off by "
            f"{percent(one.figures['off']):.1f} %, median; said in "
            f"{percent(one.figures['said']):.0f} %", least=True)
        for subject, name in HEARD.items()
        for one in tried().of(subject) if "inside" in one.figures
    ]  # fmt: skip
    rows += [
        Row(f"taps, {one.world}: said all the same", percent(one.figures["said"]), 10, "%",
            f"{one.times} shafts; asked or refused")
        for one in tried().of("tap") if "inside" not in one.figures
    ]  # fmt: skip
    for one in tried().of("takes"):
        club = "flagged" in one.figures
        rows.append(
            Row(f"sound: takes all right, {one.world}", percent(one.figures["right"]),
                30 if club else 100, "%", f"{one.times} recordings; own found "
                f"{percent(one.figures['own']):.0f} %" + (
                    f", others' flagged {percent(one.figures['flagged']):.0f} %; own limit"
                    if club else ""), least=True)
        )  # fmt: skip
    for one in tried().of("recording"):
        found = one.figures.get("found")
        rows.append(
            Row(f"sound: {one.world}, said overloaded",
                percent(one.figures["called"] if found is None else found),
                0 if found is None else 100, "%", f"{one.times} recordings",
                least=found is not None)
        )  # fmt: skip
    rows += [
        Row(f"sound: {one.world}, cannot be told", percent(one.figures["cannot"]), 100, "%",
            f"{one.times} bows", least=True)
        for one in tried().of("naming") if "cannot" in one.figures
    ]  # fmt: skip
    return rows


def bench_string() -> list[Row]:
    """Sweep the brace with simulated archers, and time settling and doubt."""
    both, near_both, told = within(200, 7, sound=True, way=by_the_model)
    rated, near_rated, _ = within(200, 7, sound=False, way=by_the_model)
    ear, _, _ = within(200, 7, sound=False, way=by_ear)
    how = "200 simulated archers, a third each kind, ordinary, careless; at most 6 heights"
    world = np.random.default_rng(11)
    readings = tuple(read(WORLDS[0], creep_by("stretched", world), world))[:9]
    c = compute(fold(as_entries(many_drafts(), now=NOW), rig=RIG))
    events = c.order.events
    settle = timed(lambda: fit_settling.__wrapped__(readings).is_settled, 40)
    heights = tuple(Height(190.0 + 3 * n, (4.0, 3.0), (3.0,)) for n in range(5))
    swept = timed(lambda: sweep.__wrapped__(heights, (177.8, 203.2)), 40)
    doubt = timed(lambda: states_of(events, c.order.kind), 200)
    median = statistics.median
    return [
        Row("quiet brace within 1/8 in, sound and ratings", 100 * both, 75, "%",
            f"{how}; it said {100 * told:.0f} %", least=True),
        Row("the same within 3/16 in", 100 * near_both, 90, "%", how, least=True),
        Row("quiet brace within 1/8 in, ratings alone", 100 * rated, 65, "%",
            f"within 3/16 in {100 * near_rated:.0f} %", least=True),
        Row("step a quarter inch and listen", 100 * ear, 40, "%", "beside it, same archers",
            least=True),
        Row("settling of 9 readings, median", median(settle), 15, "ms", "nothing kept; own limit"),
        Row("sweep of 5 heights, median", median(swept), 15, "ms", "nothing kept; own limit"),
        Row("doubt, p95", p95(doubt), 1, "ms", f"{len(events)} events of 500 entries"),
    ]  # fmt: skip


HEARD: dict[TriedSubject, str] = {"speed": "speed by ear", "tap": "stiffness by tap"}
UNDER_SAID = (
    "it comes true more often than is said, which harms nobody: six heights cannot show that a "
    "floor is flat, nor ratings how far outside the range the quiet spot lies."
)
OVER_SAID = (
    "beyond a height that was rated worse nothing is proposed, so that a second dip is mostly "
    "never shot; what is said allows for one in some bows, not in all."
)


def percent(share: float | None) -> float:
    return 100 * share if share is not None else float("nan")


def bench_judgement(found: Proved) -> list[Row]:
    """Virtual rigs of four kinds, shot and judged; what the page "How good is it?" shows."""
    ways = {one.key: one for one in found.ways}
    ours = ways["lyrandis"]
    how = f"{ours.rigs} virtual rigs, four kinds of bow, noise not the engine's"
    said = "; ".join(f"said {w.said:.2f} came true {w.came:.2f} ({w.times})" for w in found.words)
    kinds = "; ".join(f"{k.name} {100 * k.right:.0f}" for k in found.kinds)
    rows = [
        Row("cause found by virtual rigs", percent(ours.right), 93, "%",
            f"{how}; {kinds}; steady {percent(ways['steady'].right):.0f}, beginning "
            f"{percent(ways['beginning'].right):.0f} %", least=True),
        Row("or that of a shaft 3 % off", percent(ours.near), 96, "%", how, least=True),
        Row("right of what is said", percent(ours.said_right), 96, "%", said, least=True),
        Row("false weak found", percent(ours.found), 90, "%", f"of {ours.false_weak}", least=True),
        Row("false weak called weak", percent(ours.called_weak), 1, "%", f"of {ours.false_weak}"),
        Row("tests until enough is known, median", ours.tests, 4, "", f"{ours.arrows:g} arrows"),
    ]  # fmt: skip
    rows += [
        Row(ways[key].name, percent(ways[key].right), least, "%", "beside it", least=True)
        for key, least in (("first", 50), ("rule", 50), ("model", 50), ("random", 80),
                           ("fixed", 80), ("near_match", 75))
    ]  # fmt: skip
    rows += [
        Row(f"world: {one.name}", percent(one.right), percent(one.least_right), "%",
            f"said over 90 %: {one.sure:.2f}, came true {one.came:.2f}; false weak "
            f"{percent(one.found):.0f} %", least=True)
        for one in found.worlds
    ]  # fmt: skip
    for one in found.evenings:
        rows += bench_evening(one)
    return rows


ENDED = {"bench": 95.0, "population": 90.0, "harsh": 90.0}
WITHIN = {"bench": 85.0, "population": 75.0}
ARROWS = {"bench": 35.0, "population": 50.0}


def bench_evening(one: EveningProved) -> list[Row]:
    """What came of whole evenings, flown by the page's own next step; by habit only beside it."""
    name = f"evenings, {one.name}"
    how = f"{one.rigs} rigs; {one.how}"
    if one.key == "habit":
        return [Row(f"{name}: within a tenth", percent(one.within_all), 0, "%",
                    f"{how}; median {one.arrows:g} arrows", least=True)]  # fmt: skip
    rows = [
        Row(f"{name}: come to an end", percent(one.ended), ENDED.get(one.key, 90.0), "%",
            f"{how}; tuned {percent(one.tuned):.0f} %, near {percent(one.near):.0f} %; "
            f"{one.empty} empty next steps; {one.minutes:g} min, {one.corrections:g} changes",
            least=True),
        Row(f"{name}: of tuned within a tenth", percent(one.within), WITHIN.get(one.key, 70.0),
            "%", f"of all within a tenth {percent(one.within_all):.0f} %; of near "
            f"{percent(one.near_came):.0f} %, said {percent(one.near_said):.0f} %", least=True),
        Row(f"{name}: arrows, median", one.arrows, ARROWS.get(one.key, 100.0), "",
            f"nine in ten under {one.most_arrows:g}",
            why="a test is three arrows, so that the median moves by one or two of them."),
        Row(f"{name}: far too weak called tuned", one.far_weak_tuned, 0, "",
            "a quarter and more too weak", why=f"of {one.rigs} rigs; not found why."),
    ]  # fmt: skip
    if one.key == "stiff":
        rows += [
            Row("evenings: stiff or false weak named", percent(one.named), 95, "%", how,
                least=True),
            Row("evenings: false weak brought to tuned", percent(one.false_weak_tuned), 75, "%",
                f"of {one.false_weak}; within a tenth {percent(one.false_weak_within):.0f} %",
                least=True, why="nearly all the others end as near, and the page says near."),
        ]  # fmt: skip
    return rows


def bench_flight() -> list[Row]:
    """Say what `make prove` shot, and time one reading and the choice of the next."""
    axis = new_axis("spine", SPINE_EXAMPLE, 5.0)
    noise = NOISE["ordinary"]
    update = timed(lambda: seen(axis, PLAIN_TESTS[0], 1, noise), 100)
    choice = timed(lambda: ranked(Sitting({"spine": axis}), TESTS, noise), 40)
    c = compute(fold(as_entries(many_drafts(), now=NOW), rig=RIG))
    shooting, match = c.arrow.shooting, c.arrow.model
    assert shooting is not None
    assert match is not None
    assert match.matched is not None
    shot, matched = shooting.shot, match.matched
    curves = timed(lambda: curves_of.__wrapped__(shot, unfletched(shot), matched, 0.0087), 5)
    boards = timed(lambda: board(c), 10)
    return [
        *bench_judgement(Proved.model_validate_json(PROVED.read_text(encoding="utf-8"))),
        Row("curves of a new rig, median", statistics.median(curves), 700, "ms",
            "18 spines, 9 releases, struck and clean, bare and fletched; off the request's thread"),
        Row("one reading weighed, median", statistics.median(update), 5, "ms", "one axis"),
        Row("next test chosen, median", statistics.median(choice), 60, "ms", "12 tests; kept"),
        Row("board of evidence, median", statistics.median(boards), 60, "ms",
            "demo rig, curves kept; our own limit"),
    ]  # fmt: skip


def bench_crawls() -> list[Row]:
    """Let made-up archers make marks and hold every band against the truth; time one table."""
    marks = [FitMark(10, 50.0), FitMark(20, 36.5), FitMark(30, 22.0), FitMark(40, 8.0)]
    prior = Prior(Estimate(52.0, 3.0), Estimate(68.0, 10.0), Estimate(0.0017, 0.25), 780.0)

    def whole() -> None:
        fit = fit_crawls(prior, marks)
        fit.table(range(5, 61))
        next_distance(fit, range(5, 55, 5))
        odd_one(fit)

    took = timed(whole, 60)
    rows = [
        Row("crawls: fit, 56 rows, bands, next mark, median", statistics.median(took), 15, "ms",
            "four marks", paced=statistics.median(took.at_reference())),
    ]  # fmt: skip
    for count in (1, 2, 4, 8):
        found, other = walked(500, count, count), walked(500, count, 50 + count, richer=True)
        rows.append(
            Row(f"crawls: bands hold the truth, {count} marks", 100 * found.share, 93, "%",
                f"500 made-up archers, ± 2 mm; by distance {100 * found.covered.min():.0f} to "
                f"{100 * found.covered.max():.0f} %; in a richer world {100 * other.share:.1f} %; "
                f"off by {found.off_mm:.1f} mm, median", least=True)
        )  # fmt: skip
    best = walked(500, [5.0, 45.0], 9)
    careless = walked(500, 6, 10, repeat_mm=4.0, told=False)
    return [
        *rows,
        Row("crawls: table off by, two best distances", best.off_mm, 2, "mm",
            "median of 5 to 50 m"),
        Row("crawls: named where one is 4 sd off, of 8", 100 * named(400, 8, 4.0), 85, "%",
            "90 asked; false alarms one table in ten", least=True),
        Row("crawls: named where one is 5 sd off, of 5", 100 * named(400, 5, 5.0), 85, "%",
            "90 asked", least=True),
        Row("crawls: bands of an archer twice as careless", 100 * careless.share, 80, "%",
            "six marks, ± 4 mm, told nothing", least=True),
    ]  # fmt: skip


def bench_listen() -> list[Row]:
    """Time ten seconds of sound; listen to bows of the second synthesiser, blind."""
    whole = np.repeat(r1(48_000.0, 10.0)[:, None], 2, axis=1)

    def listen() -> None:
        heard = hear(whole, 48_000.0, "pluck", StringVoice(PLAIN_SERIES, 100.0))
        for one in heard.features:
            as_take(one)

    took = timed(listen, 12)
    each, seed = 25, 3000
    numbers = range(seed * len(FAULTS), (seed + each) * len(FAULTS))
    with ProcessPoolExecutor(2) as pool:
        found = list(pool.map(blind, numbers, chunksize=4))
    named = {kind: [one.fault for told, one, _ in found if told == kind] for kind in FAULTS}
    spoken = [told == "slack" for told, one, _ in found if one.fault == "slack"]
    share = {kind: 100 * sum(one == kind for one in faults) / each
             for kind, faults in named.items()}  # fmt: skip
    healthy = 100 * named["none"].count(None) / each
    false = 100 * sum(kind.count("rattle") for kind in (named["none"], named["brace"])) / each / 2
    shots, taps = heard_shots(200, 10, 21), heard_taps(150, 20, 22)[0]
    off, rung = np.abs(shots), np.abs(taps)
    how = f"{each} bows each of another synthesiser, 20 dB, five takes, gain control off"
    return [
        Row("sound: ten seconds listened to, median", statistics.median(took), 500, "ms",
            "48 kHz, two channels, four takes", paced=statistics.median(took.at_reference())),
        Row("sound: takes all found", 100 * sum(ok for *_, ok in found) / len(found), 100, "%",
            how, least=True),
        Row("sound: loose part named", share["rattle"], 95, "%", how, least=True),
        Row("sound: loose part invented", false, 5, "%", "healthy bows, and brace off"),
        Row("sound: nothing named on a healthy bow", healthy, 95, "%", how, least=True),
        Row("sound: brace off named", share["brace"], 85, "%", how, least=True),
        Row("sound: slack strand, right when it speaks", 100 * sum(spoken) / max(len(spoken), 1),
            90, "%", f"it speaks of {share['slack']:.0f} % of them", least=True),
        Row("speed by ear off by, median", 100 * float(np.median(off)), 1, "%",
            "200 made-up shots, strike 10 dB over the room"),
        Row("speed by ear off by, 95 %", 100 * float(np.percentile(off, 95)), 2.5, "%", "the same"),
        Row("speed by ear off by over 5 %", 100 * float((off > 0.05).mean()), 3, "%", "the same"),
        Row("stiffness by tap off by, median", 100 * float(np.median(rung)), 1, "%",
            "150 made-up taps, 20 dB"),
        Row("stiffness by tap off by, 95 %", 100 * float(np.percentile(rung, 95)), 2, "%",
            "the same"),
    ]  # fmt: skip
