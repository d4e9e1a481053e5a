"""Makes the saved sightings anew from the demo clips."""

from brevin.core import packing
from brevin.edge.look import look
from brevin.ops.demo import CLIPS
from brevin.ops.settings import ROOT, model_path
from tests.sightings import CHECKS, FOLDER, KIND, VERSION, thinned

for name in CHECKS:
    seen = thinned(look(CLIPS / f"{name}.mp4", model_path(ROOT)))
    content = packing.pack(seen, kind=KIND, version=VERSION, coarse=True)
    (FOLDER / f"{name}.sighting").write_bytes(content)
    print(name, len(content))
