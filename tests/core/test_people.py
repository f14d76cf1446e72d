"""Who may do what, and what makes a passphrase."""

import unicodedata

import pytest
from hypothesis import given
from hypothesis import strategies as st

from sandboa.core.errors import NotPlausible
from sandboa.core.people import (
    LONGEST_PASSPHRASE,
    SHORTEST_PASSPHRASE,
    Deed,
    Role,
    as_typed,
    clean_passphrase,
    may,
    refusal,
)


def test_a_keeper_runs_the_house_a_helper_records_a_visitor_looks() -> None:
    allowed = {role: {deed for deed in Deed if may(role, deed)} for role in Role}
    assert allowed == {
        Role.KEEPER: {Deed.LOOK, Deed.RECORD, Deed.RUN},
        Role.HELPER: {Deed.LOOK, Deed.RECORD},
        Role.VISITOR: {Deed.LOOK},
    }
    assert "keepers and helpers" in refusal(Deed.RECORD)
    assert "only a keeper" in refusal(Deed.RUN)


@pytest.mark.parametrize(
    ("phrase", "why"),
    [
        ("eleven char", "at least 12"),
        ("            ", "at least 12"),
        ("abababababababab", "over and over"),
        ("abdacbdcabdcacbd", "over and over"),
        ("Rowan of the house", "guessed soon"),
        ("rowan rowan rowan", "guessed soon"),
        ("password1234", "guessed soon"),
        ("Sandboa Sandboa", "guessed soon"),
        ("qwertyuiop asdfgh", "guessed soon"),
        ("x" * (LONGEST_PASSPHRASE + 1), "do not fit"),
    ],
)
def test_what_is_no_secret_is_refused_with_the_reason(phrase: str, why: str) -> None:
    with pytest.raises(NotPlausible, match=why):
        clean_passphrase(phrase, "rowan of the House")


@given(st.text(min_size=SHORTEST_PASSPHRASE, max_size=LONGEST_PASSPHRASE))
def test_a_passphrase_is_the_same_however_its_letters_are_composed(phrase: str) -> None:
    assert as_typed(unicodedata.normalize("NFD", phrase)) == as_typed(phrase)
    try:
        kept = clean_passphrase(phrase, "Rowan")
    except NotPlausible:
        return
    # What is kept is what typing it later gives.
    assert kept == as_typed(phrase)
