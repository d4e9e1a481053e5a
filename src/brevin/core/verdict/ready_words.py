"""What is said of readiness before filming: a title and what to do, readable from two metres."""

from typing import NamedTuple


class ReadyWords(NamedTuple):
    """title: what is seen; do: what to do about it, or that nothing is to be done."""

    title: str
    do: str


READY: dict[str, ReadyWords] = {
    "looking": ReadyWords("one moment", "sit still until the lines come"),
    "light_good": ReadyWords("light", "good"),
    "too_dark": ReadyWords("too dark", "turn on a light, or turn toward the window"),
    "no_person": ReadyWords("nobody in the picture", "head to knees inside the corners"),
    "people_overlap": ReadyWords("two people overlap", "let the player stand clear of others"),
    "player_unclear": ReadyWords("who is the player?", "move the camera until the player is the largest"),
    "trunk_cut_off": ReadyWords("the trunk is cut off", "step back until head and hips are in"),
    "too_far": ReadyWords("too small to read", "step closer"),
    "from_side-left": ReadyWords("left side to the camera", "the whole trunk is in"),
    "from_side-right": ReadyWords("right side to the camera", "the whole trunk is in"),
    "from_front": ReadyWords("facing the camera", "the whole trunk is in"),
    "from_side-left_free": ReadyWords("left side to the camera", "the chest is free of the arms"),
    "from_side-right_free": ReadyWords("right side to the camera", "the chest is free of the arms"),
    "chest_behind_arms": ReadyWords("the arms cover the chest", "hands lower, or once without it"),
    "from_side-left_stickers": ReadyWords("left side to the camera", "the whole trunk is in, stickers are seen"),
    "from_side-right_stickers": ReadyWords("right side to the camera", "the whole trunk is in, stickers are seen"),
    "from_front_stickers": ReadyWords("facing the camera", "the whole trunk is in, stickers are seen"),
    "turn_round_side-left": ReadyWords("the other side, please", "turn round: left side to the camera"),
    "turn_round_side-right": ReadyWords("the other side, please", "turn round: right side to the camera"),
    "turn_more_side-left": ReadyWords("turned a little to the camera", "a little more left side"),
    "turn_more_side-right": ReadyWords("turned a little to the camera", "a little more right side"),
    "turn_more_front": ReadyWords("turned a little away", "face the camera"),
    "turn_side-left": ReadyWords("facing the camera", "turn a quarter: left side to the camera"),
    "turn_side-right": ReadyWords("facing the camera", "turn a quarter: right side to the camera"),
    "turn_front": ReadyWords("sideways to the camera", "face the camera"),
    "turn_face": ReadyWords("the face is turned away, or covered", "look into the camera"),
    "camera_still": ReadyWords("camera still", "good"),
    "camera_tilted": ReadyWords("phone stands tilted", "turn it until doors and walls stand upright"),
    "restless_behind": ReadyWords("much moves behind the player", "a plain wall, if there is one"),
    "camera_restless": ReadyWords("camera moves a little", "lean it on something"),
    "camera_moving": ReadyWords("camera moves too much", "put it on something firm"),
}
