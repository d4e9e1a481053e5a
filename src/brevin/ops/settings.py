"""Settings: environment variables ``BREVIN_*`` first, then ``brevin.toml`` in the data folder, then the starting values."""

import os
import secrets
import tomllib
from collections.abc import Mapping
from dataclasses import dataclass, field
from pathlib import Path
from typing import Literal

ROOT = Path(__file__).resolve().parents[3]
FILE = "brevin.toml"
DEMO_PASSWORD = "first-breath"  # noqa: S105 (everybody can read it here, so it opens nothing to a network)


def model_path(root: Path) -> Path:
    """Where the built pose model stands below the project's root."""
    return root / ".build" / "pose_full.task"


@dataclass(frozen=True)
class Setting:
    """One setting: starting value, what it means, whether it is masked when shown."""

    value: str
    means: str
    secret: bool = False


KNOWN: dict[str, Setting] = {
    "port": Setting("8760", "port of the web page"),
    "workers": Setting("1", "readings that run side by side"),
    "most_upload_mb": Setting("600", "largest clip taken in, MB"),
    "stalled_s": Setting("20", "seconds after which a connection that sends nothing more gives its place back"),
    "db_password": Setting("", "password of the database on loopback", secret=True),
    "session_key": Setting("", "key that signs the sign-in cookie", secret=True),
}


@dataclass(frozen=True)
class Settings:
    """All settings in force. data: the folder that holds everything; source: where each value came from."""

    data: Path
    values: Mapping[str, str]
    source: Mapping[str, str] = field(default_factory=dict)

    def number(self, name: str) -> int:
        """A setting as a whole number. Raises ValueError naming the setting."""
        try:
            return int(self.values[name])
        except ValueError as why:
            raise ValueError(f"setting {name} wants a whole number, not {self.values[name]!r} (from {self.source[name]})") from why

    @property
    def clips(self) -> Path:
        """Folder of the clips."""
        return self.data / "clips"

    @property
    def evidence(self) -> Path:
        """Folder of what is kept of the clips for judging them."""
        return self.data / "evidence"

    @property
    def filming(self) -> Path:
        """Folder of the clips that are being filmed: read as they grow, and gone once they have become a take's."""
        return self.data / "filming"

    def folder(self, name: Literal["clips", "evidence", "filming"]) -> Path:
        """Folder of a kind of file."""
        return {"clips": self.clips, "evidence": self.evidence, "filming": self.filming}[name]

    @property
    def socket(self) -> Path:
        """Socket of the database: short, since a socket's path has at most 107 characters."""
        near = self.data / "db.sock"
        if len(str(near)) < 100:
            return near
        import hashlib

        return Path("/tmp") / f"brevin-{hashlib.sha256(str(self.data).encode()).hexdigest()[:12]}.sock"

    def masked(self) -> list[tuple[str, str, str]]:
        """Name, value and source of every setting, secrets hidden."""
        return [(name, "********" if KNOWN[name].secret else self.values[name], self.source[name]) for name in sorted(self.values)]


def load(data: Path) -> Settings:
    """Settings for a data folder. The folder's secrets are made on first use. Raises ValueError on a file that is no TOML or an unknown name."""
    data = data.absolute()
    stored = _stored(data)
    values, source = {}, {}
    for name, known in KNOWN.items():
        from_env = os.environ.get(f"BREVIN_{name.upper()}")
        if from_env is not None:
            values[name], source[name] = from_env, f"BREVIN_{name.upper()}"
        elif name in stored:
            values[name], source[name] = str(stored[name]), FILE
        elif known.secret:
            values[name], source[name] = _secret(data, name), "secrets"
        else:
            values[name], source[name] = known.value, "starting value"
    return Settings(data=data, values=values, source=source)


def _stored(data: Path) -> dict[str, object]:
    path = data / FILE
    if not path.exists():
        return {}
    try:
        stored = tomllib.loads(path.read_text())
    except tomllib.TOMLDecodeError as why:
        raise ValueError(f"{path} is no TOML: {why}") from why
    unknown = set(stored) - set(KNOWN)
    if unknown:
        raise ValueError(f"{path}: unknown setting {', '.join(sorted(unknown))}; known are {', '.join(KNOWN)}")
    return stored


def _secret(data: Path, name: str) -> str:
    """A random secret, made once, readable by its owner alone."""
    path = data / "secrets" / name
    if not path.exists() or not path.read_text():  # an empty one is what a kill in the middle left
        path.parent.mkdir(parents=True, exist_ok=True, mode=0o700)
        part = path.with_suffix(f".{os.getpid()}")
        with os.fdopen(os.open(part, os.O_WRONLY | os.O_CREAT | os.O_TRUNC, 0o600), "w") as file:
            file.write(secrets.token_urlsafe(32))
        part.replace(path)
    return path.read_text()
