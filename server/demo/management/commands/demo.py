"""``manage.py demo``: lay out Larkfall Lime Works, once, however often it is run."""

from __future__ import annotations

from decimal import Decimal
from typing import Any

from django.core.management.base import BaseCommand
from django.db import transaction

from demo.larkfall import (
    HEATERS,
    HEATERS_NAME,
    HEATERS_SOURCE,
    MOTORS,
    PASSWORD,
    PEOPLE,
    WORKS,
)
from demo.panels import AT_PANEL
from evencoil.leads import LeadsInputs
from evencoil.plate import PlateInputs, SupplyInputs
from evencoil.run_up import LoadInputs
from evencoil.sizing import FIELDS, SizeInputs, headers_of, read_heaters
from evencoil.starters import StarterInputs
from jobs.actions import AddMotor, GiveInputs, ReadPlate
from people.access import Caller
from people.models import Member, User, Works
from plant.heaters import ImportHeaters
from plant.models import HeaterChart, Motor


class Command(BaseCommand):
    help = "Lay out the demo works; what is there already stays as it is."

    @transaction.atomic
    def handle(self, *args: Any, **options: Any) -> None:
        works, _ = Works.objects.get_or_create(slug=WORKS["slug"], defaults=WORKS)
        callers = {}
        for username, (name, role) in PEOPLE.items():
            user, is_new = User.objects.get_or_create(
                username=username, defaults={"display_name": name}
            )
            if is_new:
                user.set_password(PASSWORD)
                user.save()
            Member.objects.get_or_create(user=user, works=works, defaults={"role": role})
            callers[username] = Caller(user=user, works=works, role=role)
        planner, fitter = callers["dov"], callers["marta"]
        for motor in MOTORS:
            if Motor.objects.filter(works=works, tag=motor.tag).exists():
                continue
            link = AddMotor(planner, tag=motor.tag, called=motor.name, machine=motor.machine).run()
            if motor.plate:
                ReadPlate(fitter, link, PlateInputs(text=motor.plate), 0).run()
            if motor.supply:
                GiveInputs(planner, link, "supply", SupplyInputs(text=motor.supply), 0).run()
            for person, step, model, told in (
                (fitter, "leads", LeadsInputs, motor.leads),
                (planner, "starter", StarterInputs, motor.starter),
                (planner, "load", LoadInputs, motor.load),
                (planner, "size", SizeInputs, motor.size),
            ):
                if told:
                    GiveInputs(person, link, step, model.model_validate(told), 0).run()
            if motor.panel:
                AT_PANEL[motor.panel](fitter, link)
        self._heaters(planner)
        self.stdout.write(f"{works.name}: {', '.join(PEOPLE)}")

    def _heaters(self, planner: Caller) -> None:
        """Keep the made-up heater chart once."""
        if HeaterChart.objects.filter(works=planner.works, name=HEATERS_NAME).exists():
            return
        names = dict(zip(FIELDS, headers_of(HEATERS), strict=True))
        chart, _ = read_heaters(
            HEATERS, names, name=HEATERS_NAME, source=HEATERS_SOURCE, factor=Decimal("0.9")
        )
        ImportHeaters(planner, chart).run()
