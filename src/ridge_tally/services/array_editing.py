"""Applying the edits of an array: fills, modules moved by hand, exceptions, free strips."""

from collections.abc import Callable, Container, Iterable
from dataclasses import replace
from typing import assert_never

from ridge_tally.core.array.blockers import ground_of, path_edges
from ridge_tally.core.array.fill import fill_rows
from ridge_tally.core.array.lay import Fill, Lay, Place
from ridge_tally.core.array.legal import NEIGHBOUR, Shortfall, shortfalls
from ridge_tally.core.array.search import prepared
from ridge_tally.core.array.tables import columns_of, tier_up_m, tiers_of
from ridge_tally.core.equipment import ModuleSheet
from ridge_tally.core.errors import BadGeometry, MissingDatum, NotFound, OutOfRange
from ridge_tally.core.job import array_edits as edits
from ridge_tally.core.job.array import (
    OTHER_WAY,
    ROUNDED_TO,
    PlacedModule,
    PlaneArray,
    Position,
    Ways,
    empty_array,
    in_rows,
    module_rows,
    present_of,
    ways_of_array,
)
from ridge_tally.core.job.document import (
    Job,
    Option,
    module_on,
    option_of,
    plane_of,
    with_option,
    with_plane,
)
from ridge_tally.core.job.ids import OptionId, PlacedId, PlaneId
from ridge_tally.core.job.survey import AccessPath, EdgeKind, RoofPlane, Setbacks, Taped
from ridge_tally.core.survey.outline import is_closed, require_closed
from ridge_tally.core.units import LengthUnit, format_length, parse_length_m, parse_number
from ridge_tally.rules.array import lay_in, lay_of
from ridge_tally.rules.option_document import LONGEST_RUN, STEEPEST_LEG_DEG, WIDEST_GAP_M
from ridge_tally.rules.setbacks import edge_zone_m, setback_pack
from ridge_tally.services.bracket_seats import set_on_lines
from ridge_tally.services.ground_editing import (
    bays_filled,
    season_field,
    spaced,
    table_field,
    with_seasons,
)
from ridge_tally.services.rows import next_id

# Modules this much further apart than their gap still touch.
TOUCHING_M = 0.005
# What stands within this of a gap is meant to stand at it.
AT_GAP_M = 2e-3
TURN_OR_NARROW = "Turn the modules, choose a smaller one, or narrow a strip."
LONGEST_REASON = 160
WIDEST_PATH_M = 5.0


def array_changed(job: Job, edit: edits.ArrayEdit) -> Job:  # noqa: PLR0911, PLR0912 - one arm an edit
    """Return the job after an edit of an array or of the strips round it.

    Raises
    ------
    NotUnderstood, OutOfRange, BadGeometry, MissingDatum, NotFound
        Naming the field, the value and the remedy.
    """
    match edit:
        case edits.FillPlane():
            return filled(job, edit.option_id, edit.plane_id, edit.ways)
        case edits.LayModules():
            return _laid(job, edit)
        case edits.ToggleModules():
            toggled = _each(job, edit, lambda m: replace(m, present=not m.present))
            return with_option(job, toggled)
        case edits.AddModule():
            return _added(job, edit)
        case edits.RemoveModules():
            return with_option(job, _each(job, edit, lambda m: None))
        case edits.MoveModules():
            return _moved(job, edit)
        case edits.TurnModules():
            return _turned(job, edit)
        case edits.SplitRow():
            return _split(job, edit)
        case edits.KeepModules():
            return _kept(job, edit)
        case edits.SetArrayField():
            return _field_set(job, edit)
        case edits.SetTableField():
            option = option_of(job, edit.option_id)
            old = array_of(option, edit.plane_id)
            return _stood_anew(job, option, old, table_field(job, old, edit))
        case edits.SetSeasons():
            return _seasons_set(job, edit.option_id, edit.plane_id, edit.positions)
        case edits.SetSeasonField():
            array = array_of(option_of(job, edit.option_id), edit.plane_id)
            positions = season_field(job, array, edit)
            return _seasons_set(job, edit.option_id, edit.plane_id, positions)
        case edits.FillBays():
            return with_option(job, bays_filled(option_of(job, edit.option_id)))
        case edits.SetOnLines():
            option = option_of(job, edit.option_id)
            array = set_on_lines(job, option, array_of(option, plane_of(job, edit.plane_id).id))
            return with_option(job, with_array(option, array))
        case edits.SpaceRows():
            option = option_of(job, edit.option_id)
            old = array_of(option, edit.plane_id)
            return _stood_anew(job, option, old, spaced(job, option, old))
        case edits.SetSymmetric():
            option = option_of(job, edit.option_id)
            array = array_of(option, plane_of(job, edit.plane_id).id)
            return with_option(job, with_array(option, replace(array, symmetric=edit.on)))
        case edits.SetMounting():
            option = option_of(job, edit.option_id)
            array = array_of(option, plane_of(job, edit.plane_id).id)
            return with_option(job, with_array(option, replace(array, mounting=edit.mounting)))
        case edits.SetBrushed():
            option = option_of(job, edit.option_id)
            array = array_of(option, plane_of(job, edit.plane_id).id)
            return with_option(job, with_array(option, replace(array, brushed=edit.on)))
        case edits.ApplySetbackPack():
            return _packed(job, edit)
        case edits.SetAccessPath():
            return _path_set(job, edit)
        case _:
            assert_never(edit)


