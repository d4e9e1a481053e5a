"""Open to the room: over https, with a certificate that names the machine, and signing in works there."""

import json
import os
import signal
import ssl
import subprocess
import urllib.error
import urllib.request
from http.cookiejar import CookieJar
from pathlib import Path

import pytest

from brevin.ops import demo
from brevin.ops.listening import CERTIFICATE_DAYS, certificate, own_names
from brevin.ops.mariadb import free_port
from brevin.ops.settings import ROOT, load

PASSWORD = "only-for-this-test"


def test_the_certificate_names_this_machine_lasts_a_year_and_is_made_anew_when_the_names_change(tmp_path: Path) -> None:
    store = load(tmp_path)
    certificate(store)
    crt = tmp_path / "secrets" / "lan.crt"
    text = subprocess.run(["openssl", "x509", "-in", str(crt), "-noout", "-text"], capture_output=True, text=True, check=True).stdout
    assert "DNS:localhost" in text and all(name in text for name in own_names())
    assert (tmp_path / "secrets" / "lan.key").stat().st_mode & 0o077 == 0
    soon = (CERTIFICATE_DAYS + 2) * 86400
    assert subprocess.run(["openssl", "x509", "-in", str(crt), "-checkend", str(soon), "-noout"], capture_output=True).returncode == 1, "no longer than that"
    first = crt.read_bytes()
    certificate(store)
    assert crt.read_bytes() == first
    crt.with_suffix(".names").write_text("another-machine")
    certificate(store)
    assert crt.read_bytes() != first


def test_signing_in_over_the_rooms_https(tmp_path: Path) -> None:
    port = free_port()
    process = subprocess.Popen(
        [str(ROOT / "start"), "--lan", "--port", str(port), "--data", str(tmp_path / "data")], stdout=subprocess.PIPE, stderr=subprocess.STDOUT,
        text=True, cwd=ROOT, start_new_session=True,
    )  # fmt: skip
    try:
        told = [process.stdout.readline()]
        while "Ctrl-C" not in told[-1]:
            assert process.poll() is None, told
            told.append(process.stdout.readline())
        assert any(line.startswith("For phones in the room: https://") for line in told)
        browser = _Browser(f"https://127.0.0.1:{port}")
        assert browser("/api/me")["name"] is None
        with pytest.raises(urllib.error.HTTPError) as refused:
            browser("/api/sign-in", {"login": demo.LOGIN, "password": demo.PASSWORD})
        assert json.load(refused.value)["code"] == "demo_password"
        command = [str(ROOT / "brevin"), "user", "password", "--login", demo.LOGIN, "--data", str(tmp_path / "data")]
        subprocess.run(command, input=PASSWORD + "\n", text=True, check=True, capture_output=True, cwd=ROOT)
        name = browser("/api/sign-in", {"login": demo.LOGIN, "password": PASSWORD})["name"]
        assert name is not None and browser("/api/me")["name"] == name
        phone = next((name for name in own_names() if name[0].isdigit()), None)
        if phone:
            assert _Browser(f"https://{phone}:{port}")("/api/me")["name"] is None
    finally:
        os.killpg(process.pid, signal.SIGTERM)
        process.wait(30)


class _Browser:
    """Cookies, the page's token, and the Referer a browser sends to its own origin."""

    def __init__(self, origin: str) -> None:
        self.origin, self.token = origin, ""
        context = ssl.create_default_context()
        context.check_hostname, context.verify_mode = False, ssl.CERT_NONE
        self.opener = urllib.request.build_opener(urllib.request.HTTPSHandler(context=context), urllib.request.HTTPCookieProcessor(CookieJar()))

    def __call__(self, path: str, body: dict | None = None) -> dict:
        request = urllib.request.Request(self.origin + path, data=None if body is None else json.dumps(body).encode(), headers={"Referer": self.origin + "/"})
        request.add_header("Content-Type", "application/json")
        request.add_header("X-CSRFToken", self.token)
        answer = json.load(self.opener.open(request, timeout=10))
        self.token = answer.get("csrf", self.token)
        return answer
