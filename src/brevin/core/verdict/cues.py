"""Other words for the same fault: a picture that reaches one child misses another. The first of each is the cue of ``words.py``; which was said is kept, and
a student is next given the one after which the fault was better before. Source: own."""

from brevin.core.verdict.rules import CriterionKey
from brevin.core.verdict.wording import cue_sentence

OTHERS: dict[CriterionKey, tuple[str, ...]] = {
    "trunk_inclination": ("Sit between too far and too far back, like a ball on a flat table.", "Let your head float straight up over your seat."),
    "keeps_tall": ("Begin tall, and be taller at the end.",),
    "back_rounding": ("Let your collar float away from your belt.", "Leave room for the air between your ribs and your lap."),
    "head_forward": ("Bring your ears back over your shoulders.", "Let the back of your head look at the wall behind you."),
    "shoulder_tilt": ("Imagine a ruler across both shoulders: nothing may roll off.",),
    "head_level": ("A full glass stands on your head: nothing may spill.", "Let your nose point straight down at your buttons."),
    "head_with_flute": ("Your head goes where the flute goes, like two railway lines.",),
    "body_still": ("Let your feet grow roots.", "Play to one spot on the wall, and let your nose stay on it."),
    "real_breath": ("Breathe out first, and let the next air come by itself.", "Let the air do the moving, not the belly."),
    "abdomen_leads": (
        "Breathe in as if you smelled soup from under the table.",
        "Fill the bottom of the glass first.",
        "Let your belt move before your badge does.",
    ),
    "shoulders_still": ("Breathe in behind your belt; the shoulders are only passengers.", "Let your ears and your shoulders stay far apart."),
    "full_breath": ("Breathe as if you were about to swim a whole length.", "Let the air go all the way round, into the back as well."),
    "axis_level": ("Point it at the picture on the wall, not at the floor.",),
    "axis_to_trunk": ("Look where the far end looks: over your knees.",),
    "arms_stay_up": ("Let the instrument rest on its own place, and the arms only keep it there.",),
    "elbow_left": ("Let the left arm hang like a coat on a hook.",),
    "elbow_right": ("Let the right arm hang like a coat on a hook.",),
    "feet_flat": ("Stand up without moving your feet; then sit down again just like that.",),
    "hands_in_order": ("Which hand says hello to your nose? The left one.",),
    "wrist_left": ("Let the left arm and hand be one long plank, with only the fingers bending.",),
    "wrist_right": ("Let the right arm and hand be one long plank, with only the fingers bending.",),
    "head_travel": ("Your head waits at the bus stop; the instrument is the bus.",),
    "raise_spread": ("Find the same place with your eyes shut.",),
    "not_full_early": ("Save the last sip of air for the last count.", "Open the tap only a little: it has to run for all counts."),
    "with_count": ("Breathe with the click as if you clapped with it.",),
    "inhale_counts": ("Let the breath be as long as the counts, like a train as long as its platform.",),
    "pause": ("In and out are one circle: no corner at the top.", "When you are full you are already on your way out."),
    "exhale_with_count": ("The click is the door: the air goes through it.",),
    "exhale_counts": ("Let the last count find you empty.", "Spend all of it: nothing is left for after the last count."),
    "even_intake": ("Draw the air in like one long thread.",),
    "even_exhale": ("Blow as if you kept a feather at one height.", "Let it go like sand from one hand into the other."),
    "both_sides": ("First the wrong way, so that you know it; then the right one.",),
}
LOW_OTHERS: dict[CriterionKey, tuple[str, ...]] = {
    "trunk_inclination": ("Bring your nose over your knees, then only halfway back.",),
    "keeps_tall": ("Let the chair's back stay cool until the end.",),
    "real_breath": ("Let the belt get tighter as the air comes in.",),
    "axis_level": ("Let the far end rest a little lower, on an imaginary shelf.",),
    "axis_to_trunk": ("Give the instrument room, as if a cat sat in your lap.",),
    "elbow_left": ("Make a small tent under the left arm.",),
    "elbow_right": ("Make a small tent under the right arm.",),
    "with_count": ("Let the click go first; you come with it.",),
    "inhale_counts": ("Let the air come in until the last count has been.",),
    "exhale_with_count": ("Wait for the click before the air turns round.",),
    "exhale_counts": ("Share the air out so that every count gets the same piece.", "Spend it like pocket money: some is left on the last day."),
}
"""The same where a value under its band wants something else."""


def cues(criterion: CriterionKey, side: str | None) -> tuple[str, ...]:
    """Every way to say it, the usual one first."""
    return (cue_sentence(criterion, side), *(LOW_OTHERS if side == "low" and criterion in LOW_OTHERS else OTHERS)[criterion])
