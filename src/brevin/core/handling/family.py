"""A family's lines under an instrument's own: where both speak of one thing, the instrument wins."""

from collections.abc import Mapping
from dataclasses import replace

from brevin.core.handling.cards import GROUPS, OUTCOMES, Ask, Checks, FamilyCard, InstrumentCard, Step


def joined(card: InstrumentCard, families: Mapping[str, FamilyCard]) -> InstrumentCard:
    """The instrument with what its family and all instruments share; ``use`` is the order of all steps, own and shared. Idempotent."""
    shared = [families["common"], *([families[card.family]] if card.family in families else [])]
    known = {step.key: step for step in (*(step for one in shared for step in one.steps), *card.steps)}
    steps: tuple[Step, ...] = tuple(known[key] for key in card.use if key in known)
    care = {task.key: task for task in (*card.care, *(task for one in reversed(shared) for task in one.care if task.key not in {own.key for own in card.care}))}
    choices = {choice.key: choice for one in shared for choice in one.choices if not choice.step or choice.step in card.use}
    checks = card.checks
    for one in reversed(shared):
        checks = _added(checks, one.checks)
    return replace(
        card, steps=steps, care=tuple(care.values()), checks=checks, choices=tuple((choices | {one.key: one for one in card.choices}).values()),
        cautions=tuple(dict.fromkeys((*card.cautions, *(caution for one in reversed(shared) for caution in one.cautions)))),
        higher=card.higher or next((one.higher for one in shared if one.higher), ""),
    )  # fmt: skip


def _added(own: Checks, family: Checks) -> Checks:
    return {
        outcome: {group: _asks(own.get(outcome, {}).get(group, ()), family.get(outcome, {}).get(group, ())) for group in GROUPS}
        for outcome in OUTCOMES
        if outcome != "note"
    }


def _asks(own: tuple[Ask, ...], family: tuple[Ask, ...]) -> tuple[Ask, ...]:
    names = {one.name for one in own}
    return (*own, *(one for one in family if one.name not in names))
