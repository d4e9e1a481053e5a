"""The breath in the clips of posture and hold, with instruments up: for docs/hold.md."""

from collections.abc import Mapping, Sequence
from statistics import median

from brevin.bench.tally import NONE, Tally, together

ROWS = (
    ("inhale_start_s", "inhale onset, s"),
    ("exhale_start_s", "exhale onset, s"),
    ("abdominal_share", "abdominal share"),
    ("shoulder_rise", "shoulder rise, % of trunk"),
)
LOOKED_AT = (
    "What was chosen with these clips in sight: ten of them, of both bodies, were among the sets looked at when the belly's height was chosen; nine,"
    " of both bodies, when it was chosen how far a chest beside an arm may have gone (core/kinematics/sleeves.py); hold-121 and hold-123 showed that"
    " shoulders have to tell the breath of a hidden chest (core/breath/breaths.py), hold-59 that a trunk that sinks may be read as a breath."
)
LATE = 0.9  # share of the errors below the one that stands for the worst


def figures_of(tally: Tally) -> dict[str, float]:
    """Breaths found, those named by another pattern than planted, those of them that say the planted one beside it, and by none, as shares of the
    found ones."""
    wrong = [one for one in tally.found if one.pattern not in (one.planted_pattern, *NONE)]
    most = max(len(tally.found), 1)
    return {
        "breath_f1": tally.f1, "named_wrong": len(wrong) / most, "said_beside": sum(one.breath.pattern_or == one.planted_pattern for one in wrong) / most,
        "unnamed": sum(one.pattern in NONE for one in tally.found) / most,
    }  # fmt: skip


def section(parts: Mapping[str, Mapping[str, Tally]]) -> list[str]:
    """The page's lines. parts: tuned and unseen, each by instrument."""
    lines = ["", "## The breath in these clips", ""]
    lines += [
        f"Side views, beside what was planted; of a front view only the shoulders are told, above. {LOOKED_AT}",
        "", "| bodies | instrument | clips | breaths found | extra | right pattern | another one | with the planted one beside it | unclear |",
        "|---|---|---|---|---|---|---|---|---|",
    ]  # fmt: skip
    for part, own in parts.items():
        lines += [_named(part, instrument, tally) for instrument, tally in own.items() if tally.planted]
        lines += [_named(part, "all", together("all", list(own.values())))]
    lines += ["", "| bodies | measure | median error | 90th percentile | in the 90 % interval | breaths |", "|---|---|---|---|---|---|"]
    for part, own in parts.items():
        every = together("all", list(own.values()))
        lines += [row for key, name in ROWS if (row := _errors(part, every, key, name))]
    return lines


def lost(clips: Sequence[tuple[str, Tally]]) -> list[str]:
    """In which clips breaths were not found, or found that are none: the page's lines."""
    own = [
        f"- {name}: {len(tally.found)} of {tally.planted} found" + (f", {tally.extra} that is none" if tally.extra else "")
        for name, tally in clips
        if len(tally.found) < tally.planted or tally.extra
    ]
    return ["", "Breaths that were not found, or are none:", "", *own] if own else []


def _named(part: str, instrument: str, tally: Tally) -> str:
    figures, found = figures_of(tally), len(tally.found)
    wrong, beside, unnamed = (round(found * figures[key]) for key in ("named_wrong", "said_beside", "unnamed"))
    clips = tally.clips - len(tally.refused)
    return f"| {part} | {instrument} | {clips} | {found} of {tally.planted} | {tally.extra} | {found - wrong - unnamed} | {wrong} | {beside} | {unnamed} |"


def _errors(part: str, tally: Tally, key: str, name: str) -> str:
    errors = tally.errors(key)
    if not errors:
        return ""
    return (
        f"| {part} | {name} | {median(errors):.3f} | {errors[int(LATE * (len(errors) - 1))]:.3f} | {100 * (tally.covered(key) or 0.0):.0f} % | {len(errors)} |"
    )
