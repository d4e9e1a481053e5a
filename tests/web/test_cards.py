"""The ladder over the wire: begun for the teacher, changed by the teacher, kept within what is safe."""

from dataclasses import replace
from fractions import Fraction
from pathlib import Path

import av
import numpy as np
import pytest

from brevin.store import cards, programmes, resting, takes
from brevin.store.scope import HOUSE, Scope
from brevin.web.cards import LONGEST_SHOWN_S
from tests.conftest import CHECK, DEMO_CLIP
from tests.store.test_takes import new_take
from tests.web.conftest import signed_in

CARD = {"rung": 2, "title": "longer out", "card": "3-0-6@76x3", "asks": "air", "countin_words": ["one", "two", "ready", "in"]}


def ladder(page) -> list[dict]:
    return page("GET", "/api/cards").json["cards"]


def test_a_programme_begins_with_a_ladder_of_its_own(page, app) -> None:
    first = ladder(page)
    assert len(first) > 6 and [card["rung"] for card in first] == sorted(card["rung"] for card in first)
    assert [card["id"] for card in ladder(page)] == [card["id"] for card in first], "asked twice, begun once"
    stranger = signed_in(app, Scope(programmes.add_programme(HOUSE, name="Next door").id), "teacher")
    assert not {card["id"] for card in ladder(stranger)} & {card["id"] for card in first}


def test_a_card_is_made_changed_and_deleted_and_says_what_it_asks(page) -> None:
    made = page("POST", "/api/cards", json=CARD).json
    assert made["check"]["name"] == "3-0-6@76x3" and made["check"]["asks"] == "air" and made["check"]["countin_words"] == CARD["countin_words"]
    assert made["lasts_s"] == pytest.approx((4 + 3 * 9) * 60 / 76)
    changed = page("PUT", f"/api/cards/{made['id']}", json=CARD | {"card": "2-1-6@76x3", "title": "out and out"}).json
    assert changed["check"]["card"]["pause_beats"] == 1 and {c["title"] for c in ladder(page) if c["rung"] == 2} == {"out and out"}
    assert page("DELETE", f"/api/cards/{made['id']}").json == {"done": True}
    assert made["id"] not in [card["id"] for card in ladder(page)]


def test_a_hold_in_counts_is_kept_whatever_is_allowed_of_breaths(page, scope: Scope, student, clip) -> None:
    hold = CARD | {"kind": "hold", "card": "2-0-6-2@60x3", "asks": "easier", "with_instrument": True}
    made = page("POST", "/api/cards", json=hold).json  # staying empty is switched off, and no breath is asked
    assert (made["check"]["kind"], made["check"]["name"], made["lasts_s"]) == ("hold", "hold 2-0-6-2@60x3", 34.0)
    assert page("POST", "/api/cards", json=hold | {"contrast": "high_low", "card": "2-0-6@60x2"}).status_code == 422
    check = cards.card(scope, made["id"]).check
    takes.add(scope, student_id=student.id, lesson_id=None, check=check, clip=clip)
    assert resting.runs(scope, student.id) == [], "raises make nobody light-headed"
    takes.add(scope, student_id=student.id, lesson_id=None, check=CHECK, clip=replace(clip, stored_name="other.mp4"))
    assert len(resting.runs(scope, student.id)) == 1


def test_a_full_card_says_what_is_played_and_is_judged_as_it_asks(page, scope: Scope, student, clip) -> None:
    full = {"kind": "drill", "position": "standing", "with_instrument": True, "notes": "concert B flat", "dynamic": "soft", "articulation": "air"}
    made = page("POST", "/api/cards", json=CARD | full | {"taught": {"breathing_out": "small_pushes", "between": "counted_pause"}}).json
    assert {key: made["check"][key] for key in full} == full and made["check"]["name"] == "drill 3-0-6@76x3"
    page("PUT", "/api/rules/method", json={"answers": {"breathing_out": "let_fall", "fullness": "counts_are_time"}})
    usual = takes.add(scope, student_id=student.id, lesson_id=None, check=CHECK, clip=clip)
    drill = takes.add(scope, student_id=student.id, lesson_id=None, check=cards.card(scope, made["id"]).check, clip=replace(clip, stored_name="other.mp4"))
    of_method, of_card = usual.rules, drill.rules
    assert "even_exhale" in of_card.off - of_method.off and "not_full_early" in of_card.off & of_method.off
    assert of_card.limit("pause.steady_beats") == 1.0 and of_card.set_by["pause.steady_beats"] == "card"
    assert "even_exhale.release" in of_method.changed and "even_exhale.release" not in of_card.changed, "the card lets nothing fall"