def array_of(option: Option, plane_id: PlaneId) -> PlaneArray:
    """Return the option's array on a plane, an empty one where it has none."""
    found = (a for a in option.arrays if a.plane_id == plane_id)
    return next(found, empty_array(plane_id))


def with_array(option: Option, array: PlaneArray) -> Option:
    """Return the option with that array on its plane."""
    if all(a.plane_id != array.plane_id for a in option.arrays):
        return replace(option, arrays=(*option.arrays, array))
    arrays = tuple(array if a.plane_id == array.plane_id else a for a in option.arrays)
    return replace(option, arrays=arrays)


def best_rows(job: Job, option: Option, plane: RoofPlane, ways: Ways) -> Fill:
    """Return the fullest rows, the access path along the edge that costs least."""
    require_closed(plane)
    lay = lay_in(job, option, array_of(option, plane.id))
    fills = [
        fill_rows(prepared(ground_of(plane, edge), lay), ways)
        for edge in path_edges(plane) or (None,)
    ]
    best = max(fills, key=lambda f: f.count)
    return Fill(best.places, max(f.at_most for f in fills))


def filled(job: Job, option_id: OptionId, plane_id: PlaneId, ways: Ways) -> Job:
    """Return the job with a plane filled anew."""
    option, plane = option_of(job, option_id), plane_of(job, plane_id)
    fill = best_rows(job, option, plane, ways)
    if not fill.places:
        raise nothing_fits(plane, module_on(job, option, plane.id))
    array = array_of(option, plane_id)
    lay = lay_in(job, option, array)
    return with_option(job, with_array(option, with_places(array, lay, fill.places)))


def nothing_fits(plane: RoofPlane, sheet: ModuleSheet, remedy: str = TURN_OR_NARROW) -> BadGeometry:
    """Return the refusal of a plane whose strips leave no room for a module."""
    return BadGeometry(
        plane.name,
        f"no module of {sheet.long_m:g} × {sheet.short_m:g} m fits inside the free strips",
        remedy,
    )


def with_places(array: PlaneArray, lay: Lay, places: Iterable[Place]) -> PlaneArray:
    """Return the array with modules at places; on tables, of every tier above each."""
    modules = tuple(
        _placed(PlacedId(f"{array.plane_id}-{i}"), p, tier)
        for i, (p, tier) in enumerate(tiers_of(lay, places), start=1)
    )
    return replace(array, modules=modules)


def _placed(module_id: PlacedId, place: Place, tier: int) -> PlacedModule:
    x_m, y_m = round(place.x_m, ROUNDED_TO), round(place.y_m, ROUNDED_TO)
    return PlacedModule(module_id, x_m, y_m, place.orientation, present=True, tier=tier)


