"""What is done to a clip in a limited child: look whether it is one, and read it. Arguments and answers are plain JSON values.

What opens and reads clips is imported inside, so that whoever asks for it loads none of it.
"""

from dataclasses import asdict
from pathlib import Path
from typing import Any

from brevin.edge.growing import Growing
from brevin.edge.limited import Limits, Told

PROBE_LIMITS = Limits(memory_mb=1200, cpu_s=20, wall_s=20.0, file_mb=1, open_files=32)
SHOW_LIMITS = Limits(memory_mb=1500, cpu_s=240, wall_s=180.0, file_mb=400)
READ_LIMITS = Limits(memory_mb=2600, cpu_s=900, wall_s=600.0, file_mb=2000, behind=12)  # pages and the live view come first
PRELOAD_PROBE = ("brevin.edge.video",)
PRELOAD_READ = ("brevin.core.evidence", "brevin.edge.look", "brevin.edge.transcode", "mediapipe.tasks.python.vision")


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
    _see(told, Path(path), model, kept_at, view)


def _see(told: Told, clip: Path | Growing, model: str, kept_at: str, view: str) -> None:
    from brevin.core.evidence import evidence, packed
    from brevin.edge.look import look
    from brevin.edge.pictures import SEEN, Pictures

    target = Path(kept_at)
    with Pictures(target.with_suffix(SEEN)) as pictures:
        sighting = look(clip, Path(model), progress=told, view=view, pictured=pictures.keep)  # pyrefly: ignore[bad-argument-type]
    unfinished = target.with_name(target.name + ".part")
    unfinished.write_bytes(packed(evidence(sighting)))
    unfinished.replace(target)


def read_clip(told: Told, path: str, model: str, kept_at: str, view: str, playable_name: str) -> dict[str, Any]:
    """The same, and the name and type of a file beside the clip that a browser plays, made now where ``playable_name`` is not there. Raises ClipUnusable."""
    _see(told, Path(path), model, kept_at, view)
    return _played(told, Path(path), playable_name)


def read_growing(told: Told, path: str, model: str, kept_at: str, view: str) -> dict[str, Any]:
    """The same of a clip that is filmed meanwhile: begun with its first pieces, done soon after its last. Raises ClipUnusable."""
    growing = Growing(Path(path))
    _see(told, growing, model, kept_at, view)
    return _played(told, growing.whole(), "")


def _played(told: Told, clip: Path, known: str) -> dict[str, Any]:
    from brevin.edge.transcode import playable

    told("keeping the clip", 0.96)
    name, kind = playable(clip, folder=clip.parent, known=known, told=told)
    return {"playable_name": name, "playable_type": kind}
