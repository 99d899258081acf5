"""Random edits of a start-stop circuit, for properties that hold whatever is edited."""

from circuit_play import circuit_of
from hypothesis import strategies as st

from evencoil.circuit.edits import Edit

BASE = circuit_of("3A")
DEVICES = [item for item in BASE.netlist.devices if item.id != "supply"]
TERMINALS = [f"{item.id}.{end}" for item in BASE.netlist.devices for end in item.terminals]
WIRES = [wire.id for wire in BASE.netlist.wires]
EDITS = st.lists(
    st.one_of(
        st.builds(
            lambda start, end, n: Edit(id=f"w{n}", kind="add_wire", start=start, end=end),
            st.sampled_from(TERMINALS),
            st.sampled_from(TERMINALS),
            st.integers(0, 5),
        ),
        st.builds(lambda wire: Edit(id="r", kind="remove_wire", wire=wire), st.sampled_from(WIRES)),
        st.builds(
            lambda wire, side, to: Edit(
                id="m",
                kind="move_end",
                wire=wire,
                start=wire.split("~")[side],
                end=to,
            ),
            st.sampled_from(WIRES),
            st.integers(0, 1),
            st.sampled_from(TERMINALS),
        ),
        st.builds(
            lambda item: Edit(id="d", kind="remove_device", device=item.id),
            st.sampled_from(DEVICES),
        ),
    ),
    max_size=6,
)
