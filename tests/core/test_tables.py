"""Tables and palettes as files: what goes out comes in again, whatever a spreadsheet does to it."""

import csv
import io

import pytest
from hypothesis import given
from hypothesis import strategies as st

from wembit.core.colour import gimp_palette
from wembit.core.tables import (
    LONGEST_CELL,
    MOST_CELLS,
    MOST_COLUMNS,
    MOST_ROWS,
    Unreadable,
    number,
    read_table,
    write_table,
)

CELLS = st.text(
    st.characters(blacklist_categories=("Cs", "Cc"), whitelist_characters='",;\t\n'), min_size=1, max_size=8
)
ROWS = st.lists(st.lists(CELLS, min_size=3, max_size=3), min_size=1, max_size=5)


@given(ROWS)
def test_what_goes_out_comes_in_again(rows):
    rows = [row for row in rows if any(cell.strip() for cell in row)]
    text = write_table(["name", "drawer", "note"], rows)
    assert next(iter(csv.reader(io.StringIO(text, newline="")))) == ["name", "drawer", "note"]
    assert read_table(text.encode()).rows == rows


def test_lines_end_and_quotes_stand_as_the_standard_says():
    # RFC 4180, section 2: CRLF, quotes doubled, cells with commas and breaks quoted
    assert write_table(["a", "b"], [['say "x"', "1,5"], ["two\nlines", None]]) == (
        'a,b\r\n"say ""x""","1,5"\r\n"two\nlines",\r\n'
    )


@pytest.mark.parametrize(
    ("raw", "encoding", "mark"),
    [
        ("name,grams\nMöwe,3.5\n".encode(), "UTF-8", ","),
        ("\ufeffname;grams\r\nMöwe;3,5\r\n".encode(), "UTF-8", ";"),
        ("name;grams\nMöwe;3,5".encode("latin-1"), "Latin-1", ";"),
        ("name\tgrams\nMöwe\t3,5".encode("utf-16"), "UTF-16", "\t"),
    ],
)
def test_a_spreadsheets_ways_are_read_rightly(raw, encoding, mark):
    found = read_table(raw)
    assert (found.encoding, found.mark, found.head) == (encoding, mark, ["name", "grams"])
    assert found.rows[0][0] == "Möwe"
    assert number(found.rows[0][1]) == 3.5


@pytest.mark.parametrize("raw", [b"", b"\n\n", b'a,b\n"open,1\n', b"a\0b"])
def test_what_is_no_table_is_told(raw):
    with pytest.raises(Unreadable):
        read_table(raw)


@given(st.binary(max_size=200))
def test_no_bytes_break_the_reading(raw):
    try:
        found = read_table(raw)
    except Unreadable as trouble:
        assert str(trouble)
    else:
        assert all(len(row) <= len(found.head) for row in found.rows)
        assert all(found.cell(n, len(found.head) - 1) is not None for n in range(len(found.rows)))


@pytest.mark.parametrize(
    ("text", "value"),
    [("3", 3), ("3,5", 3.5), ("-3.5", -3.5), ("1.234,5", 1234.5), ("1,234.5", 1234.5), ("1 234,5", 1234.5),
     ("1.234.567", 1234567), ("  ", None), ("−2", -2)],
)  # fmt: skip
def test_numbers_with_comma_and_point(text, value):
    assert number(text) == value


@pytest.mark.parametrize("text", ["three", "1.2.3", "5 g", "--4", "1e5", "9" * 400])
def test_what_is_no_number_is_told(text):
    with pytest.raises(ValueError, match="no number"):
        number(text)


# --- palettes ---------------------------------------------------------------------------------------------------------

COLOURS = st.lists(
    st.tuples(
        st.integers(0, 0xFFFFFF).map(lambda n: f"#{n:06x}"), st.text(st.characters(categories=["L", "N"]), max_size=9)
    ),
    min_size=1,
)


@given(COLOURS)
def test_a_palette_comes_in_as_it_went_out(colours):
    assert gimp_palette.read_palette(gimp_palette.write_palette("Marsh greens", colours)) == ("Marsh greens", colours)


def test_a_palette_is_written_as_the_format_says():
    # the GIMP palette format: magic line, name, columns, then R G B and a name after a tab
    assert (
        gimp_palette.write_palette("Marsh", [("#6f7d43", "moss")])
        == "GIMP Palette\nName: Marsh\nColumns: 8\n#\n111 125  67\tmoss\n"
    )


def test_old_palettes_without_names_or_columns_are_read():
    assert gimp_palette.read_palette("GIMP Palette\n# made long ago\n0 0 0\n255 255 255 snow\n")[1] == [
        ("#000000", ""),
        ("#ffffff", "snow"),
    ]


@pytest.mark.parametrize(
    ("text", "said"),
    [("", "no GIMP palette"), ("GIMP Palette\n", "no colour"), ("GIMP Palette\n1 2\n", "Line 2"),
     ("GIMP Palette\n1 2 256 x", "Line 2"),
     ("GIMP Palette\n" + "1 2 3\n" * 2001, "2000 are the most")],
)  # fmt: skip
def test_what_is_no_palette_is_told(text, said):
    with pytest.raises(gimp_palette.Unreadable, match=said):
        gimp_palette.read_palette(text)


@pytest.mark.parametrize(
    ("raw", "said"),
    [
        (",".join(["a"] * (MOST_COLUMNS + 1)).encode(), "1,001 columns"),
        (b"a\n" * (MOST_ROWS + 2), "more than 200,000 rows"),
        ((b"a" + b",b" * 999 + b"\n") * (MOST_CELLS // 1_000 + 1), "more than 4,000,000 cells"),
        (b"a\n" + b"x" * (LONGEST_CELL + 1), "longer than 20,000"),
        (b"a\n" + b"x" * 200_000, "longer than 20,000"),
        ("name".encode("utf-16")[:-1], "cut off"),
    ],
)
def test_what_is_larger_than_a_studio_is_refused_before_anything_is_made_of_it(raw, said):
    with pytest.raises(Unreadable, match=said):
        read_table(raw)
