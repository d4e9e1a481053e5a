"""Debian's headless Chromium as tests, benches and pictures start it; nothing of the running program needs it."""

from typing import Any

EXECUTABLE = "/usr/bin/chromium-headless-shell"
"""The build without a desktop: the same engine, media and recorder, at under half the whole browser's work for each page opened."""

QUIET = ["--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run", "--disable-background-networking", "--disable-component-update", "--disable-sync"]


def launched(playwright: Any, *args: str) -> Any:
    """A browser without a window. args: switches of this one, such as as_camera."""
    return playwright.chromium.launch(executable_path=EXECUTABLE, args=[*QUIET, *args])
