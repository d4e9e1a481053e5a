"""The report's keys that outside checks rely on: every one is there, whatever was read or was not; more may be added."""

import pytest

from brevin.core.kinds import Instrument
from brevin.core.plain import to_json
from brevin.core.verdict.wording import with_sentences
from tests.core.test_read import report_of

KEYS = {
    "": "schema software clip view position readable readable_for reasons player scale beats trace segments breaths partial_breaths posture hold drill sound "
    "verdicts",
    "software": "version thresholds_id profile_id",
    "clip": "file duration_s frame_rate_hz width_px height_px rotation_deg has_sound",
    "readable_for": "breath posture hold sound",
    "player": "from_s box_px others",
    "scale": "trunk_px mm_per_px source",
    "beats": "tempo_bpm first_inhale_s source residual_s",
    "trace": "t_s abdomen chest shoulder confidence",
    "breaths": "inhale_start_s inhale_end_s exhale_start_s exhale_end_s inhale_beats pause_beats exhale_beats empty_beats inhale_offset_beats "
    "exhale_offset_beats full_at_beat abdomen_amp chest_amp shoulder_rise abdominal_share chest_lag_s phase_angle_deg intake_unevenness exhale_unevenness "
    "exhale_shape pattern uncertainty",
    "posture": "trunk_inclination_deg back_rounding_pct head_forward_pct head_tilt_deg shoulder_tilt_deg shoulder_height_pct feet_flat sag_deg_per_min "
    "sway_pct",
    "hold": "instrument instrument_axis_deg axis_to_trunk_deg elbow_abduction_deg wrist_deg finger_curl_deg mouthpiece_to_face_deg",
    "verdicts": "criterion state value unit threshold uncertainty from_s to_s why cue",
}


@pytest.mark.parametrize("instrument", ["trumpet", "alto_sax"])
def test_every_key_of_the_contract_is_in_the_report(instrument: Instrument) -> None:
    report, _ = report_of(instrument=instrument)
    document = with_sentences(to_json(report))
    for part, keys in KEYS.items():
        here = document[part] if part else document
        for one in here if isinstance(here, list) else [here]:
            assert set(keys.split()) <= set(one), part
    assert document["breaths"] and document["verdicts"], "what there is none of shows nothing"
    assert document["hold"]["mouthpiece_to_face_deg"] is None, "ticked by hand, never guessed"
    for sides in ("elbow_abduction_deg", "wrist_deg", "finger_curl_deg"):
        assert set(document["hold"][sides]) == {"left", "right"}