@pytest.mark.parametrize(
    ("change", "code", "says"),
    [
        ({"card": "3-0-6@76x7"}, "too_many_in_a_row", "More than 6 breaths"), ({"card": "3-0-6-2@76x3"}, "empty_off", "switched off"),
        ({"card": "3-0-*@76x4"}, "too_many_efforts", "More than 3 longest tries"), ({"card": "3-0"}, "bad_card", "3-0-7@72x4"),
        ({"card": "3-0-*@76x3", "position": "standing"}, "only_seated", "done seated"), ({"taught": {"practice": "every_day"}}, "bad_card", "count card"),
        ({"countin_words": ["a word that is far too long"]}, "bad_card", "count card"),
    ],
)  # fmt: skip
def test_what_is_not_safe_or_no_card_is_refused_in_words(page, change: dict, code: str, says: str) -> None:
    before = ladder(page)
    refused = page("POST", "/api/cards", json=CARD | change)
    assert (refused.status_code, refused.json["code"]) == (422, code) and says in refused.json["message"]
    assert ladder(page) == before


def test_staying_empty_has_a_switch_of_its_own(page) -> None:
    assert page("GET", "/api/cards").json["empty_allowed"] is False
    page("PUT", "/api/cards/empty", json={"allowed": True})
    assert page("POST", "/api/cards", json=CARD | {"card": "3-0-6-2@76x3"}).status_code == 201


def test_a_card_tells_how_many_students_were_last_on_it(page, scope, student, clip) -> None:
    made = page("POST", "/api/cards", json=CARD | {"card": CHECK.name}).json
    new_take(scope, student, clip)
    assert {card["id"]: card["students"] for card in ladder(page)}[made["id"]] == 1


def test_what_was_felt_answers_the_cards_own_question(page, scope, student, clip) -> None:
    take = new_take(scope, student, clip)
    assert page("PUT", f"/api/takes/{take.id}/felt", json={"felt": "high"}).json["felt"] == "high"
    assert page("PUT", f"/api/takes/{take.id}/felt", json={"felt": "easier"}).status_code == 422
    assert takes.take_record(scope, take.id).felt == "high"


def test_a_card_of_sets_is_kept_and_each_set_is_read_for_its_own_counts(page, scope, student, clip) -> None:
    staged = CARD | {"card": "4-0-6@84x2", "sets": ["3-0-6@84x2", "2-0-6@84x2"], "contrast": "high_low"}
    made = page("POST", "/api/cards", json=staged).json
    assert [one["inhale_beats"] for one in made["check"]["sets"]] == [3, 2] and made["check"]["contrast"] == "high_low"
    assert made["lasts_s"] == pytest.approx(sum((4 + 2 * (i + 6)) * 60 / 84 for i in (4, 3, 2)))
    assert page("POST", "/api/cards", json=staged | {"sets": ["3-0-6@84x8"]}).json["code"] == "too_many_in_a_row"
    page("POST", "/api/class/lesson", json={"title": "Sets", "student_ids": [student.id], "card_id": made["id"]})
    [seat] = page("GET", "/api/today").json["lesson"]["seats"]
    content = DEMO_CLIP.read_bytes()

    def send(number: int):
        query = {"student_id": student.id, "seat_id": seat["id"], "set_number": number, "file_name": "set.mp4"}
        return page("POST", "/api/takes", query_string=query, data=content, headers={"Content-Type": "application/octet-stream"})

    assert send(1).json["check"]["name"] == "3-0-6@84x2" and send(1).json["check"]["sets"] == []
    assert send(7).json["code"] == "bad_card"


def test_a_chairs_check_may_be_filmed_for_once_without_the_instrument(page, scope, student, clip) -> None:
    made = page("POST", "/api/cards", json=CARD | {"card": "4-0-6@84x2", "with_instrument": True}).json
    page("POST", "/api/class/lesson", json={"title": "Without", "student_ids": [student.id], "card_id": made["id"]})
    [seat] = page("GET", "/api/today").json["lesson"]["seats"]
    query = {"student_id": student.id, "seat_id": seat["id"], "file_name": "once.mp4"}
    held, down = (
        page("POST", "/api/takes", query_string=query | {"without_it": word}, data=DEMO_CLIP.read_bytes(), headers={"Content-Type": "application/octet-stream"})
        for word in ("false", "true")
    )
    assert held.json["check"]["with_instrument"] and not down.json["check"]["with_instrument"]
    assert page("GET", "/api/today").json["lesson"]["seats"][0]["check"]["with_instrument"], "the chair asks for it as before"


