"""Calendar files by RFC 5545: what is written can be read again, line by line."""

import datetime as dt
import re

from hypothesis import given
from hypothesis import strategies as st

from wembit.core.icalendar import LINE_OCTETS, Day, calendar, escaped, folded

NOW = dt.datetime(2026, 11, 29, 9, 30, tzinfo=dt.UTC)
TEXT = st.text(st.characters(exclude_categories=["Cs", "Cc"]), max_size=200)


def unfolded(text):
    """RFC 5545, 3.1: a break and one space or tab are taken out."""
    return re.sub("\r\n[ \t]", "", text)


def unescaped(value):
    return re.sub(r"\\(.)", lambda found: "\n" if found[1] in "nN" else found[1], value)


def test_the_example_of_the_text_value():
    """RFC 5545, 3.3.11, recalled from memory."""
    told = "Project XYZ Final Review\nConference Room - 3B\nCome Prepared."
    assert escaped(told) == r"Project XYZ Final Review\nConference Room - 3B\nCome Prepared."
    assert escaped("a; b, c\\d\x00") == r"a\; b\, c\\d"


@given(TEXT)
def test_no_line_is_longer_than_75_octets_and_nothing_is_lost(text):
    line = f"SUMMARY:{text}"
    parts = folded(line).split("\r\n")
    assert all(len(part.encode()) <= LINE_OCTETS for part in parts)
    assert unfolded(folded(line)) == line


DAYS = st.builds(Day, st.uuids().map(str), st.dates(dt.date(2000, 1, 1), dt.date(2100, 1, 1)), TEXT, TEXT)


@given(st.lists(DAYS, max_size=5))
def test_every_day_can_be_read_again(days):
    text = calendar("Saltgrass", days, NOW)
    assert text.endswith("END:VCALENDAR\r\n")
    assert "\n" not in text.replace("\r\n", "")
    lines = unfolded(text).split("\r\n")
    assert lines[:3] == ["BEGIN:VCALENDAR", "VERSION:2.0", lines[2]]
    assert lines[2].startswith("PRODID:")
    events = unfolded(text).split("BEGIN:VEVENT\r\n")[1:]
    assert len(events) == len(days)
    for event, day in zip(events, days, strict=True):
        found = dict(line.split(":", 1) for line in event.split("\r\n") if ":" in line)
        assert found["UID"] == day.uid
        assert found["DTSTAMP"] == "20261129T093000Z"
        assert found["DTSTART;VALUE=DATE"] == day.date.strftime("%Y%m%d")
        assert unescaped(found["SUMMARY"]) == day.words
        assert unescaped(found.get("DESCRIPTION", "")) == day.more
