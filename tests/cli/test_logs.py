"""Lines of the log that come again and again are counted."""

import logging

from sandboa.cli.logs import SPAN_S, OncePerKind


class Clock:
    now_s = 0.0


def told(filtered: OncePerKind, line: int, text: str, *given: object) -> str | None:
    record = logging.LogRecord("sandboa", logging.WARNING, "here.py", line, text, given, None)
    return record.getMessage() if filtered.filter(record) else None


def test_a_line_comes_once_a_minute_and_then_says_how_often_it_came() -> None:
    filtered = OncePerKind(lambda: Clock.now_s)
    assert told(filtered, 1, "bad request from %s", "a") == "bad request from a"
    for number in range(1_000):
        assert told(filtered, 1, "bad request from %s", number) is None
    assert told(filtered, 2, "another line") == "another line"
    Clock.now_s = SPAN_S + 1
    said = told(filtered, 1, "bad request from %s", "b")
    assert said == "bad request from b (1000 more of these since the last)"
    Clock.now_s = 3 * SPAN_S
    assert told(filtered, 1, "bad request from %s", "c") == "bad request from c"
