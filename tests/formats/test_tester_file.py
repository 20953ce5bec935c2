"""A tester's own file of strings: names, units, decimal commas, and what is refused."""

import pytest

from ridge_tally.core.errors import FormatError
from ridge_tally.core.job.proving import ProofStep
from ridge_tally.formats.tester_file import read_tester

FILE = (
    b"Tester 7, invented\n"
    b"String;Voc (V);Isc (A);Riso (GOhm);Irradiance W/m2;Back temp C;Time\n"
    b"PV-A;-401,5;9,1;1,2;870;38;11:02\n"
    b"string b;398;9;0,5;905;40;11:09\n"
)


def test_each_step_has_its_strings_at_their_own_light() -> None:
    found = read_tester(FILE, "tester.csv", ("A", "B", "C"))
    told = {(r.step, r.places, r.typed, r.light, r.back, r.time) for r in found}
    # By hand: a gigaohm is a thousand megaohm; the sign of a voltage is its polarity.
    assert told == {
        (ProofStep.POLARITY, ("A",), ("-401.5",), "870", "38", "11:02"),
        (ProofStep.POLARITY, ("B",), ("398",), "905", "40", "11:09"),
        (ProofStep.VOC, ("A",), ("-401.5",), "870", "38", "11:02"),
        (ProofStep.VOC, ("B",), ("398",), "905", "40", "11:09"),
        (ProofStep.ISC, ("A",), ("9.1",), "870", "38", "11:02"),
        (ProofStep.ISC, ("B",), ("9",), "905", "40", "11:09"),
        (ProofStep.INSULATION, ("A",), ("1200",), "870", "38", "11:02"),
        (ProofStep.INSULATION, ("B",), ("500",), "905", "40", "11:09"),
    }


@pytest.mark.parametrize(
    ("content", "told"),
    [
        (FILE.replace(b"PV-A", b"PV-Q"), "row 3: the job has no string “PV-Q”"),
        (FILE.replace(b"9,1", b"high"), "row 3: “high” is no number"),
        (b"String;Remark\nA;fine\n", "no column is of open voltage"),
        (FILE.split(b"PV-A")[0], "there are none under the heading"),
    ],
)
def test_what_cannot_be_read_is_refused_in_words(content: bytes, told: str) -> None:
    with pytest.raises(FormatError) as caught:
        read_tester(content, "tester.csv", ("A", "B", "C"))
    assert told in str(caught.value)
