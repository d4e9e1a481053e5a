"""Line drawings as files: plain SVG that any drawing program opens, of which the page draws a small, safe part in its own colours.

A drawing has a title and a text that says the same (``title``, ``desc``). Shapes carry one of the classes of ``LOOKS``; a mark (class ``mark``) is a part of
the instrument, named by its id, and is drawn as its rule says; a finger (class ``key``) is filled where it is pressed.
"""

from dataclasses import dataclass, field
from typing import Literal, get_args
from xml.etree import ElementTree

Tag = Literal["g", "path", "line", "circle", "ellipse", "rect", "polyline", "polygon", "text"]
TAGS: tuple[Tag, ...] = get_args(Tag)
LOOKS = {"", "ink", "soft", "hair", "wash", "fill", "ground", "dash", "bold", "mark", "key", "thick", "barred"}
ATTRIBUTES = {
    "d", "x", "y", "x1", "y1", "x2", "y2", "cx", "cy", "r", "rx", "ry", "width", "height", "points", "transform", "id", "class", "text-anchor", "font-size",
}  # fmt: skip
SPACE = "{http://www.w3.org/2000/svg}"


@dataclass(frozen=True)
class Shape:
    """One element. tag: of SVG; attributes: those of ``ATTRIBUTES``, as they are written; words: of a text."""

    tag: Tag
    attributes: dict[str, str]
    words: str = ""
    inside: tuple["Shape", ...] = field(default=())


@dataclass(frozen=True)
class Drawing:
    """width, height: of its own units; text: says what it shows, for who does not see it."""

    title: str
    text: str
    width: float
    height: float
    shapes: tuple[Shape, ...]

    @property
    def ids(self) -> frozenset[str]:
        """The names of its marks, keys and groups."""
        return frozenset(_ids(self.shapes))


def drawing(written: str) -> Drawing:
    """A drawing from the file's text. Raises ValueError("line: what is wrong")."""
    try:
        root = ElementTree.fromstring(written)  # noqa: S314 (our own files, beside the code)
    except ElementTree.ParseError as error:
        raise ValueError(f"{error.position[0]}: no SVG: {error}") from error
    box = root.get("viewBox", "").split()
    title, text = (root.findtext(f"{SPACE}{tag}", "").strip() for tag in ("title", "desc"))
    if not title or not text:
        raise ValueError("1: a drawing needs a title, and a desc that says the same in words")
    if len(box) != 4 or box[:2] != ["0", "0"]:
        raise ValueError("1: the viewBox begins at 0 0 and says width and height")
    return Drawing(title, text, float(box[2]), float(box[3]), tuple(_shape(one, written) for one in root if one.tag not in (f"{SPACE}title", f"{SPACE}desc")))


def _shape(element: ElementTree.Element, written: str) -> Shape:
    tag = element.tag.removeprefix(SPACE)
    if tag not in TAGS:
        raise ValueError(f"{_line(written, tag)}: <{tag}> is not drawn; take one of {', '.join(TAGS)}")
    foreign = sorted(set(element.attrib) - ATTRIBUTES)
    if foreign:
        raise ValueError(f"{_line(written, foreign[0])}: {foreign[0]} is not drawn; colours and lines come from the class")
    looks = set(element.get("class", "").split())
    if looks - LOOKS:
        raise ValueError(f"{_line(written, min(looks - LOOKS))}: there is no class {min(looks - LOOKS)}; take one of {', '.join(sorted(LOOKS - {''}))}")
    return Shape(tag, dict(element.attrib), (element.text or "").strip() if tag == "text" else "", tuple(_shape(one, written) for one in element))


def _line(written: str, word: str) -> int:
    return next((i for i, line in enumerate(written.splitlines(), start=1) if word in line), 1)


def _ids(shapes: tuple[Shape, ...]) -> list[str]:
    return [name for shape in shapes for name in (*([shape.attributes["id"]] if "id" in shape.attributes else []), *_ids(shape.inside))]