def _laid(job: Job, edit: edits.LayModules) -> Job:
    option, plane = option_of(job, edit.option_id), plane_of(job, edit.plane_id)
    require_closed(plane)
    if not edit.places:
        raise nothing_fits(plane, module_on(job, option, plane.id))
    array = array_of(option, plane.id)
    lay = lay_in(job, option, array)
    places = [Place(p.x_m, p.y_m, p.orientation) for p in edit.places]
    array = with_places(array, lay, places)
    _require_possible(job, option, array, {m.id for m in array.modules})
    return with_option(job, with_array(option, array))


def _each(
    job: Job,
    edit: edits.ToggleModules | edits.RemoveModules,
    change: Callable[[PlacedModule], PlacedModule | None],
) -> Option:
    option = option_of(job, edit.option_id)
    _require_known(option, edit.module_ids)
    arrays = []
    for array in option.arrays:
        changed = [change(m) if m.id in edit.module_ids else m for m in array.modules]
        arrays.append(replace(array, modules=tuple(m for m in changed if m is not None)))
    return replace(option, arrays=tuple(arrays))


def _require_known(option: Option, module_ids: tuple[PlacedId, ...]) -> None:
    known = {m.id for array in option.arrays for m in array.modules}
    for module_id in module_ids:
        if module_id not in known:
            raise NotFound("module", module_id)


def _one_array(option: Option, module_ids: tuple[PlacedId, ...]) -> PlaneArray:
    """Return the array that holds all those modules."""
    _require_known(option, module_ids)
    for array in option.arrays:
        ids = {m.id for m in array.modules}
        if ids.issuperset(module_ids) and module_ids:
            return array
    raise BadGeometry(
        "Modules", "none, or of more than one roof plane", "Choose modules of one plane."
    )


def _added(job: Job, edit: edits.AddModule) -> Job:
    option, plane = option_of(job, edit.option_id), plane_of(job, edit.plane_id)
    require_closed(plane)
    array = array_of(option, plane.id)
    taken = [m.id for a in option.arrays for m in a.modules]
    at = Place(edit.at.x_m, edit.at.y_m, edit.at.orientation)
    added: list[PlacedModule] = []
    for place, tier in tiers_of(lay_in(job, option, array), (at,)):
        new_id = PlacedId(next_id(f"{plane.id}-", [*taken, *(m.id for m in added)]))
        added.append(_placed(new_id, place, tier))
    array = replace(array, modules=(*array.modules, *added))
    _require_possible(job, option, array, {m.id for m in added})
    return with_option(job, with_array(option, array))


Column = tuple[Place, tuple[PlacedModule, ...]]


def _columns(
    array: PlaneArray, lay: Lay, module_ids: Container[PlacedId] | None = None
) -> tuple[tuple[Column, ...], ...]:
    """Return the columns of tables those modules stand in, row by row, each row from its left.

    Each with the place of its lowest module; on roofs each module is a column by itself.
    """
    columns = (
        c
        for c in columns_of(lay, array.modules)
        if module_ids is None or any(m.id in module_ids for m in c[1])
    )
    return in_rows(columns, lambda c: (c[0].x_m, c[0].y_m))


def _moved(job: Job, edit: edits.MoveModules) -> Job:
    option = option_of(job, edit.option_id)
    array = _one_array(option, edit.module_ids)
    moved = {
        m.id: replace(
            m,
            x_m=round(m.x_m + edit.right_m, ROUNDED_TO),
            y_m=round(m.y_m + edit.up_m, ROUNDED_TO),
            # A reason was given for the place, not for the module.
            kept_because="",
        )
        for row in _columns(array, lay_in(job, option, array), edit.module_ids)
        for _, column in row
        for m in column
    }
    return _settled(job, option, array, moved)


