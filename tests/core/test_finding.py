"""Names that answer what is sought: the name itself before its beginning, that before its words."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from sandboa.core.finding import Fit, fit


@pytest.mark.parametrize(
    ("name", "sought", "beside", "how"),
    [
        ("26-04", "26-04", "", Fit.NAME),
        ("Sorrel", "sorrel", "", Fit.NAME),
        ("North  top", " north   TOP ", "", Fit.NAME),
        ("26-04", "26", "", Fit.BEGINNING),
        ("Box 26-04", "26-04", "", Fit.WORDS),
        ("North top", "top nor", "", Fit.WORDS),
        ("26-04", "04", "", Fit.PART),
        ("26-04", "sorrel", "Sorrel and Flint", Fit.BESIDE),
        ("26-04", "sorrel 26", "Sorrel and Flint", Fit.BESIDE),
        ("26-04", "rue", "Sorrel and Flint", None),
        ("26-04", "26 rue", "Sorrel and Flint", None),
        ("26-04", "  ", "", None),
    ],
)
def test_how_well_a_name_answers(name: str, sought: str, beside: str, how: Fit | None) -> None:
    assert fit(name, sought, beside) is how


texts = st.text("ab -/", max_size=8)


@given(texts, texts, texts)
def test_words_beside_a_name_never_make_it_answer_worse(name: str, sought: str, more: str) -> None:
    alone, beside = fit(name, sought), fit(name, sought, more)
    if alone is not None:
        assert beside is alone


@given(texts, texts)
def test_whatever_is_found_has_every_word(name: str, sought: str) -> None:
    if fit(name, sought) is not None:
        assert all(word in name for word in sought.split())
