"""Which circuit of the catalogue a traced one is nearest to, and each difference.

Devices are paired by type, contacts by what they do, and the pairing is improved step
by step until no exchange makes it better. What is then joined in one and not in the
other is the difference. Contacts may lie either way round and on any number of their
kind: that is no difference.

Source: graph matching by local search, which may miss the best pairing but never counts
a difference that the pairing it gives does not have (textbook topic).
"""

from __future__ import annotations

from collections import Counter, defaultdict
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from itertools import combinations, permutations

from evencoil.base import Message, say
from evencoil.circuit.library import CONTACTS, Link, links_of
from evencoil.circuit.netlist import Device
from evencoil.circuit.text import Circuit

__all__ = ["Near", "nearest"]

#: types that do the same work in a circuit
_ALIKE = {
    "cb3": "isolating",
    "fdisc": "isolating",
    "isolator": "isolating",
    "motor3": "motor",
    "motor6": "motor",
    "motor": "motor",
    "motorpw": "motor",
    "motor2s": "motor",
    "motor2w": "motor",
    "motor1": "motor",
    "horn": "lamp",
}
_NO_COUNT = {"joint", "unknown_end", "tb"}
_ROUNDS = 6
_CANDIDATES = 6
_MOST_ORDERED = 4
#: what was traced and does not fit counts so many times what was not traced
_AGAINST = 3


@dataclass(frozen=True, slots=True)
class Near:
    """A circuit of the catalogue and how far a traced one is from it.

    Attributes
    ----------
    id : str
        Of the catalogue.
    fits : int
        Traced devices that have a place in it.
    against : tuple of Message
        What was traced and is not in it, in the traced circuit's own tags.
    lacking : tuple of Message
        What it has and was not traced: a difference, or not traced yet.
    """

    id: str
    fits: int
    against: tuple[Message, ...]
    lacking: tuple[Message, ...]

    @property
    def differences(self) -> tuple[Message, ...]:
        """Return every difference."""
        return (*self.against, *self.lacking)

    @property
    def score(self) -> int:
        """Return how many joins and devices differ; 0 is the same circuit."""
        return len(self.against) + len(self.lacking)

    @property
    def rank(self) -> int:
        """Return how badly it fits what was traced; what is not traced yet counts less."""
        return _AGAINST * len(self.against) + len(self.lacking)


def _kind(item: Device) -> str:
    return _ALIKE.get(item.type, item.type)


def _counted(circuit: Circuit) -> dict[str, list[Device]]:
    found: dict[str, list[Device]] = defaultdict(list)
    for item in circuit.netlist.devices:
        if item.type not in _NO_COUNT:
            found[_kind(item)].append(item)
    return found


def _used(circuit: Circuit, item: Device) -> list[Link]:
    """Return the contacts of a device that carry any wire."""
    wired = {end for wire in circuit.netlist.wires for end in (wire.start, wire.end)}
    return [
        link
        for link in links_of(item)
        if link.kind in CONTACTS and {f"{item.id}.{link.a}", f"{item.id}.{link.b}"} & wired
    ]


