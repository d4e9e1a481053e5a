"""What a person changed of a reading; kept with the take, judged from the evidence, taken back as it came."""

from dataclasses import dataclass, field

from brevin.core.kinds import TurnKind


@dataclass(frozen=True)
class MovedTurn:
    """A turn moved by hand. was_s: where the reading had put it; t_s: where it is now."""

    turn: TurnKind
    was_s: float
    t_s: float


@dataclass(frozen=True)
class TappedLine:
    """Where somebody says that the instrument is, at one moment: from the mouth's end to the far end, x and y in the clip's pixels."""

    t_s: float
    near_px: list[float]
    far_px: list[float]


@dataclass(frozen=True)
class Edits:
    """What a person changed of a reading. player: whom to read, by place in the evidence, None = as picked; first_inhale_s: where beat one is; line: where
    the instrument is, where the reading did not find it."""

    player: int | None = None
    first_inhale_s: float | None = None
    turns: list[MovedTurn] = field(default_factory=list)
    line: TappedLine | None = None
