"""Makes the saved sightings anew from the demo clips."""

import json
from pathlib import Path
from tempfile import TemporaryDirectory

from brevin.bench.other_pictures import POLE, way_of
from brevin.bench.worse import remade
from brevin.core import packing
from brevin.edge.look import look
from brevin.ops.demo import CLIPS
from brevin.ops.settings import ROOT, model_path
from tests.sightings import BEHIND_A_POLE, CHECKS, FOLDER, KIND, POINTS_EVERY, VERSION, thinned


def save(name: str, clip: Path, *, points_every: int = POINTS_EVERY) -> None:
    content = packing.pack(thinned(look(clip, model_path(ROOT)), points_every=points_every), kind=KIND, version=VERSION, coarse=True)
    (FOLDER / f"{name}.sighting").write_bytes(content)
    print(name, len(content))


for name in CHECKS:
    save(name, CLIPS / f"{name}.mp4")
truth = json.loads((CLIPS / f"{BEHIND_A_POLE}.json").read_text())
with TemporaryDirectory() as scratch:
    other = Path(scratch) / "pole.mp4"
    remade(CLIPS / f"{BEHIND_A_POLE}.mp4", other, lambda rgb, number: way_of(POLE, truth)(rgb, number / truth["fps"]))
    save(f"{BEHIND_A_POLE}-{POLE}", other, points_every=1)  # the flank's are all there is
