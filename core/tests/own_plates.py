"""Nameplates of our own, each with the reading made of it by hand before the reader saw it.

Every entry is the text as stamped and the facts it gives, by the names of `stamped.facts_of`;
three-phase, one speed and 60 Hz are left out where they hold. Amps and speeds agree with the
power as on a usual motor.
"""

OWN: tuple[tuple[str, dict], ...] = (
    (
        "HP 3 VOLTS 208-230/460 AMPS 10.6-10.2/5.1 RPM 1750 HZ 60 PH 3 SF 1.0",
        {
            "hp": [3],
            "volts": [(208, 230, ""), (460, 460, "")],
            "amps": [(10.2, 10.6), (5.1, 5.1)],
            "rpm": [1750],
            "service_factor": [1],
        },
    ),
    (
        "5 HP 230/460V 13.2/6.6A 1745RPM 60HZ 3PH SF 1.15 USABLE AT 208 V 14.5 A",
        {
            "hp": [5],
            "volts": [(230, 230, ""), (460, 460, "")],
            "amps": [(13.2, 13.2), (6.6, 6.6)],
            "rpm": [1745],
            "service_factor": [1.15],
            "usable": [(208, 14.5)],
        },
    ),
    (
        "5 HP 230/460V 13.2/6.6A 1745RPM 60HZ 3PH SUITABLE FOR 208V",
        {
            "hp": [5],
            "volts": [(230, 230, ""), (460, 460, "")],
            "amps": [(13.2, 13.2), (6.6, 6.6)],
            "rpm": [1745],
            "usable": [(208, None)],
        },
    ),
    (
        "1/8 HP 115 V 3.0 A 1050 RPM 60 HZ 1 PH THERMALLY PROTECTED",
        {
            "kind": "single-phase",
            "phases": 1,
            "hp": [0.125],
            "volts": [(115, 115, "")],
            "amps": [(3, 3)],
            "rpm": [1050],
            "thermal": "protected",
        },
    ),
    (
        "0.1 HP 115V 2.2A 1550 RPM 60 HZ 1PH",
        {
            "kind": "single-phase",
            "phases": 1,
            "hp": [0.1],
            "volts": [(115, 115, "")],
            "amps": [(2.2, 2.2)],
            "rpm": [1550],
        },
    ),
    (
        "2 SPEED 1/4 HP 460 V 1.0/2.4 A 865/1740 RPM 60 HZ 3 PH VARIABLE TORQUE ONE WINDING 6 LEADS",
        {
            "speeds": 2,
            "hp": [1, 4],
            "volts": [(460, 460, "")],
            "amps": [(1, 1), (2.4, 2.4)],
            "rpm": [865, 1740],
            "torque": "variable-torque",
            "windings": 1,
            "leads": 6,
        },
    ),
    (
        "11 kW 50/60 Hz 400/460 V 21/21 A 1460/1765 min-1 3~ cos φ 0,85",
        {
            "kw": [11],
            "hz": [50, 60],
            "volts": [(400, 400, ""), (460, 460, "")],
            "amps": [(21, 21)],
            "rpm": [1460, 1765],
            "power_factor": [85],
        },
    ),
    (
        "50/60 HZ, 2850/3450 RPM, 3 PH, 380/440 V, 4.7 A, 2.2 KW",
        {
            "kw": [2.2],
            "hz": [50, 60],
            "volts": [(380, 380, ""), (440, 440, "")],
            "amps": [(4.7, 4.7)],
            "rpm": [2850, 3450],
        },
    ),
    (
        "Hz        50            60\nV         400 Δ         460 Δ\nkW        30            34,5\n"
        "A         55            55\nmin-1     1475          1775\n3~ IE3 IP55",
        {
            "hz": [50, 60],
            "kw": [30, 34.5],
            "volts": [(400, 400, "D"), (460, 460, "D")],
            "amps": [(55, 55)],
            "rpm": [1475, 1775],
        },
    ),
    (
        "400 V D / 690 V Y\n22 kW 41/23.8 A 50 Hz 1470 rpm 3~",
        {
            "hz": [50],
            "kw": [22],
            "volts": [(400, 400, "D"), (690, 690, "Y")],
            "amps": [(41, 41), (23.8, 23.8)],
            "rpm": [1470],
        },
    ),
    (
        "Δ 230 V 12,4 A\nY 400 V 7,1 A\n3 kW 50 Hz 1430 min-1 3~ cos φ 0,82 IP 55",
        {
            "hz": [50],
            "kw": [3],
            "volts": [(230, 230, "D"), (400, 400, "Y")],
            "amps": [(12.4, 12.4), (7.1, 7.1)],
            "rpm": [1430],
            "power_factor": [82],
        },
    ),
    (
        "CONDENSING UNIT 208/230V 1PH 60HZ COMPRESSOR RLA 14.1 LRA 77 FAN MOTOR 1/6 HP FLA 1.0\n"
        "MCA 18.6 MOCP 30",
        {
            "kind": "hermetic",
            "phases": 1,
            "volts": [(208, 208, ""), (230, 230, "")],
            "rla": [14.1],
            "lra": [77],
            "mca": 18.6,
            "mocp": 30,
        },
    ),
    (
        "MCA 26.1 MOCP 40 460 V 3 PH 60 HZ COMPRESSOR RLA 19.2 LRA 137",
        {
            "kind": "hermetic",
            "volts": [(460, 460, "")],
            "rla": [19.2],
            "lra": [137],
            "mca": 26.1,
            "mocp": 40,
        },
    ),
    (
        "5 HP 230 V 3 PH 60 HZ RLA 16.4 LRA 105",
        {"kind": "hermetic", "hp": [5], "volts": [(230, 230, "")], "rla": [16.4], "lra": [105]},
    ),
    (
        "18.5 kW 400/690 V 35/20.3 A 50 Hz 1470 rpm 3~ 3x PTC 155 °C SPACE HEATER 240V 50W",
        {
            "hz": [50],
            "kw": [18.5],
            "volts": [(400, 400, ""), (690, 690, "")],
            "amps": [(35, 35), (20.3, 20.3)],
            "rpm": [1470],
            "thermal": "thermistor",
            "accessories": ["space_heater", "thermistor"],
        },
    ),
    (
        "20 HP 460 V 24 A 1770 RPM 60 HZ 3 PH PTO P1-P2 SF 1.15",
        {
            "hp": [20],
            "volts": [(460, 460, "")],
            "amps": [(24, 24)],
            "rpm": [1770],
            "service_factor": [1.15],
            "thermal": "thermostat",
            "accessories": ["thermostat"],
        },
    ),
    (
        "WOUND ROTOR 75 HP 460 V 90 A 1170 RPM 60 HZ 3 PH SECONDARY 320 V 108 A",
        {
            "kind": "wound",
            "hp": [75],
            "volts": [(460, 460, "")],
            "amps": [(90, 90)],
            "rpm": [1170],
            "secondary": {"volts": 320, "amps": 108},
        },
    ),
    (
        "DC MOTOR 10 HP 500 VDC 17.0 A 1750 RPM SHUNT WOUND FIELD 300 V 0.9 A INS F",
        {
            "kind": "dc",
            "phases": 0,
            "hz": [],
            "hp": [10],
            "volts": [(500, 500, "")],
            "amps": [(17, 17)],
            "rpm": [1750],
            "field": {"volts": [300], "amps": [0.9]},
            "insulation": "F",
        },
    ),
    (
        "TWO SPEED TWO WINDING 30/20 HP 460 V 37/27 A 1770/1175 RPM 60 HZ 3 PH CONST TORQUE",
        {
            "speeds": 2,
            "hp": [30, 20],
            "volts": [(460, 460, "")],
            "amps": [(37, 37), (27, 27)],
            "rpm": [1770, 1175],
            "windings": 2,
            "torque": "constant-torque",
        },
    ),
    (
        "3~ 50 Hz 400 V Y/YY 0,7/3,0 kW 2,2/6,5 A 710/1430 min-1",
        {
            "speeds": 2,
            "hz": [50],
            "kw": [0.7, 3],
            "volts": [(400, 400, "Y"), (400, 400, "YY")],
            "amps": [(2.2, 2.2), (6.5, 6.5)],
            "rpm": [710, 1430],
            "torque": "variable-torque",
            "windings": 1,
        },
    ),
    (
        "HP 100 VOLTS 460 AMPS 115 RPM 1785 HZ 60 PH 3 SF 1.15 CODE G PART WINDING START 9 LEADS",
        {
            "hp": [100],
            "volts": [(460, 460, "")],
            "amps": [(115, 115)],
            "rpm": [1785],
            "service_factor": [1.15],
            "code": "G",
            "start": "part-winding",
            "leads": 9,
        },
    ),
    (
        "50 HP 460 V 60 A 1775 RPM 60 HZ 3 PH WYE START DELTA RUN 6 LEADS",
        {
            "hp": [50],
            "volts": [(460, 460, "")],
            "amps": [(60, 60)],
            "rpm": [1775],
            "start": "wye-delta",
            "leads": 6,
        },
    ),
    (
        "kW/HP 5.5/7.5 V 400 A 11.0 Hz 50 RPM 1445 PH 3 DUTY S1 EFF IE3 89.6% PF 0.81",
        {
            "hz": [50],
            "kw": [5.5],
            "hp": [7.5],
            "volts": [(400, 400, "")],
            "amps": [(11, 11)],
            "rpm": [1445],
            "duty": "continuous",
            "efficiency": [89.6],
            "power_factor": [81],
        },
    ),
    (
        "CRANE MOTOR 25 HP 460 V 38 A 1150 RPM 60 HZ 3 PH S4 40% DES D BRAKE 75 LB-FT 230 V",
        {
            "hp": [25],
            "volts": [(460, 460, "")],
            "amps": [(38, 38)],
            "rpm": [1150],
            "duty": "S4 40 %",
            "design": "D",
            "accessories": ["brake"],
        },
    ),
    (
        "HP 7.5 RPM 1750 V 230/460 A 20/10 PH 3 HZ 60 TIME 60 MIN AMB 40C",
        {
            "hp": [7.5],
            "volts": [(230, 230, ""), (460, 460, "")],
            "amps": [(20, 20), (10, 10)],
            "rpm": [1750],
            "duty": "60 min",
            "ambient": 40,
        },
    ),
    (
        "HP 3O V 46O A 36 RPM 177O HZ 6O PH 3",
        {"hp": [30], "volts": [(460, 460, "")], "amps": [(36, 36)], "rpm": [1770]},
    ),
    (
        "400 HP 2300 V 92 A 3570 RPM 60 HZ 3 PH SPACE HEATERS 120 V 300 W RTD 2/PHASE 100 OHM "
        "ALT 3300 FT",
        {
            "hp": [400],
            "volts": [(2300, 2300, "")],
            "amps": [(92, 92)],
            "rpm": [3570],
            "accessories": ["rtd", "space_heater"],
            "altitude": (3300, "ft"),
        },
    ),
    (
        "INVERTER DUTY 10 HP 460 V 12.4 A 1770 RPM 60 HZ 3 PH CT 3-60 HZ MAX SAFE RPM 5400",
        {
            "hp": [10],
            "volts": [(460, 460, "")],
            "amps": [(12.4, 12.4)],
            "rpm": [1770],
            "max_rpm": 5400,
        },
    ),
    (
        "VOLTS: 115/230 · AMPS: 9.8/4.9 · HP: 3/4 · RPM: 1725 · PH: 1 · HZ: 60 · SF: 1.25",
        {
            "kind": "single-phase",
            "phases": 1,
            "hp": [0.75],
            "volts": [(115, 115, ""), (230, 230, "")],
            "amps": [(9.8, 9.8), (4.9, 4.9)],
            "rpm": [1725],
            "service_factor": [1.25],
        },
    ),
    (
        "1~ 230 V 50 Hz 1,1 kW 7,4 A 1400 min-1 CB 30 µF 450 V",
        {
            "kind": "single-phase",
            "phases": 1,
            "hz": [50],
            "kw": [1.1],
            "volts": [(230, 230, "")],
            "amps": [(7.4, 7.4)],
            "rpm": [1400],
            "accessories": ["capacitor"],
        },
    ),
    (
        "SYNCHRONOUS MOTOR 300 HP 2300 V 62 A 1200 RPM 60 HZ 3 PH PF 1.0 EXC VOLTS 125 EXC AMPS 24",
        {
            "kind": "synchronous",
            "hp": [300],
            "volts": [(2300, 2300, "")],
            "amps": [(62, 62)],
            "rpm": [1200],
            "power_factor": [100],
            "field": {"volts": [125], "amps": [24]},
        },
    ),
    (
        "220-240/380-415 V Δ/Y 50 Hz 1.5 kW 5.9-6.2/3.4-3.6 A 1420 RPM 3~ S1 IP55",
        {
            "hz": [50],
            "kw": [1.5],
            "volts": [(220, 240, "D"), (380, 415, "Y")],
            "amps": [(5.9, 6.2), (3.4, 3.6)],
            "rpm": [1420],
            "duty": "continuous",
        },
    ),
)
