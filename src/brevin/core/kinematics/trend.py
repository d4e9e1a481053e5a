"""What something changes by from the beginning of a time to its end: the least-squares line through it, and how sure that is."""

import numpy as np

from brevin.core.measure import NORMAL_90, Amount
from brevin.core.track import Floats

LEAST_LOOKS, LEAST_S = 4, 8.0  # from which a slow change is told from a moment's


def enough(t_s: Floats) -> bool:
    """Whether a line may be drawn through looks at these times: [n], in order."""
    return len(t_s) >= LEAST_LOOKS and float(t_s[-1] - t_s[0]) >= LEAST_S


def change(t_s: Floats, values: Floats, least_unsure: float, *, over_s: float | None = None) -> Amount:
    """The line's last value less its first, same unit. t_s, values: [n], enough of them; least_unsure: standard error of one value, however well the line
    fits; over_s: of so long a time, where these values are not all of it."""
    span_s, away = float(t_s[-1] - t_s[0]) if over_s is None else over_s, t_s - t_s.mean()
    slope = float(away @ values) / float(away @ away)
    left = values - values.mean() - slope * away
    scatter = max(float(np.sqrt(left @ left / (len(t_s) - 2))), least_unsure)
    return Amount(slope * span_s, NORMAL_90 * scatter * span_s / float(np.sqrt(away @ away)))
