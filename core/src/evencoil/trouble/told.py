"""Which symptoms, in the trade's words, a played fault shows beside the sound circuit."""

from __future__ import annotations

from collections.abc import Iterator
from collections.abc import Set as AbstractSet

from evencoil.circuit import Circuit
from evencoil.rehearsal import opening_of
from evencoil.trouble.played import DRIVEN, Look, Seen

__all__ = ["symptoms_of"]

_OFF_BY_ITSELF = {"blown", "tripped"}
#: lines of a running motor that differ by more are felt and heard
_UNEVEN = 1.25


class _Told:
    """One fault beside the sound circuit, phase by phase."""

    def __init__(self, circuit: Circuit, seen: Seen, sound: Seen) -> None:
        self.looks, self.sound = seen.looks, sound.looks
        self.seen = seen
        kind = {item.id: item.type for item in circuit.netlist.devices}
        self.contactors = [one for one, type_ in kind.items() if type_ == "contactor"]
        self.coils = [
            one
            for one, type_ in kind.items()
            if type_ in {"contactor", "relay", "timer", "sdtimer"}
        ]
        self.lamps = [one for one, type_ in kind.items() if type_ == "lamp"]
        self.motors = [one for one, type_ in kind.items() if type_.startswith("motor")]
        self.mains = [act.on for act in opening_of(circuit)]
        self.fuses = [one for one, type_ in kind.items() if type_ == "fuse"]
        self.reliefs = [one for one, type_ in kind.items() if type_ in {"olr", "mms", "manual"}]
        self.starts = [number for number in (1, 2) if f"runs_{number}" in self.sound]
        motor_types = {kind[one] for one in self.motors}
        self.has_speeds = bool(motor_types & {"motor2s", "motor2w"})

    def in_(self, look: Look, devices: list[str], words: AbstractSet[str]) -> set[str]:
        return {one for one in devices if look.words.get(one) in words}

    def pair(self, phase: str) -> tuple[Look, Look] | None:
        if phase in self.looks and phase in self.sound:
            return self.looks[phase], self.sound[phase]
        return None

    def told(self) -> Iterator[str]:
        yield from self.everywhere()
        one_way: dict[int, set[str]] = {}
        for number in self.starts:
            one_way[number] = set(self.start(number))
        hurt = {number for number, found in one_way.items() if found}
        for number, found in one_way.items():
            if len(self.starts) > 1 and hurt == {number}:
                yield from self.one_sided(found)
            else:
                yield from found
        yield from self.other()

    def one_sided(self, found: set[str]) -> Iterator[str]:
        """Say it of the one direction or speed where the other is sound."""
        dead, hums = (
            ("one_speed_dead", "one_speed_hums_or_is_rough")
            if self.has_speeds
            else ("one_direction_dead", "one_direction_hums")
        )
        for one in found:
            if one in {"dead_no_lamps", "dead_lamps_on", "dead_contactor_in"}:
                yield dead
                if one == "dead_contactor_in":
                    yield one
            elif one in {"hums", "runs_rough"}:
                yield hums
            else:
                yield one

    def everywhere(self) -> Iterator[str]:
        for phase, look in self.looks.items():
            right = self.sound.get(phase)
            words = [look.words.get(one, "") for one in self.coils if one not in self.seen.silent]
            if "buzz" in words and not (right and "buzz" in right.words.values()):
                yield "contactor_growls"
            blown = self.in_(look, self.fuses, {"blown"})
            if blown and right is not None:
                yield "blows_fuse"
        if self.seen.chatters:
            yield "chatters"
        rest = self.pair("rest")
        if rest and self.in_(rest[0], self.motors, DRIVEN) - self.in_(rest[1], self.motors, DRIVEN):
            yield "starts_by_itself"
        long = self.looks.get("long")
        if long is not None and self.in_(long, self.reliefs, {"tripped"}):
            yield "trips_later"
            if self.in_(self.looks.get("later_1", long), self.motors, DRIVEN):
                yield "runs_hot"

    def lamps_said(self, number: int) -> Iterator[str]:
        phases = ["rest", f"held_{number}", f"runs_{number}"]
        sound = {
            one
            for phase in phases
            if phase in self.sound
            for one in self.in_(self.sound[phase], self.lamps, {"on"})
        }
        own = {
            one
            for phase in phases
            if phase in self.looks
            for one in self.in_(self.looks[phase], self.lamps, {"on", "dim"})
        }
        at_rest = self.in_(self.sound["rest"], self.lamps, {"on"})
        if own:
            yield "dead_lamps_on"
        elif at_rest:
            yield "dead_no_lamps"
        else:
            # no lamp is lit at rest in the sound one either: people say one or the other
            yield "dead_no_lamps"
            if not sound or sound - at_rest:
                yield "dead_lamps_on"

    def start(self, number: int) -> Iterator[str]:
        held, runs = self.pair(f"held_{number}"), self.pair(f"runs_{number}")
        if held is None or runs is None:
            return
        moves = [self.in_(pair[0], self.coils, {"1"}) for pair in (held, runs)]
        should = [self.in_(pair[1], self.coils, {"1"}) for pair in (held, runs)]
        driven = [self.in_(pair[0], self.motors, DRIVEN) for pair in (held, runs)]
        stuck = runs[1].turning - runs[0].turning
        due = [self.in_(pair[1], self.motors, DRIVEN) for pair in (held, runs)]
        at_rest = self.looks.get("rest")
        tripped = self.in_(runs[0], self.mains, _OFF_BY_ITSELF)
        before = self.in_(at_rest, self.mains, _OFF_BY_ITSELF) if at_rest else set()
        if tripped - before:
            yield "trips_at_once"
        elif not any(moves) and any(should):
            yield from self.lamps_said(number)
        elif due[1] & driven[1] & stuck:
            yield "hums"
        elif due[1] and not driven[1]:
            is_humming = bool(self.in_(runs[0], self.motors, {"hum"}))
            if is_humming or self.in_(held[0], self.motors, {"hum"}):
                yield "hums"
            else:
                yield from self.dead(number, moves, self.own(should[1]), driven[0])
        if due[1] and driven[1] - stuck:
            yield from self.way(runs)
        yield from self.change_over(number, driven[1])
        yield from self.even(number)
        yield from self.stop(number)
        if moves == should and driven == due and self.lit(0, held, runs) != self.lit(1, held, runs):
            yield "lamp_wrong"

    def lit(self, place: int, *pairs: tuple[Look, Look]) -> list[set[str]]:
        return [self.in_(pair[place], self.lamps, {"on"}) for pair in pairs]

    def dead(
        self, number: int, moves: list[set[str]], due: set[str], was_driven: set[str]
    ) -> Iterator[str]:
        """Tell how a motor that should run does not, though something moved."""
        if not was_driven and moves[1] >= due:
            yield "dead_contactor_in"
        elif was_driven or moves[0] > moves[1]:
            yield "runs_only_while_held"
        else:
            yield from self.lamps_said(number)

    def own(self, devices: set[str]) -> set[str]:
        return {one for one in devices if one in self.contactors}

    def way(self, runs: tuple[Look, Look]) -> Iterator[str]:
        turned = {"fwd": "rev", "rev": "fwd"}
        if any(
            turned.get(runs[1].words.get(one, "")) == runs[0].words.get(one) for one in self.motors
        ):
            yield "wrong_way"

    def change_over(self, number: int, driven: set[str]) -> Iterator[str]:
        runs, later = self.pair(f"runs_{number}"), self.pair(f"later_{number}")
        if runs is None or later is None:
            return
        before, after = (self.in_(pair[1], self.contactors, {"1"}) for pair in (runs, later))
        if before == after:
            yield from self.went_off(later[0], driven)
            return
        own = self.in_(later[0], self.contactors, {"1"})
        runs_now = self.in_(later[0], self.motors, DRIVEN)
        mains_off = self.in_(later[0], self.mains, _OFF_BY_ITSELF)
        if driven and own == self.in_(runs[0], self.contactors, {"1"}):
            yield "never_changes_over"
        elif driven and not runs_now:
            yield "drops_out_at_change_over"
            if mains_off:
                yield "trips_at_once"
        elif driven and own != after:
            yield "drops_out_at_change_over"
        elif not driven and runs_now and self.in_(runs[0], self.coils, {"1"}):
            yield "jumps_at_change_over"

    def went_off(self, later: Look, driven: set[str]) -> Iterator[str]:
        """Tell what took a motor off that has no change-over."""
        if driven and not self.in_(later, self.motors, DRIVEN):
            if self.in_(later, self.mains, _OFF_BY_ITSELF):
                yield "trips_at_once"
            elif self.in_(later, self.reliefs, {"tripped"}):
                yield "trips_later"

    def even(self, number: int) -> Iterator[str]:
        later = self.pair(f"later_{number}")
        if later is None:
            return
        if self.in_(later[0], self.motors, {"sp"}):
            yield from ("runs_rough", "runs_hot")
        amps = later[0].amps
        if len(amps) == 3 and min(amps) > 0.5 and max(amps) > _UNEVEN * min(amps):
            yield from ("runs_rough", "runs_hot")

    def stop(self, number: int) -> Iterator[str]:
        held, after = self.pair(f"stop_held_{number}"), self.pair(f"stopped_{number}")
        if held is None or after is None:
            return
        # a coasting motor is fed by nothing; a fed one stands for a stop that does not stop
        is_on = self.in_(held[0], self.motors, {*DRIVEN, "hum"})
        was = self.in_(self.looks[f"runs_{number}"], self.motors, {*DRIVEN, "hum"})
        if (is_on & was) - self.in_(held[1], self.motors, DRIVEN):
            yield "will_not_stop"
        elif self.in_(after[0], self.motors, DRIVEN) - self.in_(after[1], self.motors, DRIVEN):
            yield "stops_slowly_or_re_closes"

    def other(self) -> Iterator[str]:
        both = self.pair("other_1")
        if both is None or "later_1" not in self.looks:
            return
        words = self.looks["later_1"].words
        if not self.in_(self.looks["later_1"], self.motors, DRIVEN):
            return
        tripped = self.in_(both[0], self.mains, _OFF_BY_ITSELF)
        if tripped - {one for one in self.mains if words.get(one) in _OFF_BY_ITSELF}:
            yield "trips_when_the_other_button_is_pressed"
        moved = [
            self.in_(looks["other_1"], self.contactors, {"1"})
            - self.in_(looks["later_1"], self.contactors, {"1"})
            for looks in (self.looks, self.sound)
        ]
        if moved[0] and not moved[1]:
            yield "reverses_without_stop"


def symptoms_of(circuit: Circuit, seen: Seen, sound: Seen) -> frozenset[str]:
    """Return the symptoms that a played fault shows; empty if no one would notice.

    Parameters
    ----------
    circuit : Circuit
        As drawn or as found.
    seen : Seen
        With the fault.
    sound : Seen
        The same circuit without.
    """
    return frozenset(_Told(circuit, seen, sound).told())
