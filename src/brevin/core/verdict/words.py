"""What the program says about a reading's criteria and patterns; why something cannot be read stands in ``reasons.py``, and ``wording.py`` puts both where a
report is shown.

A cue is what the teacher says next, in words a ten-year-old understands; it asks for nothing to be lifted, tightened or taken off.
"""

from dataclasses import dataclass

from brevin.core.kinds import Pattern
from brevin.core.verdict.rules import CriterionKey


@dataclass(frozen=True)
class CriterionWords:
    """title; words when steady, and of the fault when work or watch; line: the fault in the one line that lists show, where several are joined by "and";
    why: what was measured, said plainly with {value} and friends; cue: one sentence; cue_low: the one for the other side, where a value under its band wants
    something else than one over it."""

    title: str
    steady: str
    fault: str
    line: str
    why: str
    cue: str
    cue_low: str | None = None


CRITERIA: dict[CriterionKey, CriterionWords] = {
    "real_breath": CriterionWords(
        "Real breath", "air comes in", "{side}", "{side} while breathing in",
        "While breathing in, the {region} went {value} % of the trunk's length the wrong way: that moves the body, not the air.",
        "Do not push. Open the mouth wide and let the air fall in by itself.",
        "Let the belly get bigger as the air comes in, like a balloon at its neck.",
    ),
    "exhale_with_count": CriterionWords(
        "Turns with the count", "on the beat", "{side}", "breathes out {side}", "The breath turned out {value} beat {side} against the card's own beat.",
        "Let the air out right on the click, as if it had been waiting for it.",
        "Keep the air coming in until the click, then turn it around.",
    ),
    "abdomen_leads": CriterionWords(
        "Abdomen leads", "low first", "chest first", "the chest goes first", "Of the whole movement, {percent} came from the abdomen. {lag}",
        "Let the low air go in first. The ribs may follow, the shoulders stay asleep.",
    ),
    "shoulders_still": CriterionWords(
        "Shoulders still", "still", "they rise", "the shoulders rise",
        "The shoulders rose {value} % of the trunk's length while breathing in{beside}.",
        "Leave your shoulders heavy, as if each carried a sleeping cat.",
    ),
    "full_breath": CriterionWords(
        "Full breath", "enough", "small", "a small breath", "Belly and chest together moved {value} % of the trunk's length while breathing in. {own}",
        "Open up inside as for a great yawn, and let the air fall in to the very bottom.",
    ),
    "axis_level": CriterionWords(
        "Instrument's angle", "good", "{side}", "the instrument points {side}", "The line from the mouth to the far end points {value} deg {level} level.",
        "Let the far end come up, as if somebody held it on a thread.",
        "Let the far end sink a little, until it looks straight at the wall.",
    ),
    "axis_to_trunk": CriterionWords(
        "Instrument's angle", "good", "{side}", "the instrument is {side}", "Between the instrument and the body are {value} deg.",
        "Let the bell come back toward your knees.",
        "Let the bell swing forward, away from your body; the head stays where it is.",
    ),
    "arms_stay_up": CriterionWords(
        "Arms", "stay up", "tire", "the arms tire", "From beginning to end the far end of the instrument sank by {value} deg.",
        "Rest it on your lap before it gets heavy; then up again to the same place.",
    ),
    "head_travel": CriterionWords(
        "Head while raising", "waits", "goes to meet it", "the head goes to meet the instrument",
        "While the instrument came up, the head went {value} % of the trunk's length forward.",
        "Sit as you are and let the instrument come to you.",
    ),
    "raise_spread": CriterionWords(
        "Each raise", "in one place", "elsewhere", "each raise lands elsewhere",
        "The raises came to rest within {value} % of the trunk's length of each other.",
        "Bring it up slowly, to the same place, as if it had a parking spot.",
    ),
    "elbow_left": CriterionWords(
        "Left elbow", "clear", "{side}", "the left elbow is {side}", "The left elbow stands {value} deg off the body.",
        "Let the left elbow hang a little closer.",
        "Leave room for a small pillow under the left arm.",
    ),
    "elbow_right": CriterionWords(
        "Right elbow", "clear", "{side}", "the right elbow is {side}", "The right elbow stands {value} deg off the body.",
        "Let the right elbow hang a little closer.",
        "Leave room for a small pillow under the right arm.",
    ),
    "hands_in_order": CriterionWords(
        "Hands in order", "left, then right", "swapped", "left and right hand are swapped",
        "Seen from the mouth, the right hand was {value} % of the trunk further away than the left; a clip that a phone kept mirrored shows them swapped.",
        "Left hand near your mouth, right hand farther on; the left one goes on first.",
    ),
    "feet_flat": CriterionWords(
        "Feet", "in place", "out of place", "the feet are not flat on the floor",
        "As far as the picture shows, the feet stood flat and side by side {percent} of the time.",
        "Let both feet stand on the floor as if they were glued to it.",
    ),
    "wrist_left": CriterionWords(
        "Left wrist", "straight", "bent", "the left wrist is bent", "The left wrist is bent by {value} deg, as the picture shows it.",
        "Let the back of the left hand be a slide that a marble could roll down from the arm.",
    ),
    "wrist_right": CriterionWords(
        "Right wrist", "straight", "bent", "the right wrist is bent", "The right wrist is bent by {value} deg, as the picture shows it.",
        "Let the back of the right hand be a slide that a marble could roll down from the arm.",
    ),
    "with_count": CriterionWords(
        "Starts with the count", "on the beat", "{side}", "starts {side}", "The breath started {value} beat {side} against the card's own beat.",
        "Let the air start right on the click: breathe with it, not after it.",
        "Wait for the click, then let the air start right on it.",
    ),
    "inhale_counts": CriterionWords(
        "Inhale counts", "as asked", "{side}", "breathes in too {side}", "The inhale lasted {value} beats; {asked} were asked.",
        "Be full by the last count of the breath, not after it.",
        "Keep the air coming in until the last count of the breath.",
    ),
    "not_full_early": CriterionWords(
        "Not full too early", "spread out", "full early", "full too early", "Nine tenths of the breath were in at beat {value} of {asked}.",
        "Fill up slowly, like water rising in a glass: a little on every count.",
    ),
    "pause": CriterionWords(
        "No pause", "flows over", "it waits", "waits before breathing out",
        "Between breathing in and out it stood still for {value} beat more than the card asks.",
        "Turn the air around like a swing: in, and straight out.",
    ),
    "exhale_counts": CriterionWords(
        "Exhale counts", "as asked", "{side}", "breathes out too {side}", "The exhale lasted {value} beats; {asked} were asked.",
        "Be empty on the last count, so that the next breath can start on time.",
        "Make the air last until the very last count.",
    ),
    "even_intake": CriterionWords(
        "Even intake", "even", "in one gulp", "breathes in one gulp", "The fill was at most {percent} of the breath away from an even one.",
        "Let the air in as evenly as a slow zip.",
    ),
    "even_exhale": CriterionWords(
        "Trunk returns evenly", "even", "uneven", "breathes out unevenly",
        "On its way back the trunk was at most {percent} of the breath away from the shape that is taught.",
        "Let the wall of your belly come home slowly, the same amount on every count.",
    ),
    "both_sides": CriterionWords(
        "Both sides", "you can do both", "the other way round", "both sides the other way round",
        "From the first half to the second it changed by {percent_signed} of the breath; more than the breaths of one side differ among themselves is a "
        "difference.",
        "The first ones wrong on purpose, the others as they should be: feel how they differ.",
    ),
    "trunk_inclination": CriterionWords(
        "Stays tall", "tall", "leans {side}", "leans {side}", "The line from hips to shoulders leans {value} deg {side}.",
        "Grow tall, as if a string pulled the top of your head.",
        "Come forward over your seat until you could stand up at once.",
    ),
    "keeps_tall": CriterionWords(
        "Tall to the end", "stays so", "sinks {side}", "the trunk sinks {side} as time passes",
        "The line from hips to shoulders went {side} by {value} deg from beginning to end.",
        "Be as tall on the last count as on the first.",
        "Stay over your seat to the last count; the back of the chair is for afterwards.",
    ),
    "back_rounding": CriterionWords(
        "Back long", "long", "rounds", "the back rounds", "Between hip and shoulder the back bows out by {value} % of the trunk more than in the count-in.",
        "Be as long from your seat to your collar as when we began to count.",
    ),
    "head_forward": CriterionWords(
        "Head over the shoulders", "over them", "ahead", "the head goes ahead", "The ear is ahead of the shoulders by {value} % of the trunk.",
        "Let your head ride on top of your back, not in front of it.",
    ),
    "shoulder_tilt": CriterionWords(
        "Shoulders level", "level", "one higher", "one shoulder is higher", "The shoulder line is {value} deg off level, the {side} one higher.",
        "Let both shoulders hang at the same height.",
    ),
    "head_level": CriterionWords(
        "Head level", "level", "leans {side}", "the head leans {side}", "The middle line of the face is {value} deg off upright, to the player's {side}.",
        "Let both eyes be at the same height.",
    ),
    "head_with_flute": CriterionWords(
        "Head with the flute", "along it", "not along it", "head and flute do not lie along one line",
        "The head is tilted {value} deg against the flute's own line.",
        "Let your eyes and the flute be two lines that never meet.",
    ),
    "body_still": CriterionWords(
        "Body still", "still", "sways", "head and shoulders sway", "Head and shoulders go forward and back by {value} % of the trunk about their place.",
        "Be a tree on a day without wind: only the breath moves.",
    ),
}  # fmt: skip

PATTERNS: dict[Pattern, str] = {
    "pushed": "belly pushed out while the ribs sink: no sign of air",
    "paradoxical": "belly goes in while breathing in",
    "shallow": "small breath",
    "chest_high": "high breath",
    "low_then_lifted": "low, then mostly chest",
    "low_then_wide": "low, then wide",
    "low": "low",
    "unclear": "not sure",
}