def test_a_chairs_check_may_be_filmed_for_once_from_the_front(page, scope, student, clip) -> None:
    made = page("POST", "/api/cards", json=CARD | {"card": "4-0-6@84x2", "with_instrument": True}).json
    page("POST", "/api/class/lesson", json={"title": "Front", "student_ids": [student.id], "card_id": made["id"]})
    [seat] = page("GET", "/api/today").json["lesson"]["seats"]
    query = {"student_id": student.id, "seat_id": seat["id"], "file_name": "once.mp4", "from_front": "true"}
    front = page("POST", "/api/takes", query_string=query, data=DEMO_CLIP.read_bytes(), headers={"Content-Type": "application/octet-stream"})
    assert front.json["check"]["view"] == "front" and front.json["check"]["with_instrument"]
    assert page("GET", "/api/today").json["lesson"]["seats"][0]["check"]["view"] != "front", "the chair asks for it as before"


def sent(page, card_id: int, content: bytes, name: str = "me.mp4"):
    return page("POST", f"/api/cards/{card_id}/shown", query_string={"file_name": name}, data=content, headers={"Content-Type": "application/octet-stream"})


def test_a_demonstration_is_kept_with_its_card_shown_to_the_programme_alone_and_taken_away(page, app, scope, store) -> None:
    made = page("POST", "/api/cards", json=CARD).json
    assert made["check"]["shown"] == ""
    address = sent(page, made["id"], DEMO_CLIP.read_bytes()).json["check"]["shown"]
    assert page("GET", address).get_data() == DEMO_CLIP.read_bytes()
    changed = page("PUT", f"/api/cards/{made['id']}", json=CARD | {"card": "2-0-6@76x3"}).json
    assert changed["check"]["shown"] == address, "another count is shown the same way"
    stranger = signed_in(app, Scope(programmes.add_programme(HOUSE, name="Next door").id), "teacher")
    assert stranger("GET", address).status_code == 404
    assert len(list(store.clips.iterdir())) == 1
    second = sent(page, made["id"], DEMO_CLIP.read_bytes()).json["check"]["shown"]
    assert second != address and page("GET", address).status_code == 404 and len(list(store.clips.iterdir())) == 1, "the newer one takes its place"
    assert page("DELETE", f"/api/cards/{made['id']}/shown").json["check"]["shown"] == "" and not list(store.clips.iterdir())


def test_a_demonstration_may_be_sound_alone_and_is_played_as_any_browser_plays_it(page, scope, store, tmp_path) -> None:
    made = page("POST", "/api/cards", json=CARD).json
    heard = sent(page, made["id"], voice(tmp_path / "me.webm", length_s=3.0), "me.webm")
    got = page("GET", heard.json["check"]["shown"])
    assert (heard.status_code, got.mimetype) == (200, "audio/mp4") and len(list(store.clips.iterdir())) == 1
    copy = tmp_path / "copy.m4a"
    copy.write_bytes(got.get_data())
    with av.open(str(copy)) as sound:
        samples = np.concatenate([frame.to_ndarray()[0] for frame in sound.decode(audio=0)])
        assert len(samples) / sound.streams.audio[0].rate == pytest.approx(3.0, abs=0.1) and np.abs(samples).max() > 0.2
    long = sent(page, made["id"], voice(tmp_path / "long.webm", length_s=LONGEST_SHOWN_S + 2.0), "long.webm")
    assert (long.status_code, long.json["code"]) == (422, "demonstration_long") and len(list(store.clips.iterdir())) == 1


def voice(path: Path, *, length_s: float) -> bytes:
    """Sound as a browser records it: Opus in WebM, a hum of 220 Hz."""
    with av.open(str(path), "w", format="webm") as out:
        track = out.add_stream("libopus", rate=48_000, layout="mono")
        hum = 0.5 * np.sin(2 * np.pi * 220 * np.arange(int(length_s * 48_000)) / 48_000)
        for start in range(0, len(hum), 960):
            piece = av.AudioFrame.from_ndarray(hum[None, start : start + 960].astype(np.float32), format="flt", layout="mono")
            piece.sample_rate, piece.pts, piece.time_base = 48_000, start, Fraction(1, 48_000)
            out.mux(track.encode(piece))
        out.mux(track.encode(None))
    return path.read_bytes()


def test_what_is_no_demonstration_is_refused_and_the_one_that_is_there_stays(page, scope, store) -> None:
    made = page("POST", "/api/cards", json=CARD).json
    address = sent(page, made["id"], DEMO_CLIP.read_bytes()).json["check"]["shown"]
    assert sent(page, made["id"], b"a letter", "letter.mp4").json["code"] == "not_a_video"
    assert sent(page, made["id"], b"").json["code"] == "empty_file"
    assert page("GET", address).status_code == 200 and len(list(store.clips.iterdir())) == 1
    page("DELETE", f"/api/cards/{made['id']}")
    assert page("GET", address).status_code == 404 and sent(page, 999999, b"x").status_code == 404
