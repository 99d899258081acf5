"""What is refused, by hand from the words of docs/logic.md: code, line and column."""

import pytest

from evencoil.logic import (
    LogicError,
    Points,
    body_text,
    read_io_list,
    read_program,
    read_xml,
    write_xml,
    wrong_in,
)

HEAD = "VAR A, B : BOOL; N : INT; R : REAL; D : TIME; T1 : TON; C1 : CTU; S : SR; END_VAR\n"


@pytest.mark.parametrize(
    ("text", "code", "line", "column"),
    [
        ("A = B;", "syntax", 2, 3),
        ("A := (B AND I1;", "syntax", 2, 15),
        ("A := NOT NOT B;", "syntax", 2, 10),
        ("A := B", "syntax", 2, 7),
        ("IF A THEN B := A;", "syntax", 2, 18),
        ("A := B__C;", "syntax", 2, 6),
        ("A := B_;", "syntax", 2, 6),
        ("N := 8#9;", "syntax", 2, 6),
        ("N := 1__0;", "syntax", 2, 6),
        ("D := T#1s1m;", "syntax", 2, 6),
        ("D := T#1.5m3s;", "syntax", 2, 6),
        ("D := T#;", "syntax", 2, 6),
        ("T1(I1, T#1s);", "syntax", 2, 6),
        ("A := B ? I1;", "syntax", 2, 8),
        ("CASE N OF 1: END_CASE;", "syntax", 2, 14),
        ("WHILE A DO B := A; END_WHILE;", "unsupported", 2, 1),
        ("EXIT;", "unsupported", 2, 1),
        ("N := N ** 2;", "unsupported", 2, 8),
        ("N := ABS(N);", "unsupported", 2, 6),
        ("N := UINT#5;", "unsupported", 2, 6),
        ("A := Q9;", "undeclared", 2, 6),
        ("A := T1.X;", "undeclared", 2, 6),
        ("T1(INN := A);", "undeclared", 2, 4),
        ("N := FOO(N);", "undeclared", 2, 6),
        ("T1(IN := A);\nT1(IN := B);", "duplicate", 3, 1),
        ("T1(IN := A, IN := B);", "duplicate", 2, 13),
        ("CASE N OF 1..5: A := B; 3: A := I1; END_CASE;", "duplicate", 2, 25),
        ("A := N;", "type", 2, 6),
        ("N := R;", "type", 2, 6),
        ("A := B < I1;", "type", 2, 6),
        ("A := N = D;", "type", 2, 10),
        ("A := B AND N;", "type", 2, 12),
        ("A := (N + 1) AND B;", "type", 2, 6),
        ("D := D * 2;", "type", 2, 6),
        ("R := R MOD R;", "type", 2, 6),
        ("IF N THEN A := B; END_IF;", "type", 2, 4),
        ("CASE R OF 1: A := B; END_CASE;", "type", 2, 6),
        ("T1(PT := 5);", "type", 2, 10),
        ("A := T1;", "type", 2, 6),
        ("T1 := A;", "type", 2, 1),
        ("A(IN := B);", "type", 2, 1),
        ("I2 := A;", "readonly", 2, 1),
        ("AI1 := N;", "readonly", 2, 1),
        ("T1.IN := A;", "readonly", 2, 1),
        ("T1(Q := A);", "readonly", 2, 4),
        ("T1(Q => I1);", "readonly", 2, 9),
        ("N := 32768;", "range", 2, 6),
        ("N := 16#FFFF;", "range", 2, 6),
        ("D := T#25d;", "range", 2, 6),
        ("D := T#0.5ms;", "range", 2, 6),
        ("A := %IX1.0;", "range", 2, 6),
        ("A := %IX0.8;", "range", 2, 6),
        ("N := N MOD 0;", "divzero", 2, 12),
        ("R := R / 0.0;", "divzero", 2, 10),
        ("N := 1 / (0);", "divzero", 2, 10),
        # the form goes before the meaning, and the first of its kind before the others
        ("A := Nobody;\nB := ;", "syntax", 3, 6),
        ("A := Nobody;\nB := N;", "undeclared", 2, 6),
    ],
)
def test_first_refusal(text, code, line, column):
    """Behind a declaration line, so that places are those of the second line on."""
    with pytest.raises(LogicError) as refused:
        read_program(HEAD + text)
    found = refused.value
    assert (found.code, found.line, found.column) == (code, line, column)


