"""The simulated camera: room, light, lens and sensor, drawn on software graphics without a screen."""

from dataclasses import dataclass
from typing import TYPE_CHECKING

import numpy as np

from brevin.standin.body import Mesh

if TYPE_CHECKING:
    import moderngl

VERTEX = """
#version 330
uniform mat4 project; uniform vec3 breath; uniform vec3 sway;
in vec3 place; in vec3 normal; in float part; in vec3 abdomen; in vec3 chest; in vec3 shoulder;
out vec3 v_normal; out vec3 v_place; out vec3 v_rest; flat out int v_part;
void main() {
  vec3 p = place + abdomen * breath.x + chest * breath.y + shoulder * breath.z + sway * clamp(place.z - 0.3, 0.0, 1.5);
  v_normal = normal; v_place = p; v_rest = place; v_part = int(part + 0.5);
  gl_Position = project * vec4(p, 1.0);
}"""
FRAGMENT = """
#version 330
uniform vec3 colours[16]; uniform vec3 pattern_colour; uniform int pattern; uniform float period; uniform vec3 sun; uniform vec3 eye; uniform float gain;
in vec3 v_normal; in vec3 v_place; in vec3 v_rest; flat in int v_part; out vec4 colour;
float hash(vec3 p) { return fract(sin(dot(floor(p), vec3(12.9898, 78.233, 37.719))) * 43758.5453); }
float noise(vec3 p) {
  vec3 f = fract(p); f = f * f * (3.0 - 2.0 * f); float s = 0.0;
  for (int i = 0; i < 8; i++) { vec3 o = vec3(i & 1, (i >> 1) & 1, (i >> 2) & 1); vec3 w = mix(1.0 - f, f, o); s += hash(p + o) * w.x * w.y * w.z; }
  return s;
}
void main() {
  vec3 base = colours[v_part];
  if (v_part == 0) {
    float on = 0.0;
    if (pattern == 1) on = step(0.5, fract(v_rest.z / period));
    if (pattern == 2) on = smoothstep(0.45, 0.55, noise(v_rest / period * 2.0));
    if (pattern == 3) on = step(length(fract(vec2(v_rest.z, v_rest.x + v_rest.y) / period) - 0.5), 0.25);
    base = mix(base, pattern_colour, on);
  }
  if (v_part == 6 || v_part == 7) base *= 0.94 + 0.12 * noise(v_rest * 9.0);
  base *= 0.97 + 0.06 * noise(v_rest * 60.0);
  vec3 n = normalize(v_normal); if (dot(n, eye - v_place) < 0.0) n = -n;
  float light = 0.52 + 0.14 * n.z + 0.5 * max(dot(n, normalize(sun)), 0.0);
  float blob = v_part == 7 ? 1.0 - 0.35 * exp(-dot(v_place.xy - vec2(0.1, 0.0), v_place.xy - vec2(0.1, 0.0)) / 0.09) : 1.0;
  colour = vec4(pow(clamp(base * light * gain * blob, 0.0, 1.0), vec3(1.0 / 1.1)), 1.0);
}"""


@dataclass(frozen=True)
class Look:
    """Colours of parts (sRGB 0 to 1), in the order shirt, trousers, shoes, skin, hair, dark, wall, floor, chair, brass, wood, poster;
    pattern 0 plain, 1 stripes, 2 noise, 3 dots."""

    colours: tuple[tuple[float, float, float], ...]
    pattern_colour: tuple[float, float, float] = (0.9, 0.9, 0.9)
    pattern: int = 2
    period_m: float = 0.04
    gain: float = 1.0
    noise: float = 1.2


@dataclass(frozen=True)
class Lens:
    """Where the camera stands and how it sees. azimuth_deg: 90 = at the player's left side, 0 = in front."""

    azimuth_deg: float
    distance_m: float
    height_m: float
    width_px: int
    height_px: int
    focal_px: float

    def eye(self) -> np.ndarray:
        """Place of the camera, metres."""
        a = np.radians(self.azimuth_deg)
        return np.array([self.distance_m * np.cos(a), self.distance_m * np.sin(a), self.height_m])

    def axes(self) -> np.ndarray:
        """Rows: right, down, forward of the picture in room coordinates."""
        a = np.radians(self.azimuth_deg)
        ahead = -np.array([np.cos(a), np.sin(a), 0.0])
        right = np.cross(ahead, [0.0, 0.0, 1.0])
        return np.stack([right, [0.0, 0.0, -1.0], ahead])

    def to_px(self, points: np.ndarray) -> np.ndarray:
        """Room points [..., 3] in the picture: [..., 2]."""
        seen = (np.asarray(points) - self.eye()) @ self.axes().T
        return seen[..., :2] / seen[..., 2:3] * self.focal_px + np.array([self.width_px, self.height_px]) / 2

    def matrix(self) -> np.ndarray:
        """Projection for the graphics, 4 x 4."""
        near, far = 0.2, 20.0
        view = np.eye(4)
        view[:3, :3] = self.axes() * np.array([[1], [-1], [-1]])
        view[:3, 3] = -view[:3, :3] @ self.eye()
        lens = np.zeros((4, 4))
        lens[0, 0], lens[1, 1] = 2 * self.focal_px / self.width_px, 2 * self.focal_px / self.height_px
        lens[2, 2], lens[2, 3], lens[3, 2] = -(far + near) / (far - near), -2 * far * near / (far - near), -1.0
        return np.asarray(lens @ view)


