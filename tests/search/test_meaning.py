"""Nearness in meaning by a model of one's own: here a tiny one, in which only the words of damp and of noise count."""

from __future__ import annotations

import json
from pathlib import Path

import numpy as np
import onnx
import pytest
from onnx import TensorProto, helper, numpy_helper
from tokenizers import Tokenizer, models, pre_tokenizers

from yarnex.core.document import Cite, Span
from yarnex.core.errors import YarnexError
from yarnex.core.search import ask_all
from yarnex.core.search.meaning import SentenceModel
from yarnex.core.search.weighing import EVIDENCE, Answer, weighed

DAMP, NOISE, OTHER = (1.0, 0.0, 0.1), (0.0, 1.0, 0.1), (0.0, 0.0, 0.01)
VECTORS = {
    "[UNK]": OTHER,
    "damp": DAMP,
    "wet": DAMP,
    "moisture": DAMP,
    "loud": NOISE,
    "noise": NOISE,
    "decibels": NOISE,
}


def made(folder: Path, inputs=("input_ids", "attention_mask"), output="last_hidden_state", pooled=False) -> Path:
    """A folder with a model that gives each word its vector; pooled: the sentence the mean of them."""
    words = Tokenizer(models.WordLevel({w: i for i, w in enumerate(VECTORS)}, unk_token="[UNK]"))
    words.pre_tokenizer = pre_tokenizers.Whitespace()
    folder.mkdir(exist_ok=True)
    words.save(str(folder / "tokenizer.json"))
    table = numpy_helper.from_array(np.array(list(VECTORS.values()), np.float32), "table")
    axes = numpy_helper.from_array(np.array([1], np.int64), "axes")
    steps = [helper.make_node("Gather", ["table", "input_ids"], ["words" if pooled else output])]
    if pooled:
        steps.append(helper.make_node("ReduceMean", ["words", "axes"], [output], keepdims=0))
    graph = helper.make_graph(
        steps,
        "words",
        [helper.make_tensor_value_info(name, TensorProto.INT64, ["texts", "words"]) for name in inputs],
        [helper.make_tensor_value_info(output, TensorProto.FLOAT, None)],
        [table, axes],
    )
    model = helper.make_model(graph, opset_imports=[helper.make_opsetid("", 18)], ir_version=9)
    onnx.save(model, folder / "model.onnx")
    return folder


@pytest.mark.parametrize("shape", [{}, {"inputs": ("input_ids",)}, {"output": "sentence_embedding", "pooled": True}])
@pytest.mark.parametrize("pooling", ["mean", "first"])
def test_what_means_the_same_is_near(tmp_path, shape, pooling):
    model = SentenceModel(made(tmp_path / "model", **shape), pooling)
    same, other = model.alike("wet", ["damp", "noise"])
    assert same == pytest.approx(1.0) and other < 0.1
    assert model.alike("", ["", "damp"])[0] == pytest.approx(1.0)


def test_only_so_many_words_are_looked_at(tmp_path):
    model = SentenceModel(made(tmp_path / "model"))
    assert model.alike("damp", ["damp " * 300 + "noise " * 300]) == pytest.approx([1.0])


def broken(folder: Path, name: str) -> Path:
    made(folder)
    if name == "no folder":
        return folder / "not there"
    if name == "no words":
        (folder / "tokenizer.json").unlink()
    elif name == "bad words":
        (folder / "tokenizer.json").write_text(json.dumps({"a": 1}))
    elif name == "bad model":
        (folder / "model.onnx").write_bytes(b"none")
    else:
        made(folder, inputs=("input_ids", "pixels"))
    return folder


@pytest.mark.parametrize(
    ("name", "said"),
    [
        ("no folder", r"no model\.onnx; a model's folder holds"),
        ("no words", r"no tokenizer\.json"),
        ("bad words", r"tokenizer\.json cannot be used"),
        ("bad model", r"model\.onnx cannot be used"),
        ("other inputs", "asks for pixels; it may ask for"),
    ],
)
def test_a_folder_that_does_not_serve_is_told(tmp_path, name, said):
    with pytest.raises(YarnexError, match=said):
        SentenceModel(broken(tmp_path / "model", name))


def test_what_is_nearer_in_meaning_gains_on_what_is_not(document):
    paper = document("The walls are damp. The looms are loud.")
    evidence = tuple(1.0 if name == "score" else 0.0 for name in EVIDENCE)
    damp, loud = (
        Answer("text", None, span, Cite(paper, span), evidence, "said") for span in (Span(0, 19), Span(20, 39))
    )
    assert weighed([damp, loud])[0].quote.quote.startswith("The walls")
    first, second = weighed([damp, loud], lambda texts: [float("loud" in t) for t in texts])
    assert first.quote.quote.startswith("The looms")
    assert first.worth == pytest.approx(weighed([damp])[0].worth)
    assert first.score > second.score


SURVEY = "SURVEY\n\nThe survey found rust on the west beams.\n\nThe survey found moss on the north roof."


@pytest.mark.parametrize(("near", "told"), [("", "rust"), ("rust", "rust"), ("moss", "moss")])
def test_of_two_passages_that_say_as_much_the_nearer_one_answers(tmp_path, document, monkeypatch, near, told):
    monkeypatch.setitem(VECTORS, "loud", NOISE)
    if near:
        monkeypatch.setitem(VECTORS, near, NOISE)
    place = (made(tmp_path / "model"), "mean") if near else None
    (asked,) = ask_all([document(SURVEY)], [("1", "Where did the survey find something loud?")], model=place)
    assert told in asked.findings[0][0].cites[0].quote


def test_as_a_user(tmp_path, yarnex):
    (tmp_path / "survey.txt").write_text("SURVEY\n\nThe survey found moisture in the west wall.\n")
    (tmp_path / "yarnex.toml").write_text('[find]\nmodel = "model"\n')
    told = yarnex("find", "What did the survey find?", "survey.txt")
    assert told.returncode == 2 and "no model.onnx" in told.stderr and "Traceback" not in told.stderr
    made(tmp_path / "model")
    told = yarnex("find", "What did the survey find?", "survey.txt", "--json")
    assert told.returncode == 0
    assert json.loads(told.stdout)["model"].endswith("model")
