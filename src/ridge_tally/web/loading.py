"""Routes of a house on its own sun: its load, its battery, options side by side, the bench."""

from flask_openapi import APIBlueprint

from ridge_tally.services.compared import compared
from ridge_tally.services.jobs import earlier, load_job
from ridge_tally.services.taken_in import take_in_load, take_in_power
from ridge_tally.store.jobs import JobId
from ridge_tally.studies.loading.bench import bench_view
from ridge_tally.studies.loading.household import house_report
from ridge_tally.studies.loading.options_compared import parse_picks
from ridge_tally.web.jobs import workspace
from ridge_tally.web.models import (
    BenchAnswer,
    ComparedAnswer,
    ComparedQuery,
    EarlierAnswer,
    HouseAnswer,
    LoadFileAnswer,
    OptionPath,
    PowerFileAnswer,
    RevisionPath,
)
from ridge_tally.web.options import OPTION, option_at
from ridge_tally.web.sent_file import sent_file

bp = APIBlueprint("loading", __name__, url_prefix="/api")
REVISION = "/jobs/<job_id>/revisions/<int:revision>"


@bp.get(f"{OPTION}/house", operation_id="house", responses={200: HouseAnswer})
def get_house(path: OptionPath) -> HouseAnswer:
    """What the house uses of its own sun, sends out and buys, with its battery and other sizes."""
    return HouseAnswer(house=house_report(workspace().desk, *option_at(path)))


@bp.post(f"{REVISION}/load", operation_id="take_load", responses={201: LoadFileAnswer})
def post_load(path: RevisionPath) -> tuple[LoadFileAnswer, int]:
    """Keep the file of metered use sent as the body and tell what it is; its name comes encoded."""
    job = load_job(workspace(), JobId(path.job_id), path.revision)
    return LoadFileAnswer(file=take_in_load(workspace(), job, *sent_file("load file"))), 201


@bp.get(f"{REVISION}/compared", operation_id="options_compared", responses={200: ComparedAnswer})
def get_compared(path: RevisionPath, query: ComparedQuery) -> ComparedAnswer:
    """Years of options, and of designs as they were before, held against the first."""
    job_id = JobId(path.job_id)
    picks = parse_picks(query.picked, path.revision)
    return ComparedAnswer(compared=compared(workspace(), job_id, path.revision, picks))


@bp.get(f"{REVISION}/earlier", operation_id="earlier_revisions", responses={200: EarlierAnswer})
def get_earlier(path: RevisionPath) -> EarlierAnswer:
    """The revisions this one came from, newest first."""
    return EarlierAnswer(revisions=list(earlier(workspace(), JobId(path.job_id), path.revision)))


@bp.get(f"{OPTION}/bench", operation_id="bench", responses={200: BenchAnswer})
def get_bench(path: OptionPath) -> BenchAnswer:
    """The test module's day, the array made of it, and the model's day beside it."""
    return BenchAnswer(bench=bench_view(workspace().desk, *option_at(path)))


@bp.post(f"{REVISION}/power", operation_id="take_power", responses={201: PowerFileAnswer})
def post_power(path: RevisionPath) -> tuple[PowerFileAnswer, int]:
    """Keep the file of measured power sent as the body; its clearest day is chosen."""
    job = load_job(workspace(), JobId(path.job_id), path.revision)
    return PowerFileAnswer(file=take_in_power(workspace(), job, *sent_file("power file"))), 201
