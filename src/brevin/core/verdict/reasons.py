"""Why a clip, a check or one number cannot be read, and what to do; ``wording.py`` puts the sentences where a report is shown.

``REASONS``: of a clip or a check. ``WITHHELD``: of one number.
"""

from collections.abc import Mapping
from dataclasses import dataclass

from brevin.core.kinds import CheckArea
from brevin.core.measure import Withheld


@dataclass(frozen=True)
class Sentence:
    """check: all, breath, posture, hold or sound; text: what is wrong and what to do, with the facts' names in braces."""

    check: CheckArea
    text: str


REASONS: dict[str, Sentence] = {
    "empty_file": Sentence("all", "This file is empty. Choose the clip again, or film once more."),
    "not_a_video": Sentence("all", "This file is not a video that can be opened. Choose a clip from the phone or the camera."),
    "sound_only": Sentence("all", "This file has sound but no picture. Choose the video instead."),
    "half_copied": Sentence("all", "This is a phone's clip that was not copied whole. Copy it again from the phone, then send it once more."),
    "cut_off": Sentence("all", "This video breaks off before its first picture. Copy it again from the phone, or film once more."),
    "still_picture": Sentence("all", "This is a single picture and no film. Film half a minute, or choose the video instead."),
    "breaks_off": Sentence("all", "This clip breaks off after {read_s} of its {duration_s} s: it was not copied whole. Copy it again to have the rest read."),
    "upload_cut_off": Sentence("all", "The upload stopped before the whole clip had arrived. Nothing was kept: send it again."),
    "too_large": Sentence("all", "This file is larger than {most_mb} MB. Half a minute is enough: cut it, or film in 1080p."),
    "too_short": Sentence("all", "This clip lasts {duration_s} s. Film the count-in and at least one whole breath, half a minute is best."),
    "no_person": Sentence("all", "Nobody was found in the picture. Film the player from head to knees, in good light."),
    "people_overlap": Sentence("all", "Two people overlap in the picture. Let the player stand clear of others and film again."),
    "player_unclear": Sentence("all", "{people} people are equally large in the picture. Move the camera so that the player is the largest, and film again."),
    "trunk_cut_off": Sentence("all", "Part of the trunk is outside the picture. Step back until head and hips are both in it, and film again."),
    "too_far": Sentence("all", "The player is too small in the picture. Step closer until head to knees fill its height, and film again."),
    "too_dark": Sentence("all", "It is too dark to see the trunk. Turn on a light or turn the player toward the window, and film again."),
    "too_blurred": Sentence("breath", "The picture is too soft to follow the shirt. Wipe the lens, let it focus, and film again."),
    "frozen_picture": Sentence("breath", "The picture stands still for {frozen_pct} % of the clip. Restart the camera and film again."),
    "coded_hard": Sentence(
        "breath",
        "This copy of the clip was squeezed so hard that slow movement comes late in it. Send the camera's own file, no messenger's copy, or film again.",
    ),
    "low_frame_rate": Sentence("breath", "The clip has only {rate_hz} pictures a second. Set the camera to 25 or more, and film again."),
    "camera_moving": Sentence("breath", "The camera moves too much. Lean the phone on something firm, and film again."),
    "player_moving": Sentence("breath", "The player moves too much to see the breath. Let the player settle, count in again, and film again."),
    "front_view_breath": Sentence("breath", "From the front the belly's way forward cannot be seen. For the breath, film from the side."),
    "trunk_covered": Sentence("breath", "Arms, instrument or stand cover the belly. Move the arms or the stand, or film from the other side."),
    "outline_lost": Sentence("breath", "The belly's edge could not be followed. A plain wall behind, nothing passing before it, the phone on something firm."),
    "trunk_sank": Sentence("breath", "The trunk sank or rounded while it was filmed, and the breath was lost in that. Sit tall, count in, and film again."),
    "chest_covered": Sentence("breath", "The arms cover the chest, so its share is less sure. Film once without the instrument, or with the arms lower."),
    "breath_faint": Sentence(
        "breath", "The breath is small against the grain and wobble of this picture. Come closer, add light, send the camera's own file, film a full breath."
    ),
    "no_breathing": Sentence("breath", "No breathing movement was found. Film from the side, in plain light, with the whole trunk in the picture."),
    "long_clip": Sentence("all", "This recording lasts {duration_s} s; the first {read_s} s were read. Half a minute is enough."),
    "large_picture": Sentence("all", "Filmed at {width_px} x {height_px}: reading takes longer and is no better than at 1080p."),
    "no_beats": Sentence("sound", "No clicks at the card's tempo were heard, so nothing is judged against the count. Let the clicks run while filming."),
    "beats_fitted": Sentence("sound", "No clicks were heard: the beat is taken from the breaths. Let the clicks run while filming."),
    "other_tempo": Sentence(
        "sound", "Clicks at {heard_bpm} were heard, but the card says {card_bpm}. Set the click to {card_bpm}, or take a card of {heard_bpm}, and film again."
    ),
    "other_count_in": Sentence("sound", "Every breath starts {beats} beats {side} than the card asks: another count-in was counted, so no start is judged."),
    "time_stamps": Sentence("all", "{pictures} pictures of this clip carry a wrong time and were left out. Film again if a breath is missing."),
    "camera_moved": Sentence(
        "breath",
        "The camera zoomed {zoom_pct} %, turned {rotation_deg} deg, moved {shift_pct} % of the trunk: taken out of the reading. Leave it standing next time.",
    ),
    "camera_tilted": Sentence(
        "posture", "The phone stood tilted by {tilt_deg}°: lean and hold are told against the room's upright edges. Stand it straight next time."
    ),
    "lies_on_its_side": Sentence(
        "posture", "The player lies down in this picture. If that is not so, the clip lies on its side: turn it upright on the phone, and send it again."
    ),
    "passed_by": Sentence(
        "breath",
        "Something passed behind or before the trunk, somebody or an arm, at {at_s} s: the breath is less sure there. Film where nobody walks by.",
    ),
    "restless_behind": Sentence(
        "breath", "Much moves behind the player, others or a screen, and before that the belly's edge is hard to follow. Film in front of a plain wall."
    ),
    "dropped_frames": Sentence("breath", "For {missing_s} s in all there are no pictures. Close other programs on the phone and film again."),
    "other_player": Sentence("all", "It is not clear who is to be read. Choose the player in the picture, or film again alone."),
    "too_costly": Sentence("all", "This video asks for more memory or time than half a minute should. Export it again on the phone, or film anew."),
    "too_many_pixels": Sentence("all", "Pictures of {width_px} x {height_px} are larger than can be opened. Film in 1080p, and send that."),
    "evidence_old": Sentence("all", "What was kept of this clip comes from an older release. Read the clip again."),
    "demonstration_long": Sentence("all", "A demonstration lasts {longest_s} s at most. Cut it, and choose it again."),
    "no_consent": Sentence("all", "There is no consent to film this student any more, so the clip was not read."),
    "not_there": Sentence("all", "There is no clip any more to be read."),
    "reading_failed": Sentence("all", "The reading stopped with an error of the program. The clip is kept: read it again, or film once more."),
}


