"""How near two pieces of text are in meaning, by a sentence-embedding model that the user keeps on the machine.

In: a folder with `model.onnx` (ONNX: inputs input_ids, attention_mask and, where it has it, token_type_ids; output a vector a
word, or one a sentence) and `tokenizer.json`; then texts. Out: the cosine of their vectors, -1 to 1. Nothing is fetched: the
folder holds all that is needed.
"""

from __future__ import annotations

from collections.abc import Sequence
from functools import lru_cache
from pathlib import Path
from typing import Any

from yarnex.core.errors import YarnexError

MODEL, WORDS = "model.onnx", "tokenizer.json"
MOST_WORDS = 256  # pieces of words of a text that are looked at
INPUTS = ("input_ids", "attention_mask", "token_type_ids")


class SentenceModel:
    """A loaded model. Raises YarnexError, with what is wrong and what to do, where the folder holds none that serves."""

    def __init__(self, folder: Path, pooling: str = "mean") -> None:
        self._where = folder.as_posix()
        self._pooling = pooling
        for name in (MODEL, WORDS):
            if not (folder / name).is_file():
                raise YarnexError(f"no {name}", where=self._where, do=f"a model's folder holds {MODEL} and {WORDS}")
        self._tokenizer = self._loaded_tokenizer(folder / WORDS)
        self._session = self._loaded_session(folder / MODEL)
        self._inputs = [i.name for i in self._session.get_inputs()]
        if other := [name for name in self._inputs if name not in INPUTS]:
            raise YarnexError(
                f"{MODEL} asks for {', '.join(other)}", where=self._where, do=f"it may ask for {', '.join(INPUTS)} only"
            )
        names = [o.name for o in self._session.get_outputs()]
        self._output = "sentence_embedding" if "sentence_embedding" in names else names[0]
        self._known: dict[str, Any] = {}
        self._vector("words")

    def alike(self, text: str, others: Sequence[str]) -> list[float]:
        """How near each of the others is to a text: the cosine of their vectors."""
        one = self._vector(text)
        return [float(self._vector(other) @ one) for other in others]

    def _vector(self, text: str) -> Any:
        """The vector of a text, of length 1."""
        if text not in self._known:
            self._known[text] = self._made(text)
        return self._known[text]

    def _made(self, text: str) -> Any:
        import numpy as np

        ids = self._tokenizer.encode(text).ids or [0]
        given = {
            "input_ids": np.array([ids], np.int64),
            "attention_mask": np.ones((1, len(ids)), np.int64),
            "token_type_ids": np.zeros((1, len(ids)), np.int64),
        }
        try:
            (told,) = self._session.run([self._output], {name: given[name] for name in self._inputs})
        except Exception as error:  # whatever the engine raises for a graph that does not run
            raise YarnexError(f"{MODEL} does not run ({_first_line(error)})", where=self._where) from None
        if told.ndim == 3:
            told = told.mean(axis=1) if self._pooling == "mean" else told[:, 0]
        if told.ndim != 2:
            raise YarnexError(
                f"{MODEL} gives no vectors of words or sentences", where=self._where, do="name another model"
            )
        vector = np.asarray(told[0], np.float64)
        return vector / (np.linalg.norm(vector) or 1.0)

    def _loaded_tokenizer(self, file: Path) -> Any:
        try:
            from tokenizers import Tokenizer
        except ImportError:
            raise YarnexError(
                "a sentence-embedding model needs the library 'tokenizers'",
                where=self._where,
                do="install that library, or take the model out of yarnex.toml",
            ) from None
        try:
            tokenizer = Tokenizer.from_file(str(file))
        except Exception as error:  # it raises no class of its own
            raise YarnexError(f"{WORDS} cannot be used ({_first_line(error)})", where=self._where) from None
        tokenizer.no_padding()
        tokenizer.enable_truncation(MOST_WORDS)
        return tokenizer

    def _loaded_session(self, file: Path) -> Any:
        import onnxruntime

        options = onnxruntime.SessionOptions()
        options.intra_op_num_threads = 1  # the same sums in the same order: the same answers
        options.log_severity_level = 3
        try:
            return onnxruntime.InferenceSession(str(file), options, providers=["CPUExecutionProvider"])
        except Exception as error:  # the engine's own classes are not public
            raise YarnexError(f"{MODEL} cannot be used ({_first_line(error)})", where=self._where) from None


def _first_line(error: Exception) -> str:
    return (str(error).strip() or type(error).__name__).splitlines()[0][:200]


@lru_cache(maxsize=4)
def sentence_model(folder: Path, pooling: str = "mean") -> SentenceModel:
    """The model of a folder, loaded once a process. Raises YarnexError as SentenceModel does."""
    return SentenceModel(folder, pooling)
