import cv2
import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from brevin.core.track import Points, Strips
from brevin.edge import film
from brevin.edge.points import Texture
from brevin.edge.strips import Outline
from tests.core.made import player


def body_film(travel_px: np.ndarray, *, noise: float = 1.5, texture: bool = False, seed: int = 0) -> tuple[np.ndarray, np.ndarray, np.ndarray]:
    """A drawn trunk whose front outline moves by the given pixels: film, mask and reference."""
    random = np.random.default_rng(seed)
    x = np.arange(film.WIDTH)[None, :] + np.zeros((film.HEIGHT, 1))
    back, front = film.column(-18.0), film.column(18.0)
    cloth = 60 + (cv2.GaussianBlur(random.uniform(0, 120, (film.HEIGHT, film.WIDTH)), (0, 0), 3) - 60) * (8 if texture else 0)
    pictures = []
    for move in travel_px:
        inside = 1 / (1 + np.exp(-(x - back) / 1.2)) * 1 / (1 + np.exp((x - front - move) / 1.2))
        shifted = cv2.warpAffine(cloth, np.float32([[1, 0, move], [0, 1, 0]]), (film.WIDTH, film.HEIGHT), borderMode=cv2.BORDER_REFLECT)
        pictures.append(np.clip(170 * (1 - inside) + shifted * inside + random.normal(0, noise, x.shape), 0, 255))
    mask = ((x > back) & (x < front)).astype(np.float32)
    return np.array(pictures, np.uint8), mask, np.mean(pictures[:3], axis=0)


def outline(pictures: np.ndarray, mask: np.ndarray, reference: np.ndarray, *, outward: int = 1, risen_pct: np.ndarray | None = None) -> Strips:
    """Strips of one side, the pictures shown in two goes."""
    one = Outline(mask, reference.astype(float), outward=outward)
    risen = np.zeros(len(pictures)) if risen_pct is None else risen_pct
    for part in (slice(0, 2), slice(2, None)):
        one.see(pictures[part], risen[part])
    return one.strips()


def texture_of(pictures: np.ndarray, mask: np.ndarray) -> Points:
    """Points against the first picture."""
    one = Texture(mask, pictures[0])
    for picture in pictures:
        one.see(picture)
    return one.points()


@settings(max_examples=8, deadline=None)
@given(st.floats(-9, 14), st.booleans(), st.integers(0, 50))
def test_the_outline_is_followed_to_a_fraction_of_a_pixel(move: float, texture: bool, seed: int) -> None:
    pictures, mask, reference = body_film(np.array([0, 0, 0, move / 2, move]), texture=texture, seed=seed)
    found = outline(pictures, mask, reference)
    travel = np.median(found.travel_pct[:, (found.up_pct > 5) & (found.up_pct < 90)], axis=1) * film.PX_PER_PCT
    assert travel[3] == pytest.approx(move / 2, abs=0.15)
    assert travel[4] == pytest.approx(move, abs=0.15)
    assert np.median(found.misfit) < 0.3


def test_outward_is_positive_on_both_sides() -> None:
    pictures, mask, reference = body_film(np.array([0.0, 0.0, 0.0, 4.0]))
    back = outline(pictures, mask, reference, outward=-1)
    assert np.abs(np.median(back.travel_pct, axis=1)).max() < 0.1
    assert np.median(back.edge_pct) == pytest.approx(-18, abs=1)


