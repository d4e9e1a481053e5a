"""What a clip with planted truth was made for, as its reading is asked."""

from typing import Any

from brevin.core.plan.card import parse, short_name
from brevin.core.plan.check import from_document
from brevin.core.read import Task


def task_of(truth: dict[str, Any]) -> Task:
    """The counted check that was planted. truth: the document beside the clip."""
    asked = truth["scenario"]["breath"]
    card = parse(f"{asked['inhale_beats']:g}-{asked.get('hold_beats') or 0:g}-{asked['exhale_beats']:g}@{asked['bpm']:g}x{asked['cycles']}")
    instrument = truth["label"].get("instrument") or "none"
    return Task(from_document({"card": short_name(card), "instrument": instrument, "with_instrument": instrument != "none"}))
