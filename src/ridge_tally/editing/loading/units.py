"""Units that are typed after kWh and kW."""

KWH, KW = {"": 1.0, "kwh": 1.0, "wh": 0.001}, {"": 1.0, "kw": 1.0, "w": 0.001}
