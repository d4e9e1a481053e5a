"""Which of several right methods stands: what the programme chose at the bench, else what goes with how it teaches, else the usual one."""

from collections.abc import Mapping

from brevin.core.handling.cards import Choice, InstrumentCard, Looks
from brevin.core.verdict.schools import Question


def ways(card: InstrumentCard, own: Mapping[str, str], answers: Mapping[Question, str]) -> dict[str, str]:
    """The way that stands, by choice. own: the programme's by choice, one that the card does not know counts as none; answers: how it teaches, by question."""
    taught = {f"{question}.{school}" for question, school in answers.items()}
    return {choice.key: _way(choice, own.get(choice.key, ""), taught) for choice in card.choices}


def looks(card: InstrumentCard, chosen: Mapping[str, str]) -> dict[str, Looks]:
    """What the ways that stand make of the ticks of mouth and hands, by the tick's key; a tick that is not there looks as ever."""
    found: dict[str, Looks] = {}
    for choice in card.choices:
        for option in choice.options:
            if option.key == chosen.get(choice.key):
                found |= option.looks
    return found


def _way(choice: Choice, own: str, taught: set[str]) -> str:
    if own in {one.key for one in choice.options}:
        return own
    return next((one.key for one in choice.options if one.taught in taught), choice.options[0].key)
