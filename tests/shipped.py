"""The content as it ships, read once for all tests of it."""

from brevin.edge.instrument_files import content
from brevin.ops.settings import ROOT

CONTENT = content(ROOT / "content")
