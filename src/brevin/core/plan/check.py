"""A check is a document: what is asked of a student in front of the camera. Parsed here and nowhere else; the count card's short notation stays its name."""

from collections.abc import Mapping
from dataclasses import asdict, dataclass, field, replace
from typing import Any, cast, get_args

from brevin.core.errors import InvalidInput
from brevin.core.kinds import Articulation, AskedPosition, AskedView, CheckKind, Contrast, Dynamic, FeltQuestion, Instrument
from brevin.core.plan.card import CountCard, parse, short_name
from brevin.core.verdict.schools import FLIPPING, SCHOOLS, Question

WORDS: dict[str, tuple[tuple[str, ...], str]] = {
    "kind": (get_args(CheckKind), "counted_breathing"), "view": (get_args(AskedView), "auto"), "position": (get_args(AskedPosition), "auto"),
    "instrument": (get_args(Instrument), "none"), "asks": (get_args(FeltQuestion), "where"),
    "contrast": (get_args(Contrast), "none"), "dynamic": (get_args(Dynamic), "any"), "articulation": (get_args(Articulation), "any"),
}  # fmt: skip
"""Keys that hold one word: the words allowed, and the usual one."""
KEYS = (
    "kind", "card", "view", "position", "instrument", "with_instrument", "full_breath", "asks", "countin_words", "contrast", "sets", "shown", "taught",
    "notes", "dynamic", "articulation",
)  # fmt: skip
LATER: dict[str, object] = {
    "full_breath": False, "asks": "where", "countin_words": (), "contrast": "none", "sets": [], "shown": "", "taught": {}, "notes": "", "dynamic": "any",
    "articulation": "any",
}  # fmt: skip
"""Keys that came later, with what they are where nothing is said: left out then, so that older checks keep their fingerprint."""
MOST_SETS = 8  # of a card
LONGEST_NAME = 80  # letters of a file's name
LONGEST_NOTES = 40  # letters: what is played in one breath
MOST_WORDS, LONGEST_WORD = 9, 12  # of a count-in, one a beat


@dataclass(frozen=True)
class Check:
    """card: None = no count; view, position: auto = as they are found in the clip; with_instrument: whether it is held in this check;
    full_breath: whether it asks for the comfortable full breath that others are held against; asks: what the student is asked before the reading is there;
    countin_words: what is said on each beat of the count-in instead of its number; one word more than it has beats falls on the first inhale;
    contrast: both sides on purpose: the first half of the breaths the other way, the second as it should be;
    sets: the card's further sets, each filmed as a clip of its own; shown: file of the teacher's own demonstration, played before the count-in;
    taught: where this card is judged by another school than the programme follows; notes, dynamic, articulation: what is played, where the instrument is in
    hand: told to the student, read from nothing."""

    kind: CheckKind = "counted_breathing"
    card: CountCard | None = None
    view: AskedView = "auto"
    position: AskedPosition = "auto"
    instrument: Instrument = "none"
    with_instrument: bool = False
    full_breath: bool = False
    asks: FeltQuestion = "where"
    countin_words: tuple[str, ...] = ()
    contrast: Contrast = "none"
    sets: tuple[CountCard, ...] = ()
    shown: str = ""
    taught: Mapping[Question, str] = field(default_factory=dict)
    notes: str = ""
    dynamic: Dynamic = "any"
    articulation: Articulation = "any"

    @property
    def name(self) -> str:
        """The count card's notation, after the kind where it is another than counted breathing; the kind alone where nothing is counted."""
        if self.card is None:
            return self.kind
        return short_name(self.card) if self.kind == "counted_breathing" else f"{self.kind} {short_name(self.card)}"

    @property
    def counts_breaths(self) -> bool:
        """Whether its count is of breaths: a hold's is of bringing the instrument up, keeping it there and resting it."""
        return self.kind != "hold"

    @property
    def judged(self) -> "Check":
        """What the clip is judged for: a hold's count asks nothing of the breath."""
        return self if self.counts_breaths else replace(self, card=None, sets=())

    @property
    def cards(self) -> tuple[CountCard, ...]:
        """The counts of all sets, in order."""
        return (self.card, *self.sets) if self.card else ()

    @property
    def held(self) -> bool:
        """Whether the instrument is held in it."""
        return self.with_instrument or self.kind == "hold"

    @property
    def in_hands(self) -> Instrument:
        """What is held in it: without the instrument, none."""
        return self.instrument if self.held else "none"

    def of_set(self, number: int) -> "Check":
        """What one set asks, from 0. Raises InvalidInput(bad_check) where there is none."""
        if not 0 <= number < max(len(self.cards), 1):
            raise InvalidInput("bad_check", name="set", wanted=f"one of {len(self.cards)}")
        return replace(self, card=self.cards[number], sets=()) if self.card else self