@pytest.mark.parametrize(
    ("text", "code", "column"),
    [
        ("VAR A : BOOL; a : INT; END_VAR", "duplicate", 15),
        ("VAR I1 : BOOL; END_VAR", "duplicate", 5),
        ("VAR A : DINT; END_VAR", "unsupported", 9),
        ("VAR A : ARRAY; END_VAR", "unsupported", 9),
        ("VAR RETAIN T : TON; END_VAR", "unsupported", 16),
        ("VAR RETAIN R : R_TRIG; END_VAR", "unsupported", 16),
        ("VAR A AT %IX0.0 : INT; END_VAR", "type", 10),
        ("VAR A AT %QX0.0 : BOOL; B AT %Q0.0 : BOOL; END_VAR", "duplicate", 30),
        ("VAR A AT %QX9.0 : BOOL; END_VAR", "range", 10),
        ("VAR A : BOOL := 1; END_VAR", "type", 17),
        ("VAR N : INT := 1.5; END_VAR", "type", 16),
        ("VAR N : INT := -32769; END_VAR", "range", 17),
        ("VAR CONSTANT Z : INT := 0; END_VAR N := 1;", "undeclared", 36),
        ("VAR IF : BOOL; END_VAR", "syntax", 5),
    ],
)
def test_declarations(text, code, column):
    """On the first line."""
    found = wrong_in(text)[0]
    assert (found.code, found.line, found.column) == (code, 1, column)


@pytest.mark.parametrize(
    "text",
    [
        "VAR RETAIN N : INT; C : CTU; S : SR; R : RS; END_VAR",
        "VAR CONSTANT Ten : INT := 10; END_VAR VAR N : INT; END_VAR N := 100 / Ten;",
        "VAR N : INT := -32768; END_VAR N := -32768;",
        "VAR R : REAL; N : INT; END_VAR R := N; N := REAL_TO_INT(R);",
        "VAR Start AT %IX0.0 : BOOL; END_VAR Q1 := Start AND I1;",
        "(* a (* b *) c *) /* d /* e */ f */ Q1 := I1; // g",
        "Q1 := I1;;;",
        "PROGRAM Pump Q1 := I1; END_PROGRAM",
        "q1 := i1 & not I2;",
        "Q1 := BOOL#1;",
        "",
    ],
)
def test_what_is_taken(text):
    """Each of these can be run."""
    assert wrong_in(text) == ()


def test_limits_at_their_edges():
    """As many as are allowed, and one more."""
    assert wrong_in("Q1 := I1;\n" * 2000) == ()
    assert wrong_in("Q1 := I1;\n" * 2001)[0].line == 2001
    assert wrong_in(f"Q1 := {'(' * 32}I1{')' * 32};") == ()
    deep = wrong_in(f"Q1 := {'(' * 33}I1{')' * 33};")[0]
    assert (deep.code, deep.column) == ("limit", 7 + 32)
    assert wrong_in("Q1 := " + " OR ".join(["I1"] * 1001) + ";") == ()
    wide = wrong_in("Q1 := " + " OR ".join(["I1"] * 1002) + ";")[0]
    assert wide.code == "limit"
    nested = "IF I1 THEN " * 33 + "Q1 := I2;" + " END_IF;" * 33
    assert wrong_in(nested)[0].code == "limit"
    long = wrong_in(" " * 262_145)[0]
    assert (long.code, long.column) == ("limit", 262_145)


def test_one_break_for_each_line():
    """CR LF counts once."""
    assert wrong_in("Q1 := I1;\r\nQ2 := ;")[0].line == 2


def ladder(body, space="http://www.plcopen.org/xml/tc6_0201", more=""):
    """Return a file with a ladder."""
    return (
        f'<project xmlns="{space}"><fileHeader/><contentHeader name="x"/>\n<types><dataTypes/><pous>'
        f'<pou name="Main" pouType="program"><interface/>\n<body><LD>\n'
        f'<leftPowerRail localId="1"><connectionPointOut/></leftPowerRail>\n{body}\n</LD></body>'
        f"</pou>{more}</pous></types></project>"
    ).encode()


