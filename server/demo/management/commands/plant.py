"""``manage.py plant 300``: Larkfall Lime Works as a whole plant, motors by rule."""

from __future__ import annotations

from typing import Any

from django.core.management.base import BaseCommand, CommandParser
from django.db import transaction

from demo.larkfall import PEOPLE
from demo.plant import PLANT, PlantMotor, plant_motors
from evencoil.leads import LeadsInputs
from evencoil.plate import PlateInputs, SupplyInputs
from evencoil.sizing import SizeInputs
from evencoil.starters import StarterInputs
from jobs.actions import AddMotor, GiveInputs, ReadPlate
from people.access import Caller
from people.models import Member, User, Works
from plant.models import Motor


class Command(BaseCommand):
    """Lay out the whole plant; motors that are there already stay as they are."""

    help = "Lay out a plant of so many motors; `demo` comes first."

    def add_arguments(self, parser: CommandParser) -> None:
        """Take how many motors."""
        parser.add_argument("count", type=int)

    def handle(self, *args: Any, **options: Any) -> None:
        """Add the people of the demo and the motors."""
        del args
        works, _ = Works.objects.get_or_create(slug=PLANT["slug"], defaults=PLANT)
        callers = {}
        for username, (_, role) in PEOPLE.items():
            user = User.objects.get(username=username)
            Member.objects.get_or_create(user=user, works=works, defaults={"role": role})
            callers[username] = Caller(user=user, works=works, role=role)
        there = set(Motor.objects.filter(works=works).values_list("tag", flat=True))
        for motor in plant_motors(options["count"]):
            if motor.tag not in there:
                self._add(callers["dov"], motor)
        self.stdout.write(f"{works.name}: {works.motors.count()} motors")

    @transaction.atomic
    def _add(self, who: Caller, motor: PlantMotor) -> None:
        link = AddMotor(
            who, tag=motor.tag, called=motor.name, machine=motor.machine, panel=motor.panel
        ).run()
        ReadPlate(who, link, PlateInputs(text=motor.plate), 0).run()
        GiveInputs(who, link, "supply", SupplyInputs.model_validate(motor.supply), 0).run()
        GiveInputs(who, link, "leads", LeadsInputs.model_validate(motor.leads), 0).run()
        GiveInputs(who, link, "size", SizeInputs.model_validate(motor.size), 0).run()
        GiveInputs(who, link, "starter", StarterInputs.model_validate(motor.starter), 0).run()
