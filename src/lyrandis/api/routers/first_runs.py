"""The first run: three answers read as they are typed, and what follows at once."""

from fastapi import Request
from pydantic import BaseModel

from lyrandis.api.bounded import api_router
from lyrandis.api.problems import Problem, problem_of, units_of
from lyrandis.core.errors import DomainError
from lyrandis.core.first_run import (
    FirstAnswers,
    FirstQuestion,
    FirstRun,
    GuessFor,
    first_run,
    guess_for,
)
from lyrandis.core.units import UnitSet

router = api_router("first runs")


class FieldProblem(BaseModel):
    """What is wrong with an answer, and where each of its other meanings belongs."""

    problem: Problem
    guesses_for: tuple[GuessFor | None, ...]
    """By the guesses of the problem: the field, and what is to stand in it."""


class FirstRunOut(FirstRun):
    """What the answers give, and what cannot be read of them."""

    wrong: dict[FirstQuestion, FieldProblem]


@router.post("/first-run")
def judge_first_run(request: Request, answers: FirstAnswers) -> FirstRunOut:
    """Read a first run's answers as they stand and judge them, without storing anything."""
    run, wrong = first_run(answers)
    units = units_of(request)
    return FirstRunOut(
        **dict(run), wrong={question: _out(error, units) for question, error in wrong.items()}
    )


def _out(error: DomainError, units: UnitSet) -> FieldProblem:
    return FieldProblem(
        problem=problem_of(error, units=units),
        guesses_for=tuple(map(guess_for, error.guesses)),
    )