def contact(number, *sources, name="I1", more=""):
    """Return a contact behind others."""
    wires = "".join(f'<connection refLocalId="{one}"/>' for one in sources)
    return (
        f'<contact localId="{number}" {more}><connectionPointIn>{wires}</connectionPointIn>'
        f"<connectionPointOut/><variable>{name}</variable></contact>"
    )


def coil(number, *sources):
    """Return a coil behind contacts."""
    return contact(number, *sources, name="Q1").replace("contact", "coil")


@pytest.mark.parametrize(
    ("data", "code", "line"),
    [
        (b"<project", "xml-syntax", 1),
        (b"<a/>", "xml-namespace", 1),
        (ladder("", space="http://other"), "xml-namespace", 1),
        (ladder("<jump localId='2'/>"), "xml-element", 5),
        (ladder(contact(2, 9) + coil(3, 2)), "xml-reference", 5),
        (ladder(contact(2, 1) + contact(2, 1)), "xml-reference", 5),
        (ladder(contact(2, 3) + "\n" + contact(3, 2) + "\n" + coil(4, 3)), "xml-reference", 6),
        (ladder(contact(2, 1)), "xml-reference", 5),
        (ladder(coil(2, 1) + coil(3, 2)), "xml-reference", 5),
        # a bridge: the middle contact hangs between two branches
        (
            ladder(
                contact(2, 1)
                + contact(3, 1)
                + contact(4, 2)
                + contact(5, 2, 3)
                + "\n"
                + coil(6, 4, 5)
            ),
            "xml-reference",
            6,
        ),
        (ladder("", more='<pou name="F" pouType="function"/>'), "xml-element", 6),
        (("<a>" * 70 + "</a>" * 70).encode(), "xml-limit", 1),
        (b" " * (2 * 1024 * 1024 + 1), "xml-limit", 1),
    ],
)
def test_files_that_are_not_taken(data, code, line):
    """With the line in the file."""
    with pytest.raises(LogicError) as refused:
        read_xml(data)
    assert (refused.value.code, refused.value.line) == (code, line)


def test_an_edge_of_a_contact_becomes_a_block():
    """Declared, called ahead of its network, and read there."""
    made = read_xml(ladder(contact(2, 1, more='edge="rising"') + coil(3, 2)))
    assert made.symbol("Edge1").type == "R_TRIG"
    assert [type(one).__name__ for one in made.program.statements] == ["Call", "Assign"]


@pytest.mark.parametrize(
    ("text", "body"),
    [
        ("Q1 := I1; (* why *)\n", "Q1 := I1; (* why *)"),
        ("VAR A : BOOL; END_VAR\n(* END_VAR *)\nA := I1;\n", "(* END_VAR *)\nA := I1;"),
        ("PROGRAM P\nVAR A : BOOL; END_VAR A := I1;\n// end\nEND_PROGRAM\n", " A := I1;\n// end"),
        ("PROGRAM P Q1 := I1; END_PROGRAM", " Q1 := I1; "),
    ],
)
def test_a_file_keeps_the_comments_of_the_body(text, body):
    """As it stands behind the declarations; read again it is the same program."""
    assert body_text(text) == body
    checked = read_program(text)
    assert read_xml(write_xml(checked, "ST", body_text(text))).program == checked.program


def test_an_io_list():
    """Names by point; an unknown column, point or a point twice is refused with its line."""
    lines = read_io_list("point,name,device\nI1,Stop,S1\nq1,Main,KM1\n")
    assert [(one.point, one.name) for one in lines] == [("I1", "Stop"), ("Q1", "Main")]
    for text, code, line in (
        ("name\nStop\n", "csv", 1),
        ("point,color\nI1,red\n", "csv", 1),
        ("point\nI1\nI9\n", "undeclared", 3),
        ("point\nI1\ni1\n", "duplicate", 3),
    ):
        with pytest.raises(LogicError) as refused:
            read_io_list(text, Points())
        assert (refused.value.code, refused.value.line) == (code, line)