def box(low: tuple[float, float, float], high: tuple[float, float, float], part: int) -> Mesh:
    """A box for furniture and room."""
    corners = np.array([[(low, high)[(i >> k) & 1][k] for k in range(3)] for i in range(8)], float)
    quads = [(0, 1, 3, 2), (4, 6, 7, 5), (0, 4, 5, 1), (2, 3, 7, 6), (0, 2, 6, 4), (1, 5, 7, 3)]
    vertices: list[np.ndarray] = []
    normals: list[np.ndarray] = []
    faces: list[tuple[int, int, int]] = []
    for quad in quads:
        a, b, c, d = (corners[i] for i in quad)
        n = np.cross(b - a, c - a)
        start = len(vertices)
        vertices += [a, b, c, d]
        normals += [n / np.linalg.norm(n)] * 4
        faces += [(start, start + 1, start + 2), (start, start + 2, start + 3)]
    return Mesh(np.array(vertices), np.array(normals), np.array(faces), np.full(len(vertices), part))


def tube(points: np.ndarray, radii: list[float], part: int, sides: int = 14) -> Mesh:
    """A round tube through points, for instruments."""
    points = np.asarray(points, float)
    rings, normals = [], []
    for i, (point, radius) in enumerate(zip(points, radii, strict=True)):
        ahead = points[min(i + 1, len(points) - 1)] - points[max(i - 1, 0)]
        ahead = ahead / np.linalg.norm(ahead)
        u = np.cross(ahead, [0.31, 0.95, 0.05])
        u /= np.linalg.norm(u)
        v = np.cross(ahead, u)
        angle = np.linspace(0, 2 * np.pi, sides, endpoint=False)
        circle = np.cos(angle)[:, None] * u + np.sin(angle)[:, None] * v
        rings.append(point + radius * circle)
        normals.append(circle)
    faces = []
    for i in range(len(points) - 1):
        for k in range(sides):
            a, b = i * sides + k, i * sides + (k + 1) % sides
            faces += [(a, b, a + sides), (b, b + sides, a + sides)]
    vertices = np.concatenate(rings)
    return Mesh(vertices, np.concatenate(normals), np.array(faces), np.full(len(vertices), part))


class Camera:
    """Draws frames of one scene, or of the stages of a movement, before a room that stands still and is drawn once. ``shoot`` gives RGB pictures
    [height, width, 3]."""

    def __init__(self, lens: Lens, look: Look, room: list[Mesh], stages: list[list[Mesh]], *, seed: int) -> None:
        import moderngl  # here, so that who only reads a script needs no graphics

        self.lens, self.look = lens, look
        self.random = np.random.default_rng(seed)
        self.context = moderngl.create_standalone_context(backend="egl")
        self.depth_test = moderngl.DEPTH_TEST
        self.program = self.context.program(vertex_shader=VERTEX, fragment_shader=FRAGMENT)
        size = (lens.width_px * 2, lens.height_px * 2)
        self.empty, self.target = (self.context.framebuffer([self.context.renderbuffer(size, 3)], self.context.depth_renderbuffer(size)) for _ in range(2))
        self.arrays = [self._array(meshes) for meshes in stages]
        self._set(lens.matrix())
        self._draw_empty(self._array(room))

    def _draw_empty(self, room: "moderngl.VertexArray") -> None:
        self.program["breath"].value = self.program["sway"].value = (0.0, 0.0, 0.0)
        self.empty.use()
        self.context.enable(self.depth_test)
        self.context.clear(0.5, 0.5, 0.5)
        room.render()

    def _array(self, meshes: list[Mesh]) -> "moderngl.VertexArray":
        rows, faces, start = [], [], 0
        for mesh in meshes:
            still = np.zeros_like(mesh.vertices)
            moving = [mesh.fields.get(name, still) for name in ("abdomen", "chest", "shoulder")]
            rows.append(np.column_stack([mesh.vertices, mesh.normals, mesh.part, *moving]))
            faces.append(mesh.faces + start)
            start += len(mesh.vertices)
        vertices = self.context.buffer(np.concatenate(rows).astype("f4").tobytes())
        index = self.context.buffer(np.concatenate(faces).astype("i4").tobytes())
        layout = (vertices, "3f 3f 1f 3f 3f 3f", "place", "normal", "part", "abdomen", "chest", "shoulder")
        return self.context.vertex_array(self.program, [layout], index)

    def _set(self, matrix: np.ndarray) -> None:
        colours = np.zeros((16, 3), "f4")
        colours[: len(self.look.colours)] = self.look.colours
        self.program["colours"].write(colours.tobytes())
        self.program["pattern_colour"].value = self.look.pattern_colour
        self.program["pattern"].value = self.look.pattern
        self.program["period"].value = self.look.period_m
        self.program["sun"].value = tuple(self.lens.eye() * 0.4 + np.array([0.6, 0.5, 2.2]))
        self.program["eye"].value = tuple(self.lens.eye())
        self.program["gain"].value = self.look.gain
        self.program["project"].write(matrix.T.astype("f4").tobytes())

    def shoot(self, breath_m: tuple[float, float, float], sway: tuple[float, float, float], stage: int = 0) -> np.ndarray:
        """One picture. breath_m: travel of abdomen, chest and shoulder; sway: shift of the body for each metre of height; stage: of the movement."""
        self.program["breath"].value = breath_m
        self.program["sway"].value = sway
        self.context.copy_framebuffer(self.target, self.empty)
        self.target.use()
        self.arrays[stage].render()
        size = self.target.size
        raw = np.frombuffer(self.target.read(components=3), np.uint8).reshape(size[1], size[0], 3)[::-1]
        rows = raw[::2].astype(np.uint16) + raw[1::2]
        small = (rows[:, ::2] + rows[:, 1::2]) / 4.0
        noisy = small + self.random.normal(0.0, self.look.noise, small.shape)
        return np.clip(noisy + 0.5, 0, 255).astype(np.uint8)
