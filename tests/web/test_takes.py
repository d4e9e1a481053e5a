import io
import json
from dataclasses import replace

import pytest

from brevin.edge.clip_work import PRELOAD_PROBE
from brevin.edge.limited import Children
from brevin.store import files, readings, students, takes
from brevin.store.scope import HOUSE
from tests import clips
from tests.conftest import DEMO_CLIP
from tests.store.test_takes import DOCUMENT, FOUND, lesson_of

CLIP = DEMO_CLIP.read_bytes()


def send(page, student, content: bytes = CLIP, *, headers: dict[str, str] | None = None, **query):
    known = {"student_id": student.id, "card": "4-0-6@84x3", "file_name": "phone clip.mp4"} | query
    return page("POST", "/api/takes", query_string=known, data=content, headers={"Content-Type": "application/octet-stream"} | (headers or {}))


def read(take_id: str) -> None:
    held = readings.claim_next(HOUSE)
    assert held.take.id == take_id
    assert readings.finish(HOUSE, take_id, held.token, replace(FOUND, playable=(held.take.clip.stored_name, "video/mp4")))


@pytest.fixture(scope="module")
def children() -> Children:
    return Children(PRELOAD_PROBE)


def test_a_clip_is_taken_in_with_its_checksum_and_waits_to_be_read(page, scope, student, store) -> None:
    answer = send(page, student)
    assert answer.status_code == 201
    take = answer.json
    assert readings.waiting(HOUSE) == 1 and take["state"] == "queued" and take["clip"]["url"] is None
    record = takes.take_record(scope, take["id"])
    assert (store.clips / record.clip.stored_name).read_bytes() == CLIP
    assert record.clip.original_name == "phone clip.mp4" and len(record.clip.sha256) == 64
    assert page("GET", f"/api/takes/{take['id']}").json["student"]["name"] == student.name
    assert [t["id"] for t in page("GET", "/api/takes").json["takes"]] == [take["id"]]
    assert [t["id"] for t in page("GET", f"/api/students/{student.id}/takes").json["takes"]] == [take["id"]]


def test_where_the_app_counted_is_kept_with_the_take(page, scope, student, store) -> None:
    assert takes.take_record(scope, send(page, student, first_inhale_s="4.25").json["id"]).first_inhale_s == 4.25
    assert takes.take_record(scope, send(page, student).json["id"]).first_inhale_s is None
    assert send(page, student, first_inhale_s="-3").status_code == 422


@pytest.mark.parametrize(("content", "code"), [(b"dear teacher, this is a letter\n" * 50, "not_a_video"), (b"", "empty_file"), (CLIP[:3000], "half_copied")])
def test_what_is_no_clip_is_refused_in_one_sentence_and_kept_on_record_without_a_file(page, scope, student, store, content: bytes, code: str) -> None:
    answer = send(page, student, content)
    assert (answer.status_code, answer.json["code"]) == (422, code)
    assert answer.json["message"].endswith(".") and len(answer.json["message"]) < 200
    assert list(store.clips.iterdir()) == [] and readings.waiting(HOUSE) == 0
    [kept] = takes.latest(scope)
    assert (kept.state, kept.reason_code, kept.clip) == ("failed", code, None)
    assert page("GET", f"/api/takes/{kept.id}").json["reason_text"] == answer.json["message"]
    assert page("POST", f"/api/takes/{kept.id}/read-again").json["code"] == "not_there", "there is nothing to read again"


def test_sound_without_picture_is_refused(page, scope, student, store, tmp_path) -> None:
    assert send(page, student, clips.sound_only(tmp_path / "s.mp4").read_bytes()).json["code"] == "sound_only"
    assert list(store.clips.iterdir()) == []


def test_an_upload_that_stops_leaves_nothing_behind(store, children) -> None:
    from brevin.core.errors import ClipUnusable
    from brevin.web.intake import take_in

    class Breaks(io.BytesIO):
        def read(self, size: int = -1) -> bytes:
            if self.tell() > 200_000:
                raise OSError("connection reset")
            return super().read(min(size, 100_000))

    with pytest.raises(ClipUnusable) as why:
        take_in(Breaks(CLIP), announced_bytes=len(CLIP), file_name="a.mp4", folder=store.clips, most_mb=10, children=children)
    assert why.value.code == "upload_cut_off" and list(store.clips.iterdir()) == []


def test_a_clip_larger_than_allowed_is_refused_before_and_while_it_comes(store, children) -> None:
    from brevin.core.errors import ClipUnusable
    from brevin.web.intake import take_in

    for announced in (5_000_000, None):
        with pytest.raises(ClipUnusable) as why:
            take_in(io.BytesIO(bytes(2_500_000)), announced_bytes=announced, file_name="a.mp4", folder=store.clips, most_mb=2, children=children)
        assert why.value.code == "too_large" and list(store.clips.iterdir()) == []


@pytest.mark.parametrize("name", ["../../etc/passwd", "..\\..\\x.mp4", "a/b/c.mp4", "", "\x00\x01.mp4", "x" * 400 + ".mp4"])
def test_the_senders_name_never_becomes_a_path(store, children, name: str) -> None:
    from brevin.web.intake import take_in

    kept = take_in(io.BytesIO(CLIP), announced_bytes=len(CLIP), file_name=name, folder=store.clips, most_mb=10, children=children)
    assert [p.name for p in store.clips.iterdir()] == [kept.stored_name]
    assert "/" not in kept.original_name and "\\" not in kept.original_name and 0 < len(kept.original_name) <= 160