@dataclass(slots=True)
class _Pairing:
    """One way to lay a traced circuit over one of the catalogue."""

    known: Circuit
    traced: Circuit
    devices: dict[str, str]
    contacts: dict[tuple[str, str], list[int]] = field(default_factory=dict)
    turned: set[tuple[str, str]] = field(default_factory=set)
    known_nets: Mapping[str, int] = field(init=False)
    traced_nets: Mapping[str, int] = field(init=False)
    known_kinds: dict[str, Device] = field(init=False)
    traced_kinds: dict[str, Device] = field(init=False)
    used: dict[str, dict[str, list[Link]]] = field(init=False)
    traced_used: dict[str, dict[str, list[Link]]] = field(init=False)
    plain: dict[tuple[str, str], list[tuple[str, str, str]]] = field(default_factory=dict)

    def __post_init__(self) -> None:
        self.known_nets, self.traced_nets = self.known.netlist.nets(), self.traced.netlist.nets()
        self.known_kinds = {item.id: item for item in self.known.netlist.devices}
        self.traced_kinds = {item.id: item for item in self.traced.netlist.devices}
        self.used = {name: _by_kind(self.known, item) for name, item in self.known_kinds.items()}
        self.traced_used = {
            name: _by_kind(self.traced, item) for name, item in self.traced_kinds.items()
        }

    def order_of(self, known: str, kind: str, count: int) -> list[int]:
        """Return in which order the contacts of a kind are laid over the catalogue's."""
        order = self.contacts.get((known, kind), [])
        return order if len(order) == count else list(range(count))

    def terminals(self) -> dict[str, str]:
        """Return which terminal of the catalogue's circuit lies on which traced one."""
        found = {}
        for known, traced in self.devices.items():
            paired = self._contacts_of(known, traced)
            for end, name, match in self._plain_of(known, traced):
                turned = paired.get(end)
                if turned:
                    found[name] = f"{traced}.{turned}"
                elif match:
                    found[name] = match
        return found

    def _plain_of(self, known: str, traced: str) -> list[tuple[str, str, str]]:
        """Return the ends of a device, whole names, and what lies on each but for contacts."""
        if (known, traced) not in self.plain:
            item, other = self.known_kinds[known], self.traced_kinds[traced]
            mine = {
                end
                for links in self.used[known].values()
                for one in links
                for end in (one.a, one.b)
            }
            found = self.plain[known, traced] = []
            for place, end in enumerate(item.terminals):
                match = ""
                if end not in mine and end in other.terminals:
                    match = f"{traced}.{end}"
                elif _kind(item) == "motor" and place < len(other.terminals):
                    match = f"{traced}.{other.terminals[place]}"
                found.append((end, f"{known}.{end}", match))
        return self.plain[known, traced]

    def _contacts_of(self, known: str, traced: str) -> dict[str, str]:
        """Return which end of a device's contacts lies on which of its partner's."""
        paired: dict[str, str] = {}
        for kind, links in self.used[known].items():
            there = self.traced_used[traced].get(kind, [])
            order = self.order_of(known, kind, len(there))
            for link, place in zip(links, order, strict=False):
                match = there[place]
                is_turned = (known, link.name) in self.turned
                ends = (match.b, match.a) if is_turned else (match.a, match.b)
                paired[link.a], paired[link.b] = ends
        return paired

    def joins(self) -> tuple[list[tuple[str, str]], list[tuple[str, str]]]:
        """Return terminals that should be joined and are not, and those that should not."""
        paired = self.terminals()
        missing = _splits(paired, self.known_nets, self.traced_nets)
        back = {traced: known for known, traced in paired.items()}
        extra = [
            (back[one], back[other])
            for one, other in _splits(back, self.traced_nets, self.known_nets)
        ]
        return missing, extra

    def unlike(self) -> int:
        """Return how many joins differ."""
        missing, extra = self.joins()
        return len(missing) + len(extra)

    def score(self) -> int:
        """Return how many joins and used contacts differ."""
        return self.unlike() + self.unused()

    def unused(self) -> int:
        """Return how many contacts only one of the two uses."""
        return sum(len(found) for found in self.spare())

    def spare(self) -> tuple[list[str], list[str]]:
        """Return the contacts that only one of the two uses, as ``device.a-b`` by its side."""
        lacks, more = [], []
        for known, traced in self.devices.items():
            kinds = {*self.used[known], *self.traced_used[traced]}
            for kind in sorted(kinds):
                there = self.traced_used[traced].get(kind, [])
                here = self.used[known].get(kind, [])
                order = self.order_of(known, kind, len(there))
                lacks += [f"{traced}.{link.a}" for link in here[len(there) :]]
                more += [f"{traced}.{there[place].a}" for place in order[len(here) :]]
        return lacks, more


def _by_kind(circuit: Circuit, item: Device) -> dict[str, list[Link]]:
    found: dict[str, list[Link]] = defaultdict(list)
    for link in _used(circuit, item):
        found[link.kind].append(link)
    return found


