"""Notes: what may be written, how much of it a log shows, and what finds it."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from sandboa.core.errors import NotPlausible
from sandboa.core.notes import LONGEST_NOTE, beginning, clean_note, is_found


def test_plain_words_stay_as_they_were_written() -> None:
    assert clean_note("  Egg 3 leaks.  \r\n\r\nLook again.\n") == "Egg 3 leaks.\n\nLook again."
    assert clean_note("cafe\u0301 \u20ac 5 \U0001f95a") == "caf\u00e9 \u20ac 5 \U0001f95a"
    assert clean_note("a\x00b\x1b[31m\u202ec") == "ab[31mc"


@pytest.mark.parametrize("nothing", ["", "   ", "\n\t\n", "\x00", "x" * (LONGEST_NOTE + 1)])
def test_no_words_and_too_many_are_refused_at_their_field(nothing: str) -> None:
    with pytest.raises(NotPlausible) as refused:
        clean_note(nothing, "note")
    assert refused.value.field == "note"


def test_a_hundred_thousand_characters_are_counted_in_the_refusal() -> None:
    with pytest.raises(NotPlausible, match="100,000 characters are too many"):
        clean_note("x" * 100_000)


@given(st.text(max_size=400))
def test_a_clean_note_is_clean_already(text: str) -> None:
    try:
        once = clean_note(text)
    except NotPlausible:
        return
    assert clean_note(once) == once
    assert len(once) <= LONGEST_NOTE


def test_it_is_found_by_every_word_and_by_none() -> None:
    note = "Egg 3 smells of Vinegar"
    assert is_found(note, "vinegar egg")
    assert is_found(note, "VINE")
    assert is_found(note, "")
    assert not is_found(note, "vinegar mould")


def test_a_log_shows_its_beginning() -> None:
    assert beginning("short") == "short"
    assert beginning("first line\nsecond") == "first line \u2026"
    assert beginning("one two three", longest=9) == "one two \u2026"
    assert beginning("unbroken" * 20, longest=8) == "unbroken \u2026"