def _turned(job: Job, edit: edits.TurnModules) -> Job:
    option = option_of(job, edit.option_id)
    array = _one_array(option, edit.module_ids)
    lay = lay_in(job, option, array)
    turned: dict[PlacedId, PlacedModule] = {}
    above_m = float("-inf")
    for row in _columns(array, lay, edit.module_ids):
        bottom_m = max(min(place.y_m for place, _ in row), above_m)
        right_m = row[0][0].x_m
        for place, column in row:
            other = OTHER_WAY[place.orientation]
            for module in column:
                turned[module.id] = replace(
                    module,
                    x_m=round(right_m, ROUNDED_TO),
                    y_m=round(bottom_m + tier_up_m(lay, other, module.tier), ROUNDED_TO),
                    orientation=other,
                    kept_because="",
                )
            right_m += lay.pitch_m(other)
            above_m = bottom_m + lay.height_m(other) + lay.gap_between_rows_m
    return _settled(job, option, array, turned)


def _split(job: Job, edit: edits.SplitRow) -> Job:
    option = option_of(job, edit.option_id)
    array = _one_array(option, (edit.module_id,))
    gap_m = _gap_m(job, edit.typed, "Gap in the row")
    lay = lay_in(job, option, array)
    there = replace(array, modules=present_of(array))
    rows = _columns(there, lay)
    found = (
        (row, i)
        for row in rows
        for i, (_, column) in enumerate(row)
        if any(m.id == edit.module_id for m in column)
    )
    row, number = next(found, ((), 0))
    if number == 0:
        raise BadGeometry(
            "Gap in the row",
            "this module is the first of its row, nothing stands left of it",
            "Choose the module to the right of the gap.",
        )
    left, place = row[number - 1][0], row[number][0]
    shift_m = left.x_m + lay.width_m(left.orientation) + gap_m - place.x_m
    moved: dict[PlacedId, PlacedModule] = {}
    end_m = place.x_m - lay.gap_in_row_m
    for beside, column in row[number:]:
        # What stands further on, beyond a chimney or a gap of its own, stays.
        if beside.x_m - end_m > lay.gap_in_row_m + TOUCHING_M:
            break
        for m in column:
            moved[m.id] = replace(m, x_m=round(m.x_m + shift_m, ROUNDED_TO), kept_because="")
        end_m = beside.x_m + lay.width_m(beside.orientation)
    return _settled(job, option, array, moved)


def _settled(
    job: Job, option: Option, array: PlaneArray, moved: dict[PlacedId, PlacedModule]
) -> Job:
    array = replace(array, modules=tuple(moved.get(m.id, m) for m in array.modules))
    _require_possible(job, option, array, set(moved))
    return with_option(job, with_array(option, array))


def _require_possible(
    job: Job,
    option: Option,
    array: PlaneArray,
    module_ids: Container[PlacedId],
    remedy: str = "Move it off, or take one of them away.",
) -> None:
    """Refuse modules that would lie on something, on each other or over the edge."""
    plane = plane_of(job, array.plane_id)
    if not is_closed(plane):
        return
    present = present_of(array)
    lay = lay_in(job, option, array)
    columns = columns_of(lay, present)
    short = shortfalls(ground_of(plane), lay, tuple(place for place, _ in columns))
    numbers = {m.id: number for number, m in enumerate(array.modules, start=1)}
    for (_, modules), found in zip(columns, short, strict=True):
        worst = next((s for s in found if s.impossible), None)
        module = next((m for m in modules if m.id in module_ids), None)
        if module is not None and worst is not None:
            raise BadGeometry(f"{plane.name}, module {numbers[module.id]}", _lies_on(worst), remedy)


def _lies_on(worst: Shortfall) -> str:
    if worst.owner.name == NEIGHBOUR:
        return "it would lie on another module"
    return f"it would lie across {worst.owner.name}"


def _kept(job: Job, edit: edits.KeepModules) -> Job:
    option = option_of(job, edit.option_id)
    array = _one_array(option, edit.module_ids)
    reason = edit.reason.strip()
    if len(reason) > LONGEST_REASON:
        raise OutOfRange(
            "Length of the reason", len(reason), f"at most {LONGEST_REASON} characters"
        )
    require_closed(plane_of(job, array.plane_id))
    if reason:
        nothing_allows = "Nothing allows that: move it off."
        _require_possible(job, option, array, edit.module_ids, nothing_allows)
    modules = tuple(
        replace(m, kept_because=reason) if m.id in edit.module_ids else m for m in array.modules
    )
    return with_option(job, with_array(option, replace(array, modules=modules)))


