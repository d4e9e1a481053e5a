"""What teachers say beside a reading: a word instead of a verdict, that a cue was said, ticks of what no camera sees."""

from flask import Response

from brevin.core.hold.ticks import as_taught, spot_of
from brevin.core.verdict import tiring
from brevin.core.verdict.cues import cues
from brevin.core.verdict.repetitions import repetitions
from brevin.core.verdict.rules import CRITERION_KEYS
from brevin.core.verdict.tries import helped, next_tries
from brevin.store import reports, sittings, takes, ticks
from brevin.web.auth import scope
from brevin.web.bench_content import looks_of
from brevin.web.problems import Refused
from brevin.web.routes import routes_of
from brevin.web.schemas import CueIn, Done, OverruleIn, TakePath
from brevin.web.shapes import answer
from brevin.web.tick_schemas import CueQuery, CueRecordOut, OverruledOut, OverrulesOut, RepetitionsOut, SinceFirstOut, SpotOut, TickIn, TickOut, TicksOut

routes = routes_of("said", __name__, below="/api/takes")


@routes.put("/<take_id>/overrule", responses={200: Done})
def overrule(path: TakePath, body: OverruleIn) -> Response:
    """Put on record what the teacher says instead of a verdict, or take that back."""
    reports.overrule(
        scope(), takes.take_record(scope(), path.take_id), criterion=_criterion(body.criterion), state=body.state, reason=body.reason, breath=body.breath
    )  # fmt: skip
    return answer(Done(done=True))


@routes.get("/<take_id>/overrules", responses={200: OverrulesOut})
def overrules_of(path: TakePath) -> Response:
    """What the teacher says instead of this take's verdicts."""
    takes.take_record(scope(), path.take_id)
    return answer(OverrulesOut(overrules=[OverruledOut(**vars(one)) for one in reports.overruled(scope(), path.take_id)]))


@routes.post("/<take_id>/cue", responses={200: Done})
def cue_given(path: TakePath, body: CueIn) -> Response:
    """Put on record that a cue was said."""
    take = takes.take_record(scope(), path.take_id)
    if body.way >= len(cues(body.criterion, body.side)):
        raise Refused("bad_request", 422)
    reports.give_cue(scope(), take, criterion=body.criterion, side=body.side or "", way=body.way)
    return answer(Done(done=True))


@routes.get("/<take_id>/cue", responses={200: CueRecordOut})
def cue_record(path: TakePath, query: CueQuery) -> Response:
    """The ways to say a criterion's cue, whether it was said after this take, and what became of such faults in the next tries: after the cue, and without."""
    take, ways = takes.take_record(scope(), path.take_id), cues(query.criterion, query.side)
    tries = reports.tries(scope(), query.criterion)
    given = reports.cue_given(scope(), take.id, query.criterion)
    first = min(helped(tries, take.student.id) if given is None else given, len(ways) - 1)
    return answer(CueRecordOut(ways=list(ways), first=first, said=given is not None, **vars(next_tries(tries))))


@routes.get("/<take_id>/repetitions", responses={200: RepetitionsOut})
def repetitions_of(path: TakePath) -> Response:
    """How often this take's card was done correctly up to it, and how many of them it usually takes here until it holds."""
    take = takes.take_record(scope(), path.take_id)
    counted = repetitions(reports.done(scope(), take.asked.id), student_id=take.student.id, until=take.made_at)
    return answer(RepetitionsOut(**vars(counted)))


@routes.get("/<take_id>/since", responses={200: SinceFirstOut})
def since_first(path: TakePath) -> Response:
    """What has sunk since the first take of the same sitting that this one may be held beside; nothing where it is the first, or nothing clearly did."""
    take = takes.take_record(scope(), path.take_id)
    beside = sittings.beside_first(scope(), take, list(tiring.MEASURES))
    sunk = [] if beside is None else tiring.changes(beside.first, beside.now, take.asked.check.instrument, take.rules)
    if beside is None or not sunk:
        return answer(SinceFirstOut())
    minutes = round((take.made_at - beside.made_at).total_seconds() / 60)
    return answer(SinceFirstOut(take_id=beside.take_id, minutes=minutes, sunk=[tiring.words(one) for one in sunk]))


@routes.get("/<take_id>/ticks", responses={200: TicksOut})
def ticks_of(path: TakePath) -> Response:
    """What no camera sees of this take's instrument: where to look, what is right there, and what was ticked."""
    take = takes.take_record(scope(), path.take_id)
    said, instrument = ticks.ticked(scope(), take), take.asked.check.instrument
    looked_at = as_taught(instrument, looks_of(instrument))
    return answer(TicksOut(items=[TickOut(**vars(one), spot=SpotOut(**vars(spot_of(one))), state=said.get(one.key)) for one in looked_at]))


@routes.put("/<take_id>/ticks", responses={200: Done})
def tick(path: TakePath, body: TickIn) -> Response:
    """Tick one item, or take the tick back."""
    ticks.tick(scope(), takes.take_record(scope(), path.take_id), body.item, body.state)
    return answer(Done(done=True))


def _criterion(name: str) -> str:
    if name not in CRITERION_KEYS:
        raise Refused("bad_request", 422)
    return name
