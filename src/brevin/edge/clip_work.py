"""What is done to a clip in a limited child: look whether it is one, and read it. Arguments and answers are plain JSON values.

What opens and reads clips is imported inside, so that whoever asks for it loads none of it.
"""

from dataclasses import asdict, replace
from pathlib import Path
from typing import TYPE_CHECKING, Any

from brevin.edge.growing import Growing
from brevin.edge.limited import Limits, Told

if TYPE_CHECKING:
    import numpy as np
    from numpy.typing import NDArray

    from brevin.core.evidence import Evidence
    from brevin.core.track import Sighting

PROBE_LIMITS = Limits(memory_mb=1200, cpu_s=20, wall_s=20.0, file_mb=1, open_files=32)
SHOW_LIMITS = Limits(memory_mb=1500, cpu_s=240, wall_s=180.0, file_mb=400)
READ_LIMITS = Limits(memory_mb=2600, cpu_s=900, wall_s=600.0, file_mb=2000, behind=12)  # pages and the live view come first
BLUR_LIMITS = Limits(memory_mb=2600, cpu_s=900, wall_s=900.0, file_mb=2000, behind=15)  # and what is said of a breath comes before its clip is seen
PRELOAD_PROBE = ("brevin.edge.video",)
PRELOAD_READ = (
    "brevin.core.evidence",
    "brevin.edge.blurred",
    "brevin.edge.face_finder",
    "brevin.edge.look",
    "brevin.edge.transcode",
    "mediapipe.tasks.python.vision",
)


def looked_over(told: Told, path: str) -> dict[str, Any]:
    """Facts of a clip (core.track.ClipFacts). Raises ClipUnusable."""
    from brevin.edge.video import probe

    return asdict(probe(Path(path)))


def made_playable(told: Told, path: str, longest_s: float) -> dict[str, Any]:
    """Name and type of a file beside the clip, or the sound alone, that a browser plays. Raises ClipUnusable, also where it is longer."""
    from brevin.core.errors import ClipUnusable
    from brevin.edge.transcode import playable, playable_sound
    from brevin.edge.video import probe

    clip = Path(path)
    try:
        length_s = probe(clip).duration_s
    except ClipUnusable as why:
        if why.code != "sound_only":
            raise
        name, kind = playable_sound(clip, folder=clip.parent, longest_s=longest_s)
        return {"name": name, "type": kind}
    if length_s > longest_s:
        raise ClipUnusable("demonstration_long", longest_s=longest_s)
    name, kind = playable(clip, folder=clip.parent)
    return {"name": name, "type": kind}


def see_clip(told: Told, path: str, model: str, kept_at: str, view: str) -> None:
    """Look at a clip and write its evidence to ``kept_at``: whole, or not at all; the pictures that were looked at beside it. Raises ClipUnusable."""
    from brevin.edge.look import look
    from brevin.edge.pictures import SEEN, Pictures

    with Pictures(Path(kept_at).with_suffix(SEEN)) as pictures:
        _write(look(Path(path), Path(model), progress=told, view=view, pictured=pictures.keep), kept_at)  # pyrefly: ignore[bad-argument-type]


def _write(seen: "Sighting", kept_at: str) -> "Evidence":
    from brevin.core.evidence import evidence, packed

    found, target = evidence(seen), Path(kept_at)
    unfinished = target.with_name(target.name + ".part")
    unfinished.write_bytes(packed(found))
    unfinished.replace(target)
    return found


def _see(told: Told, clip: Path | Growing, model: str, kept_at: str, view: str) -> "Evidence":
    """The same, with everybody's faces."""
    from brevin.edge.face_finder import FacesSeen
    from brevin.edge.look import look
    from brevin.edge.pictures import SEEN, Pictures

    with Pictures(Path(kept_at).with_suffix(SEEN)) as pictures, FacesSeen(Path(model)) as faces:

        def pictured(t_s: float, rgb: "NDArray[np.uint8]") -> None:
            pictures.keep(t_s, rgb)
            faces.see(t_s, rgb)

        sighting = look(clip, Path(model), progress=told, view=view, pictured=pictured)  # pyrefly: ignore[bad-argument-type]
        return _write(replace(sighting, faces=faces.found()), kept_at)


def read_clip(
    told: Told, path: str, model: str, kept_at: str, view: str, playable_name: str, player: int | None, blurred_for: int | None
) -> dict[str, Any]:  # fmt: skip
    """The same, and name and type of a file beside the clip that a browser plays, made now where ``playable_name`` is not there; none where others are in it,
    who are to be blurred first. player: who was chosen by hand; blurred_for: whom it was blurred for before. Raises ClipUnusable."""
    return _played(told, Path(path), _see(told, Path(path), model, kept_at, view), player, playable_name, blurred_for)


def read_growing(told: Told, path: str, model: str, kept_at: str, view: str) -> dict[str, Any]:
    """The same of a clip that is filmed meanwhile: begun with its first pieces, done soon after its last. Raises ClipUnusable."""
    growing = Growing(Path(path))
    found = _see(told, growing, model, kept_at, view)
    return _played(told, growing.whole(), found, None, "")


def _played(told: Told, clip: Path, found: "Evidence", player: int | None, known: str, blurred_for: int | None = None) -> dict[str, Any]:
    from brevin.edge.blurred import others
    from brevin.edge.transcode import playable

    clear, kept_for = others(found, player)
    if blurred_for is not None and blurred_for >= 0 and (clear is None or kept_for == blurred_for):
        kept_for = blurred_for  # nobody else is left in it whom one could know
    elif clear is not None:
        return {"playable_name": "", "playable_type": "", "blurred_for": None}
    told("keeping the clip", 0.96)
    name, kind = playable(clip, folder=clip.parent, known=known, told=told)
    return {"playable_name": name, "playable_type": kind, "blurred_for": kept_for}


def blur_others(told: Told, path: str, model: str, seen_at: str, stills: str, player: int | None, name: str) -> dict[str, Any]:
    """A clip that was read, without the others in it: as ``name`` beside it, its stills changed in place; or as it is, where nobody else is in it. seen_at: its
    evidence. Raises ClipUnusable."""
    from brevin.core.evidence import unpacked
    from brevin.edge import blurred
    from brevin.edge.transcode import TYPES

    clip = Path(path)
    found = blurred.with_faces(unpacked(Path(seen_at).read_bytes()), clip, Path(model))
    clear, kept_for = blurred.others(found, player)
    if clear is None:
        return _played(told, clip, found, player, "") | {"stored_name": ""}
    blurred.blur_stills(Path(stills), clear, found)
    blurred.blur_clip(clip, clip.with_name(name), clear, found, told)
    return {"stored_name": name, "playable_name": name, "playable_type": TYPES["mp4"], "blurred_for": kept_for}
