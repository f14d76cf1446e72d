"""Names and codes."""

from sandboa.core.names import next_code


def test_codes_of_a_keepers_own_are_no_running_numbers() -> None:
    assert next_code(2026, ["26-a12", "26-04", "25-09", "26-"]) == "26-05"
