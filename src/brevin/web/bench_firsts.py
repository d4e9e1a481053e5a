"""First notes: what came out in one tap, what to check, when the next note opens."""

from dataclasses import replace

import numpy as np
from flask import Response, request

from brevin.core.handling.cards import OUTCOMES, InstrumentCard, Outcome
from brevin.core.handling.firsts import ALONE, Try, checks_after, gate_now, lips_rest_s, opened, rungs
from brevin.core.music.heard import heard
from brevin.core.plan.limits import rest_s
from brevin.store import resting, sounds, students
from brevin.store.database import now
from brevin.store.records import StudentRecord
from brevin.web.auth import scope
from brevin.web.bench_content import card_of, chosen, rules
from brevin.web.bench_schemas import FirstsOut, FixedIn, HeardOut, HeardQuery, RungOut, TryIn, TryOut, TryPath
from brevin.web.problems import SENTENCES, Refused
from brevin.web.routes import routes_of
from brevin.web.schemas import Done, StudentPath
from brevin.web.shapes import answer

routes = routes_of("bench_firsts", __name__, below="/api/bench/firsts")
MOST_SOUND_BYTES = 1_500_000  # some fifteen seconds


@routes.get("/<int:student_id>", responses={200: FirstsOut})
def firsts(path: StudentPath) -> Response:
    """A student's way through the first notes."""
    return answer(_firsts(students.student(scope(), path.student_id)))


@routes.post("/<int:student_id>", responses={200: FirstsOut})
def came_out(path: StudentPath, body: TryIn) -> Response:
    """Put on record what came out."""
    who = students.student(scope(), path.student_id)
    standing = _firsts(who)
    rung = next((one for one in standing.rungs if one.key == body.rung), None)
    if rung is None:
        raise Refused("no_such_note", 422)
    if not rung.opened:
        raise Refused("not_open_yet", 409)
    if standing.rest_s > 0:
        raise Refused("rest_first", 409, SENTENCES["rest_first"].format(seconds=round(standing.rest_s)))
    if body.length_s is not None and (body.rung != ALONE or body.outcome != "note"):
        raise Refused("no_length", 422)
    sounds.add(scope(), who.id, rung=body.rung, outcome=body.outcome, length_s=body.length_s)
    return answer(_firsts(who))


@routes.post("/heard", responses={200: HeardOut}, description="The body is mono samples, 16 bit, little end first. Nothing of it is kept.")
def listen(query: HeardQuery) -> Response:
    """What a try sounded like: a suggestion."""
    content = request.stream.read(MOST_SOUND_BYTES + 1)
    if len(content) > MOST_SOUND_BYTES or len(content) % 2:
        raise Refused("too_large" if len(content) > MOST_SOUND_BYTES else "bad_request", 422)
    samples = np.frombuffer(content, dtype="<i2").astype(np.float64) / 32768.0
    return answer(HeardOut(**vars(heard(samples, query.rate_hz, wanted_hz=query.wanted_hz))))


@routes.put("/tries/<int:try_id>", responses={200: Done})
def fixed_by(path: TryPath, body: FixedIn) -> Response:
    """Say which check was the reason: the next time it is asked for sooner."""
    sounds.fixed(scope(), path.try_id, body.by)
    return answer(Done(done=True))


@routes.delete("/tries/<int:try_id>", responses={200: Done})
def take_back(path: TryPath) -> Response:
    """A try that was tapped by mistake."""
    sounds.take_back(scope(), path.try_id)
    return answer(Done(done=True))


def _firsts(who: StudentRecord) -> FirstsOut:
    card = card_of(who)
    own = [one for one in sounds.tries(scope(), [who.id]) if one.instrument == who.instrument]
    return FirstsOut(
        student_id=who.id, name=who.name, instrument=who.instrument, card=card.name, rungs=_rungs(card, own),
        rest_s=max(
            lips_rest_s([Try(one.rung, one.outcome, one.at) for one in own], at=now()),
            rest_s(resting.runs(scope(), who.id), breaths=1, efforts=1, at=now()),
        ),
        checks={outcome: checks_after(card, outcome, times) for outcome, times in _times(card).items()},
    )  # fmt: skip


def _rungs(card: InstrumentCard, own: list[sounds.TryRecord]) -> list[RungOut]:
    """Every rung with its tries."""
    gate = replace(card.gate, on=rules().gates.get(card.name, card.gate.on))
    keys = rungs(card, alone=chosen(card).get("first_sound", "alone") != "whole")
    tries = {key: [one for one in own if one.rung == key] for key in keys}
    gates = {key: gate_now(gate, [one.outcome for one in tries[key]]) for key in keys}
    may = opened(keys, card.accepts, gates)
    return [
        RungOut(
            key=key, title=card.alone.title if key == ALONE and card.alone else key, opened=may[key], gate=gates[key],
            tries=[TryOut(id=one.id, outcome=one.outcome, at=one.at, fixed_by=one.fixed_by, length_s=one.length_s) for one in tries[key]],
        )
        for key in keys
    ]  # fmt: skip


def _times(card: InstrumentCard) -> dict[Outcome, dict[str, int]]:
    """How often each check was the reason here, by what came out."""
    found: dict[Outcome, dict[str, int]] = {outcome: {} for outcome in OUTCOMES if outcome != "note"}
    for (outcome, name), times in sounds.reasons(scope(), card.serves).items():
        found[outcome][name] = times
    return found
