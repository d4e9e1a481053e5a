"""How soon stored takes are judged anew, without their clips: one, five hundred, one from the page; and how soon a changed line tells what it would
change of five hundred."""

import shutil
import time
from concurrent.futures import ProcessPoolExecutor
from pathlib import Path
from statistics import median

from brevin.bench import Measured
from brevin.bench.served import Client, Served, served
from brevin.jobs.judging import evidence_of, judge_anew, report_of
from brevin.jobs.trying import Trial
from brevin.ops import settings as known
from brevin.ops.only_run import connect
from brevin.store import programmes, readings, rulebook, takes
from brevin.store.reading_records import Looked
from brevin.store.records import ClipRecord, NewReport, TakeRecord
from brevin.store.scope import HOUSE, Scope

TAKES, PROCESSES, RUNS = 500, 2, 9


def measure() -> Measured:
    """Seconds for one take (median), for five hundred on two processes, and for a moved beat one from the page's request to its new report."""
    with served() as server:
        page = Client(server.address)
        shown = page.all_read()
        side = next(take for take in shown if take["check"]["card"] and take["headline"]["state"] != "unreadable")
        page_s = [_moved(page, side["id"], step) for step in range(RUNS)]
        ids = _many(server, side["id"])
        one_s = [_timed(take_id, server.data) for take_id in ids[:RUNS]]
        tried_s = median(_tried_s(server) for _ in range(3))
        began = time.monotonic()
        with ProcessPoolExecutor(PROCESSES, initializer=connected, initargs=(str(server.data),)) as pool:
            done = sum(pool.map(_judged, ids, [str(server.data)] * len(ids), chunksize=10))
        all_s = time.monotonic() - began
        assert done == TAKES
    figures = {"one_median_s": median(one_s), "one_worst_s": max(one_s), "five_hundred_s": all_s, "page_median_s": median(page_s), "page_worst_s": max(page_s)}
    figures["preview_s"] = tried_s
    bars = {"one_median_s": ("<=", 0.2), "five_hundred_s": ("<=", 60.0), "page_median_s": ("<=", 1.0), "preview_s": ("<=", 1.0)}
    return Measured("recompute", figures, bars)


def _tried_s(server: Served) -> float:
    """Another line tried on five hundred stored takes: seconds until it is known which of them would change."""
    connected(str(server.data))
    [programme] = programmes.all_programmes(HOUSE)
    scope = Scope(programme.id)
    began = time.monotonic()
    trial = Trial(scope)
    changed = trial.by(rulebook.Book(scope, own=rulebook.with_limit(scope, "abdomen_leads.steady", 0.9)))
    assert trial.takes == TAKES and changed
    return time.monotonic() - began


def _moved(page: Client, take_id: str, step: int) -> float:
    began = time.monotonic()
    page("PUT", f"/api/takes/{take_id}/edits", {"first_inhale_s": 3.5 + 0.01 * step})
    page("GET", f"/api/takes/{take_id}/report")
    return time.monotonic() - began


def _many(server: Served, take_id: str) -> list[str]:
    """Five hundred takes with the evidence and the report of one."""
    connected(str(server.data))
    settings = server.settings
    first = takes.take_record(HOUSE, take_id)
    report = report_of(HOUSE, first, evidence_of(first, settings), rules=first.rules, edits=first.edits)
    return [_another(first, report, settings.evidence, number) for number in range(TAKES)]


def _another(first: TakeRecord, report: NewReport, folder: Path, number: int) -> str:
    clip, name = ClipRecord(f"bench-{number}.mp4", "bench.mp4", "0" * 64, 1), f"bench-{number}.evidence"
    while True:  # the server's own reader may be quicker: then its failure to find the clip is no matter, and another is made
        take = takes.add(Scope(first.programme_id), student_id=first.student.id, lesson_id=None, check=first.asked.check, clip=clip)
        held = readings.claim_next(HOUSE)
        if held is not None and held.take.id == take.id:
            break
    shutil.copyfile(folder / first.evidence_name, folder / name)
    readings.finish(HOUSE, take.id, held.token, Looked(name, ("bench.mp4", "video/mp4"), report, take.rules))
    return take.id


def connected(data: str) -> None:
    """Bind the store to a served folder's database."""
    connect(known.load(Path(data)))


def _judged(take_id: str, data: str) -> bool:
    return judge_anew(HOUSE, take_id, known.load(Path(data))).state == "read"


def _timed(take_id: str, data: Path) -> float:
    began = time.monotonic()
    _judged(take_id, str(data))
    return time.monotonic() - began