def reason_text(code: str, facts: Mapping[str, object]) -> str:
    """The sentence for a reason code with its facts filled in. Raises KeyError for a code that is none."""
    return REASONS[code].text.format(**facts)


WITHHELD: dict[Withheld | str, str] = {
    "another_count_in": "Every breath starts the same whole beats from the card's, so it was counted in another way. Move beat one to judge the starts.",
    "no_beats": "Nothing is judged against the count: no clicks at the card's tempo were heard. Let the clicks run while filming.",
    "no_card": "No count was asked for.",
    "open_exhale": "The card asks for an exhale as long as it lasts, so later breaths have no beat of their own.",
    "cut_by_clip": "The clip begins or ends inside this breath. Film until the last breath is out.",
    "region_unseen": "Arms, instrument or stand hide what this is read from. Turn a little, film from the other side, or ask for it without the instrument.",
    "too_small": "The movement is too small to tell. A bigger breath, or a camera closer to the player, shows it.",
    "too_short_to_tell": "The movement is too short or too small to have a course.",
    "off_the_card": "This breath belongs to none that the card asks for.",
    "exempt": "This student is exempt: it is neither measured nor counted.",
    "breath_unreadable": "The breath cannot be read in this clip; the reason stands above.",
    "view_unserved": "This is read from the {view}. Film from there.",
    "lying": "Lying down this is not judged.",
    "no_whole_breath": "No breath lies wholly inside the clip. Film the count-in and at least one whole breath.",
    "by_ear": "This is told by ear: listen to the first ones and the last ones again.",
    "one_side_only": "Breaths of both sides are needed, and only one side could be read.",
    "not_raised": "The instrument was not brought up in this clip. Film from rest: up, a few seconds there, down again, three times.",
    "seen_briefly": "The player was not seen for long enough to tell whether the trunk sinks, rounds or sways: eight seconds and more show it.",
    "points_apart": "Head and shoulders were not made out behind the instrument: film from a little further back.",
    "too_unsure": "What was measured is not sure enough to be judged: it could be fine and not fine. Look yourself.",
    "not_looked": "When this clip was read, this was not looked at yet. Where the clip is still kept, read it again.",
    "points_elsewhere": "What was found points where nobody holds this instrument: is the right one set? If it is, set its line by two taps.",
    "not_tapped": "No foot that is seen taps.",
    "off_the_beat": "A foot moves, and not with the beat.",
    "feet_unseen": "The feet could not be made out: film from a little further back, with both feet in the picture.",
    "hand_unseen": "The hand could not be made out: film from where both hands show, closer, with nothing before them.",
    "face_hidden": "The face could not be seen: look into the camera, nothing before eyes and forehead, the light in front.",
    "arms_across": "Arms are across the outline there: film once without the instrument, or with the hands lower.",
    "arm_crosses": "The upper arm lies across the body, seen from here: how far the elbow stands off it is looked at from the side.",
    "held_briefly": "It was not up for long enough to tell whether the arms tire: eight seconds and more show it.",
    "raised_once": "It was raised once. Two raises or more tell whether each lands in one place.",
    "not_found": "The instrument could not be told from what lies around it. A plain wall behind the player helps.",
    "said_once": "It comes with another fault of the same breath: {criterion}. Mend that first.",
}  # fmt: skip