def test_no_clip_without_consent(page, scope, student, store) -> None:
    students.withdraw_consent(scope, student.id)
    answer = send(page, student)
    assert (answer.status_code, answer.json["code"]) == (409, "no_consent")
    assert list(store.clips.iterdir()) == [] and takes.latest(scope) == []


def test_a_student_or_card_that_is_none_is_refused(page, scope, student, store) -> None:
    assert send(page, student, student_id=999_999).json["code"] == "student_gone"
    assert send(page, student, card="lots").json["code"] == "bad_card"
    assert send(page, student, student_id="x").json["code"] == "bad_request"
    assert list(store.clips.iterdir()) == []


def test_report_and_headline_after_the_reading(page, scope, student, store) -> None:
    take_id = send(page, student).json["id"]
    assert page("GET", f"/api/takes/{take_id}/report").json["code"] == "not_there"
    read(take_id)
    take = page("GET", f"/api/takes/{take_id}").json
    assert (take["state"], take["headline"]["state"], take["clip"]["url"]) == ("read", "watch", f"/api/takes/{take_id}/clip")
    answer = page("GET", f"/api/takes/{take_id}/report")
    assert answer.json == json.loads(DOCUMENT) and answer.headers["X-Report-Version"] == "1"


def test_the_clip_is_served_in_byte_ranges_to_those_signed_in(page, scope, student, store) -> None:
    take_id = send(page, student).json["id"]
    assert page("GET", f"/api/takes/{take_id}/clip").status_code == 404, "not before a browser can play it"
    read(take_id)
    whole = page("GET", f"/api/takes/{take_id}/clip")
    assert whole.data == CLIP and whole.mimetype == "video/mp4" and "no-store" in whole.headers["Cache-Control"]
    part = page("GET", f"/api/takes/{take_id}/clip", headers={"Range": "bytes=100-299"})
    assert part.status_code == 206 and part.data == CLIP[100:300] and part.headers["Content-Range"] == f"bytes 100-299/{len(CLIP)}"
    assert page("GET", f"/api/takes/{take_id}/clip", headers={"Range": f"bytes={len(CLIP)}-"}).status_code == 416
    students.withdraw_consent(scope, student.id)
    assert page("GET", f"/api/takes/{take_id}/clip").json["code"] == "no_consent"


def test_a_clip_of_a_chair_is_filmed_for_what_the_chair_asks(page, scope, student, store) -> None:
    lesson_of(scope, student.id)
    seat = page("GET", "/api/today").json["lesson"]["seats"][0]
    take = send(page, student, card="", seat_id=seat["id"]).json
    assert take["check"] == seat["check"] and take["check"]["card"]["tempo_bpm"] == 84
    assert send(page, student, seat_id=999_999).json["code"] == "not_there"


def test_a_body_that_is_too_large_or_too_deep_is_refused_in_words(page, scope, student, store) -> None:
    deep = "[" * 100_000 + "]" * 100_000
    answer = page("PATCH", "/api/seats/1", data=deep, headers={"Content-Type": "application/json"})
    assert answer.status_code in (400, 422) and answer.json["code"] == "bad_request"
    large = page("PATCH", "/api/seats/1", data=b" " * 300_000, headers={"Content-Type": "application/json"})
    assert (large.status_code, large.json["code"]) == (413, "too_large")


def test_deleting_a_take_deletes_its_files(page, scope, student, store) -> None:
    take_id = send(page, student).json["id"]
    read(take_id)
    (store.evidence / FOUND.evidence_name).write_bytes(b"what was seen")
    assert page("DELETE", f"/api/takes/{take_id}").json == {"done": True}
    assert list(store.clips.iterdir()) == list(store.evidence.iterdir()) == [] and files.to_go(HOUSE) == []
    assert page("GET", f"/api/takes/{take_id}").json["code"] == "not_there"
    assert page("DELETE", f"/api/takes/{take_id}").status_code == 404


def test_reading_again_waits_again(page, scope, student, store) -> None:
    take_id = send(page, student).json["id"]
    read(take_id)
    assert page("POST", f"/api/takes/{take_id}/read-again").json["state"] == "queued"
    assert readings.claim_next(HOUSE).take.id == take_id
    students.withdraw_consent(scope, student.id)
    assert page("POST", f"/api/takes/{take_id}/read-again").json["code"] == "no_consent"


def test_an_error_of_ours_says_so_and_tells_nothing(page, monkeypatch) -> None:
    from brevin.web import takes as routes

    monkeypatch.setattr(routes.takes, "latest", lambda scope: 1 / 0)
    answer = page("GET", "/api/takes")
    assert (answer.status_code, answer.json["code"]) == (500, "program_error") and "Zero" not in answer.text


def test_a_recording_that_is_sent_twice_is_one_take(page, student, store) -> None:
    asked = f"/api/takes?student_id={student.id}&file_name=filmed-here.mp4&sent_as=6f9619ff-8b86-4d01-b42d-00cf4fc964ff&first_inhale_s=3.2"
    first = page("POST", asked, data=DEMO_CLIP.read_bytes())
    again = page("POST", asked, data=DEMO_CLIP.read_bytes())
    assert (first.status_code, again.status_code) == (201, 200) and first.json["id"] == again.json["id"]
    assert len(page("GET", "/api/takes").json["takes"]) == 1 and len(list(store.clips.iterdir())) == 1
    assert page("POST", asked.replace("6f9619ff", "no-uuid!"), data=b"x").status_code == 422