def test_texture_of_shirt_and_room_is_followed_apart() -> None:
    pictures, mask, reference = body_film(np.array([0.0, 0.0, 0.0, 3.0]), texture=True)
    rows = np.arange(film.HEIGHT)[:, None]
    board = 60 * ((np.arange(film.WIDTH)[None] // 12 + rows // 12) % 2)
    outside = mask == 0
    pictures = np.where(outside[None], np.clip(pictures.astype(int) + board, 0, 255), pictures).astype(np.uint8)
    found = texture_of(pictures, mask)
    middle = np.median(found.move_pct[3, found.on_body, 0]) * film.PX_PER_PCT
    assert middle == pytest.approx(3.0, abs=0.2)
    assert (~found.on_body).sum() > 5 and np.abs(np.median(found.move_pct[3, ~found.on_body], axis=0)).max() < 0.1


def test_the_film_has_hips_and_shoulders_where_it_says() -> None:
    who = player(1)
    turn = film.body_map(who)
    picture = np.zeros((540, 960), np.uint8)
    cv2.circle(picture, (480, 320), 3, 255, -1)
    cv2.circle(picture, (480, 160), 3, 255, -1)
    seen = turn.apply(picture)
    for up in (0.0, 100.0):
        assert seen[int(film.row(up)), int(film.column(0.0))] > 200
    assert film.to_body_pct(np.array([480.0 + 80.0, 320.0 - 40.0]), who) == pytest.approx([50.0, 25.0])


def test_a_body_that_goes_up_does_not_seem_to_come_forward() -> None:
    x, y = np.meshgrid(np.arange(film.WIDTH, dtype=float), np.arange(film.HEIGHT, dtype=float))
    risen_px = np.array([0.0, 0.0, 3.0, 6.0])
    random = np.random.default_rng(3)

    def picture(up_px: float) -> np.ndarray:
        front = film.column(18.0) + 0.3 * (film.row(50.0) - (y + up_px))  # a belly that slants forward with height
        inside = 1 / (1 + np.exp(-(x - film.column(-18.0)) / 1.2)) / (1 + np.exp((x - front) / 1.2))
        return np.clip(170 - 110 * inside + random.normal(0, 1.0, x.shape), 0, 255)

    pictures = np.array([picture(up) for up in risen_px], np.uint8)
    mask = ((x > film.column(-18.0)) & (x < film.column(18.0) + 0.3 * (film.row(50.0) - y))).astype(np.float32)
    found = outline(pictures, mask, pictures[0], risen_pct=risen_px / film.PX_PER_PCT)
    assert np.abs(np.median(found.travel_pct, axis=1)).max() * film.PX_PER_PCT < 0.15
    left_alone = outline(pictures, mask, pictures[0])
    assert np.abs(np.median(left_alone.travel_pct, axis=1)[3]) * film.PX_PER_PCT > 1.0


def test_level_stripes_tell_no_move_forward_and_upright_ones_none_up() -> None:
    mask = np.zeros((film.HEIGHT, film.WIDTH), np.float32)
    mask[int(film.row(105)) : int(film.row(-10)), int(film.column(-20)) : int(film.column(20))] = 1.0
    x, y = np.meshgrid(np.arange(film.WIDTH, dtype=float), np.arange(film.HEIGHT, dtype=float))
    random = np.random.default_rng(2)
    told = {}
    for name, cloth in {"level": np.sin(y / 2.5), "upright": np.sin(x / 2.5), "checked": np.sin(x / 2.5) * np.sin(y / 2.5)}.items():
        picture = np.clip(120 + 60 * cloth + random.normal(0, 1.0, x.shape), 0, 255).astype(np.uint8)
        points = texture_of(np.array([picture, picture]), mask)
        assert points.on_body.sum() > 20
        told[name] = np.median(points.unsure_pct[points.on_body], axis=0)
    assert told["level"][0] > 5.0 * told["level"][1] and told["upright"][1] > 5.0 * told["upright"][0]
    assert told["checked"] == pytest.approx([told["level"][1]] * 2, rel=1.0), "a pattern of both tells both ways"


def test_points_that_somebody_hides_and_draws_along_are_found_again_once_he_has_gone() -> None:
    steps = np.concatenate([np.zeros(4), np.linspace(0.0, 3.0, 14)])
    pictures, mask, _ = body_film(steps, texture=True, seed=4)
    alone = texture_of(pictures, mask)
    random, stripes = np.random.default_rng(9), np.sin(np.arange(film.HEIGHT) * 0.2)[:, None]
    for number, middle in enumerate(np.linspace(-20, film.WIDTH + 20, 12), start=4):
        left, right = (int(np.clip(middle + side, 0, film.WIDTH)) for side in (-45, 45))
        cloth = 110 + 40 * stripes + random.normal(0, 4, (film.HEIGHT, right - left))
        pictures[number][:, left:right] = np.clip(cloth, 0, 255)
    points = texture_of(pictures, mask)
    off_px = np.abs(points.move_pct - alone.move_pct)[:, points.on_body].max(axis=2) * film.PX_PER_PCT
    assert off_px.shape[1] > 100 and off_px[10].max() > 10.0 and np.mean(off_px[-1] < 0.2) > 0.97