def _gap_m(job: Job, typed: str, field: str) -> float:
    gap_m = parse_length_m(typed, job.unit, field)
    if not 0 <= gap_m <= WIDEST_GAP_M:
        raise OutOfRange(f"{field} in metres", gap_m, f"between 0 and {WIDEST_GAP_M:g}")
    return gap_m


def _field_set(job: Job, edit: edits.SetArrayField) -> Job:
    option, plane = option_of(job, edit.option_id), plane_of(job, edit.plane_id)
    array = array_of(option, plane.id)
    kind = edits.ArrayField
    match edit.field:
        case kind.SHORTEST_RUN:
            run = parse_number(edit.typed, "Shortest run", "a number of modules such as 2")
            if run != int(run) or not 1 <= run <= LONGEST_RUN:
                raise OutOfRange("Shortest run", run, f"a whole number, 1 to {LONGEST_RUN}")
            return with_option(job, with_array(option, replace(array, shortest_run=int(run))))
        case kind.GAP_IN_ROW:
            gap = Taped(_gap_m(job, edit.typed, "Gap in a row"), edit.typed.strip())
            wider = replace(array, gap_in_row=gap)
        case kind.GAP_BETWEEN_ROWS:
            gap = Taped(_gap_m(job, edit.typed, "Gap between rows"), edit.typed.strip())
            wider = replace(array, gap_between_rows=gap)
        case kind.LEG_TILT:
            tilt_deg = parse_number(
                edit.typed.rstrip("° "), "Tilt of the legs", "degrees such as 10"
            )
            if not 0 <= tilt_deg <= STEEPEST_LEG_DEG:
                raise OutOfRange(
                    "Tilt of the legs in degrees", tilt_deg, f"between 0 and {STEEPEST_LEG_DEG:g}"
                )
            # A tilt that is typed stays all year.
            table = array.table and replace(array.table, seasons=())
            wider = replace(array, leg_tilt_deg=tilt_deg, table=table)
        case _:
            assert_never(edit.field)
    return _stood_anew(job, option, array, wider)


def _stood_anew(job: Job, option: Option, old: PlaneArray, new: PlaneArray) -> Job:
    """Return the job with an array at new gaps or tilts: tables laid anew, modules moved apart."""
    if plane_of(job, new.plane_id).ground is not None:
        return _relaid(with_option(job, with_array(option, new)), option.id, new)
    return with_option(job, with_array(option, _respaced(job, option, old, new)))


def _seasons_set(
    job: Job, option_id: OptionId, plane_id: PlaneId, positions: tuple[Position, ...]
) -> Job:
    option = option_of(job, option_id)
    array = with_seasons(job, option, array_of(option, plane_id), positions)
    return with_option(job, with_array(option, array))


def _relaid(job: Job, option_id: OptionId, array: PlaneArray) -> Job:
    """Return the job with the tables of a ground array laid anew, as many bays left as before.

    They stay where they were while the count of places does; else they are the last of the rows.

    Raises
    ------
    BadGeometry
        If the ground holds no table any more.
    """
    if not array.modules:
        return job
    again = filled(job, option_id, array.plane_id, ways_of_array(array))
    option = option_of(again, option_id)
    new, bays = array_of(option, array.plane_id), {m.id for m in array.modules if not m.present}
    if len(new.modules) != len(array.modules):
        ordered = [m for row in module_rows(new.modules) for m in row]
        most = min(len(bays), len(ordered) - 1)
        bays = {m.id for m in ordered[len(ordered) - most :]}
    kept = tuple(replace(m, present=m.id not in bays) for m in new.modules)
    return with_option(again, with_array(option, replace(new, modules=kept)))


