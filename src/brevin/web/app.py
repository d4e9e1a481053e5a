"""The factory of the web application. Every route but those named in ``OPEN`` asks for a sign-in."""

from collections.abc import Callable
from datetime import timedelta
from pathlib import Path

from apiflask import APIFlask
from flask import Response, current_app, request, send_from_directory
from flask_login import current_user
from flask_talisman import Talisman
from flask_wtf.csrf import CSRFError

from brevin import __version__
from brevin.ops.settings import ROOT, Settings
from brevin.web import auth, lesson, problems, takes
from brevin.web.problems import SENTENCES, Refused

OPEN = {"auth.me", "auth.sign_in", "page", "asset"}  # the page itself holds nothing of anybody
DIST = ROOT / "frontend" / "dist"
CONTENT_SECURITY = {
    "default-src": "'self'", "img-src": ["'self'", "data:", "blob:"], "media-src": ["'self'", "blob:"], "style-src": "'self'",
    "script-src": "'self'", "connect-src": "'self'", "frame-ancestors": "'none'", "object-src": "'none'", "base-uri": "'self'",
}  # fmt: skip


def create_app(settings: Settings, *, send: Callable[[str], object], secure_cookie: bool = False, dist: Path = DIST) -> APIFlask:
    """The application. send: puts a take's id into the reading queue; secure_cookie: only over https."""
    app = APIFlask("brevin", title="Brevin", version=__version__, static_folder=None, docs_path=None, spec_path=None)
    app.config.update(
        SECRET_KEY=settings.values["session_key"], BREVIN=settings, SEND=send, SESSION_COOKIE_SAMESITE="Lax", SESSION_COOKIE_HTTPONLY=True,
        SESSION_COOKIE_NAME="brevin", PERMANENT_SESSION_LIFETIME=timedelta(hours=10), WTF_CSRF_TIME_LIMIT=None, RATELIMIT_HEADERS_ENABLED=True,
        VALIDATION_ERROR_STATUS_CODE=422,
    )  # fmt: skip
    auth.add_to(app)
    problems.add_to(app)
    app.register_error_handler(CSRFError, lambda e: problems.reply("page_old", 400, SENTENCES["page_old"]))
    for feature in (auth, takes, lesson):
        app.register_blueprint(feature.routes)
    app.before_request(_signed_in)
    _pages(app, dist)
    Talisman(
        app, force_https=False, session_cookie_secure=secure_cookie, strict_transport_security=False, content_security_policy=CONTENT_SECURITY,
        content_security_policy_nonce_in=["style-src"], referrer_policy="no-referrer",
        permissions_policy={"camera": "(self)", "microphone": "(self)"},
    )  # fmt: skip
    return app


def _signed_in() -> None:
    if request.endpoint not in OPEN and request.endpoint is not None and not current_user.is_authenticated:
        raise Refused("signed_out", 401)


def _pages(app: APIFlask, dist: Path) -> None:
    @app.get("/assets/<path:name>")
    @app.doc(hide=True)
    def asset(name: str) -> Response:
        response = send_from_directory(dist / "assets", name, conditional=True)
        response.headers["Cache-Control"] = "public, max-age=31536000, immutable"  # names carry a fingerprint
        return response

    @app.get("/", defaults={"path": ""})
    @app.get("/<path:path>")
    @app.doc(hide=True)
    def page(path: str) -> Response:
        if path.startswith("api/"):
            raise Refused("not_there", 404)
        nonce = str(getattr(request, "csp_nonce", ""))
        response = Response((dist / "index.html").read_text().replace("__NONCE__", nonce), mimetype="text/html")
        response.headers["Cache-Control"] = "no-store"
        return response


def spec_of(app: APIFlask) -> dict[str, object]:
    """The API's description, from which the front end's types are made."""
    with app.app_context():
        assert current_app
        return dict(app.spec)
