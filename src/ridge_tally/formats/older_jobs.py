"""Documents of earlier versions brought to the newest, as plain values before they are judged."""

from typing import Any

from ridge_tally.core.job.document import DOCUMENT_VERSION

Plain = dict[str, Any]
# What the number of a generic DC input begins with.
DC_INPUT = "dc-input-"
GAPS = ("gap_in_row_m", "gap_between_rows_m")


def brought_up(data: Plain) -> Plain:
    """Return a job file's plain values as the newest version writes them.

    Version 2 added the brief, the service and more of the site; all of it may be missing.
    Version 3 made outlines of a sketch and its readings, and setbacks of six kinds of edge.
    Version 4 gave each module its own way round, and gaps the text they were typed as.
    Version 5 added the weather, mountings and crown shapes; all of it may be missing.
    Version 6 added ageing, derating and warming to datasheets; all of it may be missing.
    Version 7 added own rules, more inverters, boxes and safety; all of it may be missing.
    Version 8 added prices, origins and nominal watts to datasheets; all of it may be missing.
    Version 9 added the household's day, batteries and the bench; all of it may be missing.
    Version 10 marks generic DC inputs, which were inverters without an efficiency before.
    What does not look like an old document is left for the reader to refuse.
    """
    job = data.get("job")
    if not isinstance(job, dict) or job.get("version") not in range(1, DOCUMENT_VERSION):
        return data
    if "equipment" in job:
        job = {**job, "equipment": _equipment(job["equipment"])}
    if job["version"] >= 4:
        return {**data, "job": {**job, "version": DOCUMENT_VERSION}}
    survey = job.get("survey")
    outlined = job["version"] == 3
    if not outlined and isinstance(survey, dict) and isinstance(survey.get("planes"), list):
        job = {**job, "survey": {**survey, "planes": [_plane(p) for p in survey["planes"]]}}
    options = job.get("options")
    if isinstance(options, list):
        job = {**job, "options": [_option(o) for o in options]}
    return {**data, "job": {**job, "version": DOCUMENT_VERSION}}


def _equipment(old: Any) -> Any:
    try:
        inverters = [{**i, "dc_only": i["id"].startswith(DC_INPUT)} for i in old["inverters"]]
    except (AttributeError, KeyError, TypeError):
        return old
    return {**old, "inverters": inverters}


def _option(option: Any) -> Any:
    try:
        return {**option, "arrays": [_array(a) for a in option.get("arrays", [])]}
    except (AttributeError, KeyError, TypeError):
        return option


def _array(old: Plain) -> Plain:
    """Return an array of one orientation as modules that each have it."""
    array = {k: v for k, v in old.items() if k not in ("orientation", *GAPS)}
    gaps = {k.removesuffix("_m"): _gap(old[k]) for k in GAPS}
    modules = [{**m, "orientation": old["orientation"]} for m in old["modules"]]
    return {**array, **gaps, "modules": modules}


def _gap(gap_m: float) -> Plain:
    return {"value_m": gap_m, "typed": f"{gap_m * 1000:g} mm"}


def _plane(plane: Any) -> Any:
    try:
        strips = plane["setbacks"]
        wide, narrow = strips["ridge"], strips["rake"]
        setbacks = {**strips, "hip": wide, "valley": wide, "wall": narrow}
        return {**plane, "outline": _outline(plane["outline"]), "setbacks": setbacks}
    except (KeyError, TypeError):
        return plane


def _outline(old: Plain) -> Plain:
    """Return a trapezoid as the readings it was typed from."""
    eave, ridge, height, inset = (old[k] for k in ("eave", "ridge", "height", "ridge_left"))
    left_m, right_m = inset["value_m"], inset["value_m"] + ridge["value_m"]
    top_m = height["value_m"]
    corners = [(0.0, 0.0), (eave["value_m"], 0.0), (right_m, top_m), (left_m, top_m)]
    square = left_m == 0 and ridge["value_m"] == eave["value_m"]
    readings = [_reading("side", [0], eave)]
    if square:
        readings += [_reading("side", [3], _along_slope(height))]
        readings += [_reading("right_angle", [c]) for c in range(4)]
    else:
        readings += [
            _reading("side", [2], ridge),
            _reading("offset", [3, 0], _along_slope(height)),
            _reading("along", [3, 0], inset),
            _reading("parallel", [0, 2]),
        ]
    return {
        "corners": [{"x_m": x, "y_m": y} for x, y in corners],
        "edges": ["eave", "rake", "ridge", "rake"],
        "readings": readings,
    }


def _reading(kind: str, at: list[int], taped: Plain | None = None) -> Plain:
    return {"kind": kind, "at": at, "taped": taped}


def _along_slope(height: Plain) -> Plain:
    """Return a height that was typed on plan as what it was taken for: a slope length."""
    if "plan" not in height["typed"]:
        return height
    return {**height, "typed": f"{height['value_m']:.3f} m"}
