"""The certificate of a page that is open to the room."""

import subprocess
from pathlib import Path

from brevin.ops.listening import CERTIFICATE_DAYS, certificate, own_names
from brevin.ops.settings import load


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