def _respaced(job: Job, option: Option, old: PlaneArray, new: PlaneArray) -> PlaneArray:
    """Return the array with its runs and stacks of rows drawn apart or together to new sizes.

    Neighbours that stood at the old gap stand at the new one, counted from the left and from
    below; what stood further apart keeps its place.
    """
    plane, sheet = plane_of(job, old.plane_id), module_on(job, option, old.plane_id)
    lay, wanted = lay_of(sheet, old, plane), lay_of(sheet, new, plane)
    in_row_m = new.gap_in_row.value_m - old.gap_in_row.value_m
    between_m = new.gap_between_rows.value_m - old.gap_between_rows.value_m
    shifted: dict[PlacedId, tuple[float, float]] = {}
    up_m, taller_m, top_m = 0.0, 0.0, float("-inf")
    for row in module_rows(old.modules):
        close = abs(row[0].y_m - top_m - lay.gap_between_rows_m) < AT_GAP_M
        up_m = up_m + between_m + taller_m if close else 0.0
        right_m, end_m = 0.0, float("-inf")
        for module in row:
            touches = abs(module.x_m - end_m - lay.gap_in_row_m) < AT_GAP_M
            right_m = right_m + in_row_m if touches else 0.0
            shifted[module.id] = (right_m, up_m)
            end_m = module.x_m + lay.width_m(module.orientation)
        way = row[0].orientation
        top_m = row[0].y_m + lay.height_m(way)
        taller_m = wanted.height_m(way) - lay.height_m(way)
    modules = tuple(
        replace(
            m,
            x_m=round(m.x_m + shifted[m.id][0], ROUNDED_TO),
            y_m=round(m.y_m + shifted[m.id][1], ROUNDED_TO),
        )
        for m in old.modules
    )
    return replace(new, modules=modules)


def _written(length_m: float, unit: LengthUnit) -> Taped:
    typed = (
        f"{length_m * 1000:.0f} mm" if unit is LengthUnit.METRE else format_length(length_m, unit)
    )
    return Taped(length_m, typed)


def _packed(job: Job, edit: edits.ApplySetbackPack) -> Job:
    pack = setback_pack(edit.pack_id)
    widths = {s.edge.value: _written(s.width_m, job.unit) for s in pack.edges}
    if pack.edge_zone:
        if not edit.least_width.strip() or not edit.mean_height.strip():
            raise MissingDatum(
                "least width and mean roof height of the house",
                pack.title,
                "Type both: the zone is worked out from them.",
            )
        least_m = parse_length_m(edit.least_width, job.unit, "Least width of the house")
        height_m = parse_length_m(edit.mean_height, job.unit, "Mean roof height")
        for field, value in (("Least width of the house", least_m), ("Mean roof height", height_m)):
            if not 1 <= value <= 60:
                raise OutOfRange(f"{field} in metres", value, "between 1 and 60")
        zone = _written(edge_zone_m(least_m, height_m), job.unit)
        widths = {kind.value: zone for kind in EdgeKind}
    access = None
    if pack.path_m is not None:
        access = AccessPath(_written(pack.path_m, job.unit), pack.path_along)
    for plane_id in edit.plane_ids:
        plane = plane_of(job, plane_id)
        packed = replace(plane, setbacks=Setbacks(**widths), access=access, setback_pack=pack.id)
        job = with_plane(job, packed)
    return job


def _path_set(job: Job, edit: edits.SetAccessPath) -> Job:
    plane = plane_of(job, edit.plane_id)
    if not edit.typed.strip():
        return with_plane(job, replace(plane, access=None))
    field = f"{plane.name}, access path"
    width_m = parse_length_m(edit.typed, job.unit, field)
    if not 0 < width_m <= WIDEST_PATH_M:
        raise OutOfRange(f"{field} in metres", width_m, f"above 0, at most {WIDEST_PATH_M:g}")
    if not any(kind in edit.along for kind in plane.outline.edges):
        raise BadGeometry(
            field,
            f"the plane has no {', '.join(edit.along) or 'edge'} for it to run along",
            "Choose a kind of edge that the plane has.",
        )
    access = AccessPath(Taped(width_m, edit.typed.strip()), edit.along)
    return with_plane(job, replace(plane, access=access))