def _splits(
    paired: Mapping[str, str], here: Mapping[str, int], there: Mapping[str, int]
) -> list[tuple[str, str]]:
    """Return pairs of terminals of one net here whose partners lie on two nets there."""
    groups: dict[int, dict[int, str]] = defaultdict(dict)
    found = []
    for terminal, partner in paired.items():
        seen = groups[here[terminal]]
        if seen and there[partner] not in seen:
            found.append((next(iter(seen.values())), terminal))
        seen.setdefault(there[partner], terminal)
    return found


def nearest(circuit: Circuit, known: Mapping[str, Circuit], most: int = 3) -> tuple[Near, ...]:
    """Return the circuits of a catalogue that a traced one is nearest to, nearest first.

    Parameters
    ----------
    circuit : Circuit
        As traced.
    known : mapping
        The catalogue, by id.
    most : int
        How many to return.
    """
    mine = {kind: len(items) for kind, items in _counted(circuit).items()}
    ranked = sorted(
        known.items(),
        key=lambda entry: _apart(mine, {k: len(v) for k, v in _counted(entry[1]).items()}),
    )
    found = [_near(name, other, circuit) for name, other in ranked[:_CANDIDATES]]
    return tuple(sorted(found, key=lambda one: one.rank)[:most])


def _apart(mine: Mapping[str, int], theirs: Mapping[str, int]) -> int:
    apart = [mine.get(kind, 0) - theirs.get(kind, 0) for kind in {*mine, *theirs}]
    return sum(count * _AGAINST if count > 0 else -count for count in apart)


def _near(name: str, known: Circuit, traced: Circuit) -> Near:
    theirs, mine = _counted(known), _counted(traced)
    starts = [_paired(known, traced, theirs, mine, by_touch=by_touch) for by_touch in (True, False)]
    pairing = min(
        (_improved(_Pairing(known, traced, devices)) for devices in starts),
        key=_Pairing.score,
    )
    partners = set(pairing.devices.values())
    lacking = [one for items in theirs.values() for one in items if one.id not in pairing.devices]
    more = [one for items in mine.values() for one in items if one.id not in partners]
    missing, extra = pairing.joins()
    paired = pairing.terminals()
    lacks, more_contacts = pairing.spare()

    def join(name: str, one: str, other: str) -> Message:
        ends = {"one": traced.said(paired[one]), "other": traced.said(paired[other])}
        return Message(f"near.{name}", ends)

    def item(name: str, tags: Mapping[str, str], one: Device) -> Message:
        called = say(Message(f"type.{one.type}"))
        return Message(f"near.{name}", {"tag": tags.get(one.id, one.id), "type": called})

    against = [join("extra", *ends) for ends in extra]
    against += [Message("near.contact_more", {"one": traced.said(end)}) for end in more_contacts]
    against += [item("more", traced.tags, one) for one in more]
    open_ = [join("missing", *ends) for ends in missing]
    open_ += [Message("near.contact_lacks", {"one": traced.said(end)}) for end in lacks]
    open_ += [item("lacks", known.tags, one) for one in lacking]
    return Near(name, len(pairing.devices), tuple(against), tuple(open_))


def _paired(
    known: Circuit,
    traced: Circuit,
    theirs: Mapping[str, Sequence[Device]],
    mine: Mapping[str, Sequence[Device]],
    *,
    by_touch: bool,
) -> dict[str, str]:
    """Return a first pairing: by what devices touch where that tells, else by their order."""
    devices: dict[str, str] = {}
    rounds = zip(reversed(_signatures(known)), reversed(_signatures(traced)), strict=True)
    for own, other in rounds if by_touch else ():
        taken = set(devices.values())
        waiting: dict[int, list[str]] = defaultdict(list)
        for item in (one.id for items in mine.values() for one in items):
            if item not in taken:
                waiting[other[item]].append(item)
        for item in (one.id for items in theirs.values() for one in items):
            if item not in devices and waiting[own[item]]:
                devices[item] = waiting[own[item]].pop(0)
    taken = set(devices.values())
    for kind in sorted({*theirs, *mine}):
        left = [one for one in _ranked(known, theirs.get(kind, [])) if one.id not in devices]
        right = [one for one in _ranked(traced, mine.get(kind, [])) if one.id not in taken]
        devices.update((one.id, match.id) for one, match in zip(left, right, strict=False))
    return devices


