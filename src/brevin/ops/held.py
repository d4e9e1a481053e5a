"""Everything that is held about one student as one ZIP in open formats: tables as CSV, reports as JSON, clips, stills, and what was seen of each clip."""

import zipfile
from pathlib import Path

from brevin.edge.tables import csv_of
from brevin.ops.settings import Settings
from brevin.store import students, takes, whole
from brevin.store.records import TakeRecord
from brevin.store.scope import Scope

SAYS = """Everything that Brevin holds about {name}.

tables/    one table each, CSV in UTF-8, times in UTC
reports/   every reading of every take, JSON
clips/     as they are kept: others in the picture are blurred
stills/    pictures of a clip that its report shows, JPEGs in a zip
evidence/  what was measured in a clip and can be judged again without it, packed
"""


def write(scope: Scope, student_id: int, settings: Settings, target: Path) -> int:
    """Write the ZIP, whole or not at all; how many takes are in it. Raises NotThere, OSError."""
    unfinished = target.with_name(f"{target.name}.part")
    try:
        with zipfile.ZipFile(unfinished, "w", zipfile.ZIP_DEFLATED) as file:
            made = _fill(file, scope, student_id, settings)
        unfinished.chmod(0o600)
        unfinished.replace(target)
    finally:
        unfinished.unlink(missing_ok=True)
    return made


def _fill(file: zipfile.ZipFile, scope: Scope, student_id: int, settings: Settings) -> int:
    own = takes.of_student(scope, student_id)
    file.writestr("README.txt", SAYS.format(name=students.student(scope, student_id).name))
    for table in whole.tables(scope, student_id):
        file.writestr(f"tables/{table.name}.csv", csv_of([table.columns, *table.rows]))
    for take_id, version, document in whole.documents(scope, student_id):
        file.writestr(f"reports/{take_id}-{version}.json", document)
    for take in own:
        for inside, path in _files(take, settings):
            if path.is_file():
                file.write(path, inside, zipfile.ZIP_STORED)
    return len(own)


def _files(take: TakeRecord, settings: Settings) -> list[tuple[str, Path]]:
    """Files of a take by their place in the ZIP. A clip that nobody may see yet, since others in it are not blurred, is in none."""
    found = []
    if take.clip is not None and take.clip.playable_name:
        found.append((f"clips/{take.id}{Path(take.clip.playable_name).suffix}", settings.clips / take.clip.playable_name))
    if take.shows_stills:
        found.append((f"stills/{take.id}.zip", settings.evidence / take.stills_name))
    if take.evidence_name:
        found.append((f"evidence/{take.id}.evidence", settings.evidence / take.evidence_name))
    return found
