"""Frozen records to bytes and back: how evidence and saved sightings are kept.

One file: a line that names kind and version, then, compressed, the record's plain values as JSON and all its arrays behind one another. Numbers of
arrays are kept as 32-bit floats, which is finer than anything that is measured.
"""

import dataclasses
import json
import types
import zlib
from collections.abc import Callable, Hashable
from functools import cache
from typing import Any, TypeVar, Union, cast, get_args, get_origin, get_type_hints

import numpy as np

from brevin.core.errors import InvalidInput

T = TypeVar("T")
MARK = b"brevin."
LEVEL = 6  # of compression
MOST_BYTES = 256_000_000  # unpacked: no honest file is larger
FINE, COARSE = "<f4", "<f2"
LARGE = 2000  # values of an array that may be kept coarsely; times and key points are smaller
KINDS: dict[type, str] = {np.bool_: "?", np.int64: "<i4", np.float64: FINE, np.float32: FINE}


class _Arrays:
    """The arrays behind one another. end: bytes so far."""

    def __init__(self, coarse: bool) -> None:
        self.parts: list[bytes] = []
        self.end = 0
        self._coarse = coarse

    def add(self, values: Any) -> tuple[str, int]:
        """Put an array behind the others; returns its code and where it begins."""
        code = KINDS[values.dtype.type]
        code = COARSE if self._coarse and code == FINE and values.size > LARGE else code
        content = np.ascontiguousarray(values, dtype=code).tobytes()
        start = self.end
        self.parts.append(content)
        self.end += len(content)
        return code, start


def pack(record: Any, *, kind: str, version: int, coarse: bool = False) -> bytes:
    """A record of plain values, tuples, dicts, other records and arrays of floats, whole numbers or booleans. coarse: large arrays as 16-bit floats, to
    three digits, where a small file matters more."""
    arrays = _Arrays(coarse)
    plain = json.dumps(_plain(record, arrays), separators=(",", ":"), allow_nan=False).encode()
    body = len(plain).to_bytes(4, "little") + plain + b"".join(arrays.parts)
    return MARK + f"{kind} {version}\n".encode() + zlib.compress(body, LEVEL)


def version_of(content: bytes, *, kind: str) -> int:
    """Version of a packed record. Raises InvalidInput(damaged) where it is none of this kind."""
    head = content[:64].split(b"\n", 1)[0]
    name, _, number = head.removeprefix(MARK).decode("ascii", "replace").partition(" ")
    if not head.startswith(MARK) or name != kind or not number.isdigit():
        raise InvalidInput("damaged", wanted=f"a {kind} file")
    return int(number)


def unpack(content: bytes, record: type[T], *, kind: str, version: int, older: tuple[int, ...] = ()) -> T:
    """The record that was packed. older: versions that lack only what came last and has a value of its own where it is missing.

    Raises InvalidInput: damaged, or other_version where it is another one.
    """
    found = version_of(content, kind=kind)
    if found not in (version, *older):
        raise InvalidInput("other_version", version=found, wanted=version)
    try:
        inflate = zlib.decompressobj()
        body = inflate.decompress(content.split(b"\n", 1)[1], MOST_BYTES)
        if not inflate.eof:
            raise ValueError("cut off, or too large")
        length = int.from_bytes(body[:4], "little")
        plain = json.loads(body[4 : 4 + length])
        made: T = _maker(cast(Hashable, record))(plain, memoryview(body)[4 + length :])
    except (zlib.error, ValueError, KeyError, TypeError, IndexError) as why:
        raise InvalidInput("damaged", wanted=f"a whole {kind} file") from why
    return made


def _plain(value: Any, arrays: _Arrays) -> Any:
    if isinstance(value, np.ndarray):
        code, start = arrays.add(value)
        return [code, start, list(value.shape)]
    if dataclasses.is_dataclass(value):
        return [_plain(getattr(value, name), arrays) for name in _names(cast(Hashable, type(value)))]
    if isinstance(value, (list, tuple)):
        return [_plain(inner, arrays) for inner in value]
    if isinstance(value, dict):
        return {key: _plain(inner, arrays) for key, inner in value.items()}
    return value.item() if isinstance(value, np.generic) else value


Maker = Callable[[Any, memoryview], Any]


@cache
def _names(record: Any) -> tuple[str, ...]:
    return tuple(f.name for f in dataclasses.fields(record))


@cache
def _maker(kind: Any) -> Maker:
    """What makes a value of a type from its plain form."""
    origin, inner = get_origin(kind), get_args(kind)
    if dataclasses.is_dataclass(kind):
        return _record_maker(kind)
    if origin is np.ndarray or kind is np.ndarray:
        return _array
    if origin in (Union, types.UnionType):
        other = _maker(next(arg for arg in inner if arg is not type(None)))
        return lambda plain, body: None if plain is None else other(plain, body)
    if origin is tuple:
        return _tuple_maker(inner)
    if origin is dict:
        value = _maker(inner[1])
        return lambda plain, body: {key: value(one, body) for key, one in plain.items()}
    return lambda plain, body: plain


def _record_maker(kind: Any) -> Maker:
    hints = get_type_hints(kind)
    names = _names(kind)
    least = sum(f.default is dataclasses.MISSING and f.default_factory is dataclasses.MISSING for f in dataclasses.fields(kind))
    makers: list[Maker] = []  # filled at first use: a record may hold others of its own kind

    def make(plain: Any, body: memoryview) -> Any:
        if not makers:
            makers.extend(_maker(hints[name]) for name in names)
        if not least <= len(plain) <= len(makers):
            raise ValueError("not this record")
        return kind(*(one(value, body) for one, value in zip(makers, plain, strict=False)))

    return make


def _tuple_maker(inner: tuple[Any, ...]) -> Maker:
    if len(inner) == 2 and inner[1] is Ellipsis:
        each = _maker(inner[0])
        return lambda plain, body: tuple(each(one, body) for one in plain)
    makers = [_maker(one) for one in inner]
    return lambda plain, body: tuple(one(value, body) for one, value in zip(makers, plain, strict=True))


def _array(plain: Any, body: memoryview) -> Any:
    code, start, shape = plain
    size = int(np.prod(shape)) if shape else 1
    values = np.frombuffer(body, dtype=code, count=size, offset=start).reshape(shape)
    return values.astype(np.float64 if code in (FINE, COARSE) else bool if code == "?" else np.int64)