def _functions(item: Device) -> dict[str, str]:
    """Return what each terminal is for: contacts by what they do, either end alike."""
    found = {end: end for end in item.terminals}
    for link in reversed(links_of(item)):
        if link.kind in CONTACTS:
            found |= {link.a: link.kind, link.b: link.kind}
    return found


def _signatures(circuit: Circuit) -> list[dict[str, int]]:
    """Return what tells devices apart, round by round: by type, then by what they touch."""
    nets = circuit.netlist.nets()
    devices = [item for item in circuit.netlist.devices if item.type not in _NO_COUNT]
    found = [{item.id: hash(_kind(item)) for item in devices}]
    on: dict[int, list[tuple[str, str]]] = defaultdict(list)
    ends_of: dict[str, list[tuple[str, int]]] = {}
    for item in devices:
        functions = _functions(item)
        ends_of[item.id] = [(functions[end], nets[f"{item.id}.{end}"]) for end in item.terminals]
        for function, net in ends_of[item.id]:
            on[net].append((item.id, function))
    for _ in range(_ROUNDS):
        last = found[-1]
        at = {
            net: hash(tuple(sorted((last[name], function) for name, function in ends)))
            for net, ends in on.items()
            if len(ends) > 1
        }
        found.append(
            {
                item.id: hash(
                    (
                        last[item.id],
                        tuple(
                            sorted((function, at.get(net, 0)) for function, net in ends_of[item.id])
                        ),
                    )
                )
                for item in devices
            }
        )
    return found


def _ranked(circuit: Circuit, items: Sequence[Device]) -> list[Device]:
    """Return devices in an order that alike circuits share: by what they have and touch."""
    counted = Counter(
        end.rpartition(".")[0] for wire in circuit.netlist.wires for end in (wire.start, wire.end)
    )
    return sorted(
        items,
        key=lambda item: (
            sorted(link.kind for link in _used(circuit, item)),
            counted[item.id],
        ),
    )


def _improved(pairing: _Pairing) -> _Pairing:
    """Exchange devices, contacts and ends until nothing makes it better."""
    best = pairing.score()
    for _ in range(_ROUNDS):
        before = best
        best = _try_devices(pairing, best)
        best = _try_ends(pairing, best)
        best = _try_contacts(pairing, best)
        if best in {0, before}:
            break
    return pairing


def _try_devices(pairing: _Pairing, best: int) -> int:
    """Try every order of a few alike devices, each with its contacts turned to fit."""
    groups: dict[str, list[str]] = defaultdict(list)
    for known in pairing.devices:
        kinds = sorted(pairing.used[known])
        groups[f"{_kind(pairing.known_kinds[known])} {kinds}"].append(known)
    for names in groups.values():
        if not 1 < len(names) <= _MOST_ORDERED:
            continue
        partners = [pairing.devices[name] for name in names]
        kept, turned = partners, set(pairing.turned)
        for order in permutations(partners):
            pairing.devices.update(zip(names, order, strict=True))
            now = _try_ends(pairing, pairing.score(), names)
            if now < best:
                best, kept, turned = now, list(order), set(pairing.turned)
            pairing.turned = set(turned)
        pairing.devices.update(zip(names, kept, strict=True))
        pairing.turned = turned
    return best


def _try_ends(pairing: _Pairing, best: int, names: Sequence[str] = ()) -> int:
    unused = pairing.unused()  # turning a contact leaves it in use
    for known in names or pairing.devices:
        for links in pairing.used[known].values():
            for link in links:
                key = (known, link.name)
                pairing.turned ^= {key}
                now = pairing.unlike() + unused
                if now < best:
                    best = now
                else:
                    pairing.turned ^= {key}
    return best


def _try_contacts(pairing: _Pairing, best: int) -> int:
    for known, traced in pairing.devices.items():
        for kind in pairing.used[known]:
            count = len(pairing.traced_used[traced].get(kind, []))
            order = pairing.contacts[known, kind] = pairing.order_of(known, kind, count)
            for one, other in combinations(range(count), 2):
                order[one], order[other] = order[other], order[one]
                now = pairing.score()
                if now < best:
                    best = now
                else:
                    order[one], order[other] = order[other], order[one]
    return best
