"""Refusals: one shape for all, the sentences in one place."""

import logging

from flask import Flask, Response, jsonify
from pydantic import ValidationError
from werkzeug.exceptions import HTTPException

from brevin.core.errors import ClipUnusable, InvalidInput
from brevin.core.verdict.reasons import reason_text
from brevin.store.records import NoConsent, NotThere

SENTENCES: dict[str, str] = {
    "signed_out": "Sign in first.",
    "no_programme": "You belong to no programme here yet. Ask the teacher who runs Brevin to add you.",
    "not_yours": "Your role here does not allow this. Ask the teacher who runs the programme.",
    "login_taken": "Somebody signs in with this name already. Choose another.",
    "too_many_pages": "Too many pages are open. Close one, then load this one again.",
    "read_again": "What was kept of this clip is missing or from an older release. Read the clip again.",
    "bad_drawing": "A note needs words, and one clip holds 30 drawings: rub one out first.",
    "bad_edit": "This does not fit: a turn must stay between its neighbours, the player must be one who was followed, and a line needs two places apart.",
    "wrong_sign_in": "Name or password is not right. Try again, or ask the teacher who runs Brevin here.",
    "demo_password": "The demo's password is known to everybody and opens nothing to a network. Give yourself another on the laptop, then sign in.",
    "too_many_tries": "Too many tries. Wait a minute, then sign in again.",
    "not_there": "This is not here any more. Someone may have deleted it.",
    "no_consent": "No consent to film this student is on record for today, so the clip was not taken in. Ask the family first.",
    "student_gone": "This student was deleted here with everything that was held, so the clip was not taken in.",
    "no_consent_to_lie": "No consent to lie down for drills is on record for this student today. Ask the family first, or choose a seated card.",
    "bad_request": "Something in this request is missing or has the wrong form.",
    "page_old": "This page was open for a long time. Load it again, then repeat what you did.",
    "other_page": "Another page asked for this in your name. Open Brevin itself and do it there.",
    "no_table": "This is no table that can be read. Save the class list as CSV, with a heading above each column, and drop that.",
    "list_too_large": "This file is larger than any class list. Was it the right one? A class of 150 is a list of a few pages.",
    "no_headings": "No columns headed name and instrument were found, only: {found}. Head them so, in any order, and drop the list again.",
    "no_rows": "There is no student in this list, only headings or nothing at all.",
    "too_many_rows": "This list has {rows} rows; {most} at once are taken. Split it, and drop the parts.",
    "begun": "This program has its first account already. Sign in with it.",
    "not_from_here": "The first account is made on the computer that Brevin runs on.",
    "few_examples": "Leave at least one take up and one down: the line lies between them.",
    "bad_card": "This is no count card. Write it like 3-0-7@72x4: in, pause, out, at a tempo, how often.",
    "no_length": "How long it sounded is kept of a good try with the part alone. Tap what came out without it.",
    "too_many_efforts": "More than {most} longest tries in a row are too many: a minute of rest comes after them. Make it {most} at most.",
    "too_many_in_a_row": "More than {most} breaths in a row make light-headed. Make two cards of it; the program puts the rest between them.",
    "only_seated": "Longest tries and staying empty are done seated. Choose seated, or give the breath out an end.",
    "empty_off": "Staying empty is switched off here. Whoever may change the rules switches it on, below the ladder.",
    "order_old": "The chairs of this lesson have changed meanwhile. Look at the line as it is now, then move the chair again.",
    "under_way": "This is still being done. Wait a moment, then look whether it is there.",
    "code_unknown": "This code opens nothing. Look at it again on the teacher's screen, or ask for a new one.",
    "member_already": "You belong to this programme already. The link stays good for somebody else.",
    "programme_named_so": "One of your programmes is called so already. Choose another name.",
    "no_time_zone": "There is no time zone of that name. Choose one from the list.",
    "code_used": "This code was used already. Ask for a new one: each opens once.",
    "code_old": "This code has run out. Ask for a new one.",
    "not_allowed": "This cannot be done here.",
    "too_large": "This is larger than can be taken in.",
    "piece_misplaced": "This piece does not follow what came before. The clip is sent whole when it is done.",
    "no_picture": "This is no picture that can be looked at.",
    "no_instrument": "The bench has no card for this instrument.",
    "no_such_way": "This instrument's card knows no such way. Load the page again.",
    "no_such_task": "This instrument's card has no such care, or nobody waits that many days.",
    "no_such_note": "This is none of the first notes of this instrument. Load the page again.",
    "not_open_yet": "This note opens after more good tries at the one before. Whoever may change the rules can switch the gate off: Bench, our ways.",
    "rest_first": "Rest first: {seconds} seconds more. Lips and head need it after so many tries.",
    "asked_back": "{value} {unit} is unusual: {low} to {high} is what is expected here. Is it meant?",
    "no_such_value": "This instrument's card asks for no such value.",
    "no_such_fit": "{title} can be kept from {low} to {high} {unit}.",
    "live_busy": "The live view does not keep up at the moment. Film all the same: the clip is read afterwards.",
    "program_error": "The program made an error. It is written down; try again.",
}
SAID_ALONE = ("few_examples", "bad_drawing")  # what a person did, and not a page's mistake
STATUS = {401: "signed_out", 404: "not_there", 405: "not_allowed", 413: "too_large", 422: "bad_request", 429: "too_many_tries"}


class Refused(Exception):
    """A refusal with its HTTP status; message defaults to the code's sentence."""

    def __init__(self, code: str, status: int, message: str | None = None) -> None:
        super().__init__(code)
        self.code, self.status = code, status
        self.message = message or SENTENCES[code]


def reply(code: str, status: int, message: str) -> Response:
    """The wire form of a refusal."""
    response = jsonify(code=code, message=message)
    response.status_code = status
    return response


def _unusable(error: InvalidInput) -> Response:
    code = error.code if error.code in SAID_ALONE else "bad_request"
    return reply(code, 422, SENTENCES[code])


def _no_consent(error: NoConsent) -> Response:
    code = "no_consent_to_lie" if error.args == ("lying",) else "no_consent"
    return reply(code, 409, SENTENCES[code])


def bad_request(error: ValidationError) -> Response:
    """A request whose parts are missing or have the wrong form."""
    return reply("bad_request", 422, SENTENCES["bad_request"])


def add_to(app: Flask) -> None:
    """Turn errors of all layers into refusals."""
    app.register_error_handler(Refused, lambda e: reply(e.code, e.status, e.message))
    app.register_error_handler(NotThere, lambda e: reply("not_there", 404, SENTENCES["not_there"]))
    app.register_error_handler(NoConsent, _no_consent)
    app.register_error_handler(ClipUnusable, lambda e: reply(e.code, 422, reason_text(e.code, e.facts)))
    app.register_error_handler(InvalidInput, _unusable)
    app.register_error_handler(RecursionError, lambda e: reply("bad_request", 400, SENTENCES["bad_request"]))
    app.register_error_handler(HTTPException, _http)
    app.register_error_handler(Exception, _ours)


def _http(error: HTTPException) -> Response:
    if error.response is not None and isinstance(error.response, Response):  # one of ours already
        return error.response
    status = error.code or 400
    code = STATUS.get(status, "bad_request")
    return reply(code, status, SENTENCES[code])


def _ours(error: Exception) -> Response:
    logging.getLogger("brevin.web").exception("unexpected error")
    return reply("program_error", 500, SENTENCES["program_error"])
