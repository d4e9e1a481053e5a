"""Where the printed card was in the first seconds."""

from brevin.core.track import CardSeen
from brevin.edge import scale_card
from brevin.edge.video import VideoFrame

LOOKED_FOR_S, EVERY_S = 1.6, 0.2


class PrintedCard:
    """Looks for the card a few times at the beginning."""

    def __init__(self) -> None:
        self.cards: list[CardSeen] = []
        self._next_s = 0.0

    def see(self, frame: VideoFrame) -> None:
        """Look for the card where it is due."""
        if frame.t_s < self._next_s or frame.t_s > LOOKED_FOR_S:
            return
        self._next_s = frame.t_s + EVERY_S
        corners = scale_card.corners_px(frame.luma)
        if corners is not None:
            self.cards.append(CardSeen(t_s=frame.t_s, corners_px=corners, mm_per_px=scale_card.mm_per_px(corners)))