def from_document(document: Mapping[str, object]) -> Check:
    """A check from its document; what is left out has its starting value, ``card`` is the short notation. Raises InvalidInput(bad_check, bad_card)."""
    unknown = set(document) - set(KEYS)
    if unknown:
        raise InvalidInput("bad_check", name=", ".join(sorted(unknown)), wanted="one of " + ", ".join(KEYS))
    card = document.get("card") or None
    if card is not None and not isinstance(card, str):
        raise InvalidInput("bad_check", name="card", wanted="a text such as 3-0-7@72x4")
    switches: dict[str, Any] = {key: _switch(document, key) for key in ("with_instrument", "full_breath")}
    words: dict[str, Any] = {key: _one(document, key, *allowed) for key, allowed in WORDS.items()}
    counted = parse(card) if card else None
    sets = _sets(document.get("sets", ()), counted)
    if words["contrast"] != "none" and (counted is None or words["kind"] == "hold" or any(one.cycles % 2 for one in (counted, *sets))):
        raise InvalidInput("bad_check", name="contrast", wanted="a card with an even number of breaths, half of them for each side")
    shown = document.get("shown", "")
    if not isinstance(shown, str) or "/" in shown or len(shown) > LONGEST_NAME:
        raise InvalidInput("bad_check", name="shown", wanted="the name of a file")
    notes = document.get("notes", "")
    if not isinstance(notes, str) or len(notes) > LONGEST_NOTES:
        raise InvalidInput("bad_check", name="notes", wanted=f"at most {LONGEST_NOTES} letters")
    words |= {"taught": _taught(document.get("taught", {})), "notes": notes.strip()}
    return Check(card=counted, countin_words=_said(document.get("countin_words", ())), sets=sets, shown=shown, **switches, **words)


def _one(document: Mapping[str, object], key: str, allowed: tuple[str, ...], usual: str) -> str:
    word = document.get(key, usual)
    if word not in allowed:
        raise InvalidInput("bad_check", name=key, wanted="one of " + ", ".join(allowed))
    return str(word)


def _taught(answers: object) -> dict[Question, str]:
    if not isinstance(answers, Mapping):
        raise InvalidInput("bad_check", name="taught", wanted="an object of questions and schools")
    for question, school in answers.items():
        if question not in FLIPPING or school not in SCHOOLS[question]:
            allowed = SCHOOLS[question] if question in FLIPPING else FLIPPING
            raise InvalidInput("bad_check", name=f"taught.{question}", wanted="one of " + ", ".join(allowed))
    return cast(dict[Question, str], dict(answers))


def _said(words: object) -> tuple[str, ...]:
    fits = isinstance(words, (list, tuple)) and len(words) <= MOST_WORDS and all(isinstance(w, str) and 0 < len(w.strip()) <= LONGEST_WORD for w in words)
    if not fits:
        raise InvalidInput("bad_check", name="countin_words", wanted=f"at most {MOST_WORDS} words of at most {LONGEST_WORD} letters")
    return tuple(word.strip() for word in words)


def _sets(names: object, first: CountCard | None) -> tuple[CountCard, ...]:
    if not isinstance(names, (list, tuple)) or len(names) >= MOST_SETS or not all(isinstance(name, str) for name in names) or (names and first is None):
        raise InvalidInput("bad_check", name="sets", wanted=f"a card, and at most {MOST_SETS - 1} more of its kind")
    return tuple(parse(name) for name in names)


def _switch(document: Mapping[str, object], key: str) -> bool:
    value = document.get(key, False)
    if not isinstance(value, bool):
        raise InvalidInput("bad_check", name=key, wanted="true or false")
    return value


def to_document(check: Check) -> dict[str, object]:
    """The check's document; ``from_document(to_document(check)) == check``."""
    document = asdict(check) | {"card": short_name(check.card) if check.card else None, "sets": [short_name(card) for card in check.sets]}
    return {key: value for key, value in document.items() if key not in LATER or value != LATER[key]}
