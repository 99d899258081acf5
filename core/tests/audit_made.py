"""A job in which everything is entered and holds: audits change one thing of it."""

from evencoil.job import JobInputs

PLATE = "25 HP, 460 V, 32 A, 1765 RPM, 60 HZ, 3 PH, SF 1.15, CODE G, DES B, 3 LEADS"
SIZE = {
    "protection_kind": "dual_element_fuse",
    "conductor_material": "cu",
    "insulation": "THWN",
    "ambient_c": "30",
    "current_carrying": 3,
    "termination_c": 75,
    "existing": {
        "cable": "raceway",
        "cable_size": "8",
        "terminal_c": 75,
        "device_a": "60",
        "trip_a": "39",
    },
    "fault": {"device_ka": "10", "starter_ka": "10"},
    "place": {
        "motor_ft": "20",
        "motor_visible": True,
        "controller_ft": "5",
        "controller_visible": True,
    },
}
GOOD = {
    "plate": {"text": PLATE},
    "supply": {"text": "480Y/277 60 Hz", "fault_current_a": "8000"},
    "leads": {
        "winding": "3-wye",
        "joints": [
            {"id": "L1", "line": "L1", "leads": ["T1"]},
            {"id": "L2", "line": "L2", "leads": ["T2"]},
            {"id": "L3", "line": "L3", "leads": ["T3"]},
        ],
    },
    "size": SIZE,
}


def job(**parts):
    """Return the good job with some of its inputs otherwise, one level deep."""
    body = {step: dict(given) for step, given in GOOD.items()}
    for path, value in parts.items():
        step, _, rest = path.partition("__")
        if not rest:
            body[step] = value
            continue
        name, _, inner = rest.partition("__")
        body[step][name] = {**body[step][name], inner: value} if inner else value
    return JobInputs.model_validate(body)
