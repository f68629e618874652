"""Lines of G-code taken apart: a command and the numbers behind its letters, a row a line."""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from bridle.core.subjects.prints.compiled import compiled

# The letters whose numbers are kept, in the order of the columns; what else stands there changes no position.
LETTERS = b"XYZEFIJRPST"
X, Y, Z, E, F, I, J, R, P, S, T = range(len(LETTERS))  # noqa: E741
COLUMN = np.full(256, -1, np.int8)
for _at, _letter in enumerate(LETTERS):
    COLUMN[_letter] = _at
# Letters that a move may have besides: further axes, the third middle of an arc, hints.
OTHER = np.frombuffer(b"ABCDHKLQUVW", np.uint8)
# Commands from here on set something, ask or tell; what moves has a number below it.
SETTING = (ord("M") - 64) * 100_000 - 1
# What stands in `code` where no command does.
EMPTY, MODAL, WORD, BAD, TWICE, CHECKSUM = 0, 1, 2, -1, -2, -3


def code(letter: str, number: float) -> int:
    """A command as one number: G1 is 700010, G92.1 is 700921, M204 is 1302040."""
    return (ord(letter) - 64) * 100_000 + round(number * 10)


# Commands with free text behind them: its letters are no axes.
FREE = np.array([code("M", n) for n in (23, 28, 29, 30, 32, 33, 117, 118, 486, 928)], np.int64)


@dataclass(slots=True)
class Rows:
    """The lines of a piece of a file: where each begins (bytes), its command, its numbers, its comment (or -1).

    `wrong_at` is where a line that is not made of words goes wrong (bytes), -1 elsewhere. Shapes (lines,), and
    (lines, 11) for `values`, which are not numbers where a letter does not stand.
    """

    begins: NDArray[np.int64]
    code: NDArray[np.int64]
    values: NDArray[np.float64]
    comment: NDArray[np.int64]
    wrong_at: NDArray[np.int64]


def rows(piece: bytes) -> Rows:
    """Take whole lines apart; the last may lack its end."""
    if not piece:
        none = np.empty(0, np.int64)
        return Rows(none, none, np.empty((0, len(LETTERS))), none, none)
    text = np.frombuffer(piece, np.uint8)
    ends = np.flatnonzero(text == 10)
    begins = np.concatenate([[0], ends + 1])
    if begins[-1] == len(text):
        begins = begins[:-1]
    found = Rows(
        begins.astype(np.int64),
        np.zeros(len(begins), np.int64),
        np.full((len(begins), len(LETTERS)), np.nan),
        np.full(len(begins), -1, np.int64),
        np.full(len(begins), -1, np.int64),
    )
    _take_apart(text, found.begins, found.code, found.values, found.comment, found.wrong_at, COLUMN, FREE, OTHER)
    return found


@compiled
def _number(text, at, end):
    """A decimal number at a place: its value, the place behind it (the place itself where there is none)."""
    begun, sign, whole, scale, digits = at, 1.0, 0.0, 1.0, 0
    if at < end and (text[at] == 43 or text[at] == 45):
        sign = -1.0 if text[at] == 45 else 1.0
        at += 1
    while at < end and 48 <= text[at] <= 57:
        whole, digits, at = whole * 10 + (text[at] - 48), digits + 1, at + 1
    if at < end and text[at] == 46:
        at += 1
        while at < end and 48 <= text[at] <= 57:
            # Further digits than a float holds would only cost exactness.
            if digits < 17:
                whole, scale, digits = whole * 10 + (text[at] - 48), scale * 10, digits + 1
            at += 1
    if digits == 0:
        return 0.0, begun
    return sign * whole / scale, at


@compiled
def _upper(letter):
    return letter - 32 if 97 <= letter <= 122 else letter


@compiled
def _is_word(text, at, end):
    """Whether a letter with or without a number stands there, or one of the marks between them."""
    letter = _upper(text[at])
    if not 65 <= letter <= 90:
        return letter in (59, 40, 42, 61, 58, 44, 45)
    after = _upper(text[at + 1]) if at + 1 < end else 0
    return not (65 <= after <= 90 or after == 95)


@compiled
def _rest(text, at, end):
    """Where what stands behind a setting ends: at a comment or at a checksum."""
    while at < end and text[at] != 59 and text[at] != 42:
        at += 1
    return at


@compiled
def _take_apart(text, begins, codes, values, comment, wrong_at, column, free, other):
    for n in range(len(begins)):
        begin = begins[n]
        end = begins[n + 1] if n + 1 < len(begins) else len(text)
        while end > begin and (text[end - 1] == 10 or text[end - 1] == 13):
            end -= 1
        at, numbered = begin, False
        while at < end:
            letter = _upper(text[at])
            # A byte order mark is no letter; behind a setting there may be names, quotes and versions.
            if letter == 32 or letter == 9 or (n == 0 and at < 3 and letter in (239, 187, 191)):
                at += 1
            elif codes[n] > SETTING and (letter == 34 or not _is_word(text, at, end)):
                at = _rest(text, at, end)
            elif letter == 59:
                comment[n] = at
                break
            elif letter == 40:
                while at < end and text[at] != 41:
                    at += 1
                at += 1
            elif letter == 42:
                told, behind = _number(text, at + 1, end)
                summed = 0
                for k in range(begin, at):
                    summed ^= text[k]
                if behind == at + 1 or int(told) != summed:
                    codes[n], wrong_at[n] = -3, at
                at = max(behind, at + 1)
            elif 65 <= letter <= 90 or ((letter == 95 or letter == 64) and codes[n] == 0):
                # A word of several letters is a command of its own, whatever stands behind it.
                after = _upper(text[at + 1]) if at + 1 < end else 0
                if codes[n] == 0 and (letter == 95 or letter == 64 or 65 <= after <= 90 or after == 95):
                    codes[n] = 2
                    while at < end and text[at] != 59:
                        at += 1
                    continue
                number, behind = _number(text, at + 1, end)
                if letter == 78 and not numbered and codes[n] == 0:
                    numbered = True
                elif (letter == 71 or letter == 77) or (letter == 84 and codes[n] == 0):
                    if codes[n] != 0 or behind == at + 1:
                        codes[n], wrong_at[n] = (-2 if codes[n] > 0 else -1), at
                        break
                    codes[n] = (letter - 64) * 100000 + int(number * 10 + 0.5)
                    if (codes[n] == free).any():
                        while behind < end and text[behind] != 59 and text[behind] != 42:
                            behind += 1
                elif column[letter] >= 0:
                    if codes[n] == 0:
                        codes[n] = 1
                    if behind == at + 1 and (codes[n] == 1 or 700000 <= codes[n] <= 700030):
                        codes[n], wrong_at[n] = -1, at
                        break
                    values[n, column[letter]] = number
                elif (codes[n] == 1 or 700000 <= codes[n] <= 700030) and not (other == letter).any():
                    codes[n], wrong_at[n] = -1, at
                    break
                at = max(behind, at + 1)
            elif (codes[n] > 700030 and letter in (61, 58, 34, 44, 45)) or (codes[n] == 0 and letter == 37):
                at += 1
            else:
                codes[n], wrong_at[n] = -1, at
                break
