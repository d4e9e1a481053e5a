"""The bench's content: a file an instrument, a file a family, a drawing a file. What cannot be right is refused with file and line."""

from collections.abc import Hashable, Iterator, Mapping
from dataclasses import dataclass, fields, is_dataclass
from functools import cache
from pathlib import Path
from typing import Any, TypeVar, cast

import yaml
from pydantic import TypeAdapter, ValidationError

from brevin.core.handling.cards import FamilyCard, InstrumentCard
from brevin.core.handling.family import joined
from brevin.core.handling.faults import Fault, family_faults, faults
from brevin.core.handling.faults import Path as Way
from brevin.core.kinds import INSTRUMENTS, Instrument
from brevin.edge.drawings import Drawing, drawing

T = TypeVar("T")
LOADER = getattr(yaml, "CSafeLoader", yaml.SafeLoader)  # the quick one, where its library is there
SAID = {"common", "single_reed", "brass"}  # the files whose lines are shared


class ContentFaults(Exception):
    """faults: each as "file:line: what is wrong"."""

    def __init__(self, found: list[str]) -> None:
        super().__init__("\n".join(found))
        self.faults = found


@dataclass(frozen=True)
class Content:
    """cards: by the instrument's word in the programme, each with its family's lines; drawings: by name."""

    cards: Mapping[Instrument, InstrumentCard]
    drawings: Mapping[str, Drawing]

    @property
    def kinds(self) -> list[InstrumentCard]:
        """Each file once, in the order of a score."""
        return list({card.name: card for card in self.cards.values()}.values())


def content(folder: Path) -> Content:
    """Everything in a content folder. Raises ContentFaults with all that is wrong in it, OSError."""
    found: list[str] = []
    drawings: dict[str, Drawing] = {}
    for path in sorted((folder / "drawings").glob("*.svg")):
        try:
            drawings[path.stem] = drawing(path.read_text())
        except ValueError as error:
            found.append(f"{path.name}:{error}")
    families: dict[str, FamilyCard] = {}
    own: list[tuple[InstrumentCard, Lines]] = []
    for path in sorted((folder / "instruments").glob("*.yaml")):
        lines = Lines(path)
        if path.stem in SAID:
            family = lines.read(FamilyCard)
            if family is not None:
                families[path.stem] = family
                found += lines.told(family_faults(family, drawings=frozenset(drawings)))
        elif (card := lines.read(InstrumentCard)) is not None:
            own.append((card, lines))
        found += lines.found
    if families.keys() == SAID:
        for card, lines in own:
            found += lines.told(faults(card, joined(card, families), drawings=frozenset(drawings)))
    if found or families.keys() != SAID:
        raise ContentFaults(found or [f"{folder}: common, single_reed and brass belong there"])
    return Content({name: joined(card, families) for name in _score_order(own) for card, _ in own if name in card.serves}, drawings)


def _score_order(own: list[tuple[InstrumentCard, "Lines"]]) -> list[Instrument]:
    served = {name for card, _ in own for name in card.serves}
    return [name for name in INSTRUMENTS if name in served]


@cache
def _reader_of(kind: Hashable) -> TypeAdapter[Any]:
    """Made once a kind: making it takes longer than reading a file with it."""
    return TypeAdapter(cast(Any, kind))


class Lines:
    """One file, and on which of its lines everything stands. found: what is wrong with its form."""

    def __init__(self, path: Path) -> None:
        self.name, self.found = path.name, list[str]()
        self._at: dict[Way, int] = {}
        self._raw: object = None
        self._scalars = yaml.constructor.SafeConstructor()
        try:
            root = yaml.compose(path.read_text(), Loader=LOADER)
            self._raw = self._plain(root, ()) if root is not None else None
        except yaml.YAMLError as error:
            mark = getattr(error, "problem_mark", None)
            self.found.append(f"{path.name}:{mark.line + 1 if mark else 1}: {getattr(error, 'problem', 'no YAML')}")

    def read(self, kind: type[T]) -> T | None:
        """The file as a record; None where its form is wrong, and then ``found`` says how."""
        if self.found:
            return None
        try:
            made: T = _reader_of(cast(Hashable, kind)).validate_python(self._raw)
        except ValidationError as error:
            self.found += self.told([Fault(tuple(one["loc"]), one["msg"]) for one in error.errors()])
            return None
        self.found += self.told([Fault(at, f"{at[-1]} is no word of this file; it is misspelt or belongs elsewhere") for at in _unknown(self._raw, made, ())])
        return None if self.found else made

    def told(self, wrong: list[Fault]) -> list[str]:
        """Faults with file and line; of a place that the file does not have the nearest above it."""
        return [f"{self.name}:{self._line(fault.at)}: {'.'.join(map(str, fault.at))}: {fault.says}" for fault in wrong]

    def _line(self, at: Way) -> int:
        while at and at not in self._at:
            at = at[:-1]
        return self._at.get(at, 1)

    def _plain(self, node: yaml.Node, at: Way) -> object:
        self._at.setdefault(at, node.start_mark.line + 1)
        if isinstance(node, yaml.MappingNode):
            plain: dict[str, object] = {}
            for key, value in node.value:
                self._at[(*at, key.value)] = key.start_mark.line + 1
                plain[key.value] = self._plain(value, (*at, key.value))
            return plain
        if isinstance(node, yaml.SequenceNode):
            return [self._plain(value, (*at, i)) for i, value in enumerate(node.value)]
        return self._scalars.construct_object(node, deep=True)


def _unknown(raw: object, made: object, at: Way) -> Iterator[Way]:
    """Words of a file that its record does not have."""
    if isinstance(raw, dict) and is_dataclass(made):
        known = {one.name for one in fields(made)}
        for key, value in raw.items():
            if key not in known:
                yield (*at, key)
            else:
                yield from _unknown(value, getattr(made, key), (*at, key))
    elif isinstance(raw, dict) and isinstance(made, Mapping):
        for key, value in raw.items():
            yield from _unknown(value, made.get(key), (*at, key))
    elif isinstance(raw, list) and isinstance(made, tuple):
        for i, (value, one) in enumerate(zip(raw, made, strict=True)):
            yield from _unknown(value, one, (*at, i))
