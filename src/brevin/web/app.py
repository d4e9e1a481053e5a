"""The factory of the web application. What a route needs is a row in ``permissions``; every route but those named in ``OPEN`` asks for a sign-in."""

import json
from datetime import timedelta
from mimetypes import guess_type
from pathlib import Path

from flask import Response, request, send_from_directory
from flask.typing import ResponseReturnValue
from flask_login import current_user
from flask_openapi3 import Info, OpenAPI
from flask_talisman import Talisman
from flask_wtf.csrf import CSRFError
from werkzeug.exceptions import NotFound

from brevin import __version__
from brevin.edge.clip_work import PRELOAD_PROBE
from brevin.edge.instrument_files import content
from brevin.edge.limited import Children
from brevin.ops.listening import own_names
from brevin.ops.settings import ROOT, Settings
from brevin.store.database import untangled
from brevin.web import (
    auth,
    bench,
    bench_care,
    bench_firsts,
    bench_record,
    cards,
    classroom,
    drawings,
    events,
    filming,
    helps,
    keeping,
    lesson,
    lines,
    live,
    once,
    past,
    people,
    phone,
    problems,
    rules,
    said,
    students,
    takes,
)
from brevin.web.feed import Feed
from brevin.web.permissions import OPEN, allowed
from brevin.web.problems import SENTENCES, Refused

DIST = ROOT / "frontend" / "dist"
CONTENT_SECURITY = {
    "default-src": "'self'", "img-src": ["'self'", "data:", "blob:"], "media-src": ["'self'", "blob:"], "style-src": "'self'",
    "script-src": "'self'", "connect-src": "'self'", "frame-ancestors": "'none'", "object-src": "'none'", "base-uri": "'self'", "form-action": "'self'",
}  # fmt: skip
FEATURES = (
    auth, cards, classroom, events, filming, keeping, lesson, live, students, takes, said, drawings, helps, rules, lines, people, phone,
    bench, bench_firsts, bench_care, bench_record, past,
)  # fmt: skip
MOST_JSON_BYTES = 256_000  # of a body that is no clip
REPEATABLE = ("PUT", "PATCH")
KEPT_NOWHERE = ("phone",)  # codes and links: their answers are shown and forgotten


class Application(OpenAPI):
    """A request that may be repeated is begun anew where the database ended it for another's sake: nobody is asked to try again. One that must not be is done
    once under its name, however often it is sent."""

    def dispatch_request(self) -> ResponseReturnValue:
        """The route's answer."""
        name = request.headers.get(once.HEADER, "")
        kept = request.method == "POST" and request.blueprint not in KEPT_NOWHERE and current_user.is_authenticated
        if kept and 0 < len(name) <= once.LONGEST_NAME:
            who = auth.member()
            return self.config["ONCE"].answered(once.Asked(who.programme.id, who.person.id, request.full_path, name), super().dispatch_request)
        if request.method in REPEATABLE and request.mimetype in ("", "application/json"):
            return untangled(super().dispatch_request)
        return super().dispatch_request()


def create_app(settings: Settings, *, lan: bool = False, dist: Path = DIST) -> OpenAPI:
    """The application. lan: open to the room over https, so the cookie goes that way alone and the demo's password opens nothing."""
    app = Application(
        "brevin", info=Info(title="Brevin", version=__version__), static_folder=None, doc_ui=False, validation_error_callback=problems.bad_request
    )
    children = Children(PRELOAD_PROBE)
    app.config.update(
        SECRET_KEY=settings.values["session_key"], BREVIN=settings, SESSION_COOKIE_SAMESITE="Lax", SESSION_COOKIE_HTTPONLY=True,
        SESSION_COOKIE_NAME="brevin", PERMANENT_SESSION_LIFETIME=timedelta(hours=10), WTF_CSRF_TIME_LIMIT=None, RATELIMIT_HEADERS_ENABLED=True,
        FEED=Feed(), ONCE=once.Once(), CHILDREN=children, WATCHER=live.Watcher(children), LAN=lan, CONTENT=content(ROOT / "content"),
        TRUSTED_HOSTS=["localhost", "127.0.0.1", *(own_names() if lan else [])],
    )  # fmt: skip
    app.before_request(_small_enough)
    app.before_request(_from_our_page)
    auth.add_to(app)
    problems.add_to(app)
    app.register_error_handler(CSRFError, lambda e: problems.reply("page_old", 400, SENTENCES["page_old"]))
    for feature in FEATURES:
        app.register_api(feature.routes)
    app.before_request(_may)
    app.after_request(_not_kept)
    _pages(app, dist)
    Talisman(
        app, force_https=False, session_cookie_secure=lan, strict_transport_security=False, content_security_policy=CONTENT_SECURITY,
        content_security_policy_nonce_in=["style-src"], referrer_policy="same-origin",
        permissions_policy={"camera": "(self)", "microphone": "(self)"},
    )  # fmt: skip
    return app


def _small_enough() -> None:
    if request.mimetype == "application/json" and (request.content_length or 0) > MOST_JSON_BYTES:
        raise Refused("too_large", 413)


def _from_our_page() -> None:
    """A browser tells when another site's page asks for something: that page may have a person's cookies sent, and does nothing here."""
    if request.headers.get("Sec-Fetch-Site") in ("cross-site", "same-site") and request.path.startswith("/api/"):
        raise Refused("other_page", 403)


def _may() -> None:
    """Signed in, and allowed by the role."""
    if request.endpoint is None or request.endpoint in OPEN:
        return
    if not current_user.is_authenticated:
        raise Refused("signed_out", 401)
    if not allowed(current_user.record.role, request.endpoint):
        raise Refused("not_yours", 403)


def _not_kept(response: Response) -> Response:
    """Answers of the API are kept by no browser."""
    if request.path.startswith("/api/"):
        response.headers.setdefault("Cache-Control", "no-store")
    return response


def _pages(app: OpenAPI, dist: Path) -> None:
    def asset(name: str) -> Response:
        response = _packed(dist / "assets", name) or send_from_directory(dist / "assets", name, conditional=True)
        response.vary.add("Accept-Encoding")
        response.headers["Cache-Control"] = "public, max-age=31536000, immutable"  # names carry a fingerprint
        return response

    def page(path: str = "") -> Response:
        if path.startswith("api/"):
            raise Refused("not_there", 404)
        nonce = str(getattr(request, "csp_nonce", ""))
        response = Response((dist / "index.html").read_text().replace("__NONCE__", nonce), mimetype="text/html")
        response.headers["Cache-Control"] = "no-store"
        return response

    app.add_url_rule("/assets/<path:name>", "asset", asset)
    app.add_url_rule("/", "page", page)
    app.add_url_rule("/<path:path>", "page", page)


def _packed(assets: Path, name: str) -> Response | None:
    """A script or style as the build packed it, for who takes that; None where there is none."""
    if "gzip" not in request.accept_encodings:
        return None
    try:
        response = send_from_directory(assets, f"{name}.gz", mimetype=guess_type(name)[0], conditional=True)
    except NotFound:
        return None
    response.headers["Content-Encoding"] = "gzip"
    return response


def spec_of(app: OpenAPI) -> dict[str, object]:
    """The API's description, from which the front end's types are made."""
    with app.app_context():
        found: dict[str, object] = json.loads(json.dumps(app.api_doc))
        return found
