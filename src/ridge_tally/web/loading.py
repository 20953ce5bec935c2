"""Routes of loading: the year, the house, sweeps, what to buy, options laid over each other."""

from functools import partial

from ridge_tally.core.job.bench import PowerFileRef
from ridge_tally.core.job.ids import OptionId
from ridge_tally.core.loading.weights import parse_weighing
from ridge_tally.services.cards import option_year
from ridge_tally.services.compared import compared
from ridge_tally.services.jobs import Earlier, earlier
from ridge_tally.services.taken_in import LoadFileTold, take_in_load, take_in_power
from ridge_tally.store.jobs import JobId
from ridge_tally.studies.loading.bench import BenchView, bench_view
from ridge_tally.studies.loading.household import HouseReport, house_report
from ridge_tally.studies.loading.options_compared import OptionsCompared, parse_picks
from ridge_tally.studies.loading.sweep import SweepReport, loading_sweep
from ridge_tally.studies.loading.what_to_buy import WhatToBuy, what_to_buy
from ridge_tally.studies.loading.which import Which, which
from ridge_tally.views.loading.year import YearReport
from ridge_tally.web.at import OPTION, REVISION, design_at, given_up, job_at, workspace
from ridge_tally.web.models import (
    ComparedQuery,
    Found,
    OptionPath,
    RevisionPath,
    Running,
    Study,
    Weighed,
)
from ridge_tally.web.routes import Routes
from ridge_tally.web.sent_file import sent_file
from ridge_tally.web.studies import running

bp = Routes("loading", __name__, url_prefix="/api")


@bp.get(f"{OPTION}/house", operation_id="house", responses={200: Found[HouseReport]})
def get_house(path: OptionPath) -> Found[HouseReport]:
    """What the house uses of its own sun, sends out and buys, with its battery and other sizes."""
    return Found[HouseReport](found=house_report(workspace().desk, design_at(path)))


@bp.post(f"{REVISION}/load", operation_id="take_load", responses={201: Found[LoadFileTold]})
def post_load(path: RevisionPath) -> tuple[Found[LoadFileTold], int]:
    """Keep the file of metered use sent as the body and tell what it is; its name comes encoded."""
    job = job_at(path)
    return Found[LoadFileTold](found=take_in_load(workspace(), job, *sent_file("load file"))), 201


@bp.get(
    f"{REVISION}/compared", operation_id="options_compared", responses={200: Found[OptionsCompared]}
)
def get_compared(path: RevisionPath, query: ComparedQuery) -> Found[OptionsCompared]:
    """Years of options, and of designs as they were before, held against the first."""
    job_id = JobId(path.job_id)
    picks = parse_picks(query.picked, path.revision)
    return Found[OptionsCompared](found=compared(workspace(), job_id, path.revision, picks))


@bp.get(
    f"{REVISION}/earlier", operation_id="earlier_revisions", responses={200: Found[list[Earlier]]}
)
def get_earlier(path: RevisionPath) -> Found[list[Earlier]]:
    """The revisions this one came from, newest first."""
    return Found[list[Earlier]](found=list(earlier(workspace(), JobId(path.job_id), path.revision)))


@bp.get(f"{OPTION}/bench", operation_id="bench", responses={200: Found[BenchView]})
def get_bench(path: OptionPath) -> Found[BenchView]:
    """The test module's day, the array made of it, and the model's day beside it."""
    return Found[BenchView](found=bench_view(workspace().desk, design_at(path)))


@bp.post(f"{REVISION}/power", operation_id="take_power", responses={201: Found[PowerFileRef]})
def post_power(path: RevisionPath) -> tuple[Found[PowerFileRef], int]:
    """Keep the file of measured power sent as the body; its clearest day is chosen."""
    job = job_at(path)
    return Found[PowerFileRef](found=take_in_power(workspace(), job, *sent_file("power file"))), 201


@bp.get(f"{OPTION}/year", operation_id="option_year", responses={200: Found[YearReport]})
def get_year(path: OptionPath) -> Found[YearReport]:
    """The simulated year, the days that show the limit, and what other limits would clip."""
    job_id, option_id = JobId(path.job_id), OptionId(path.option_id)
    here = workspace()
    year = here.aside.do(lambda: option_year(here, job_id, path.revision, option_id), given_up())
    return Found[YearReport](found=year)


@bp.get(
    f"{OPTION}/loading-sweep", operation_id="loading_sweep", responses={200: Running[SweepReport]}
)
def get_loading_sweep(path: OptionPath, query: Weighed) -> Running[SweepReport]:
    """More and fewer modules on this inverter, and inverters of other sizes under this array."""
    weighing = parse_weighing(query.by)
    steps = partial(loading_sweep, weighing=weighing)
    return running(Study.SWEEP, path, steps, weighing)


@bp.get(f"{OPTION}/what-to-buy", operation_id="what_to_buy", responses={200: Running[WhatToBuy]})
def get_what_to_buy(path: OptionPath) -> Running[WhatToBuy]:
    """Module, way to the grid and inverter for this roof: every combination that breaks no Stop."""
    return running(Study.WHAT_TO_BUY, path, what_to_buy)


@bp.get(f"{OPTION}/which", operation_id="which", responses={200: Running[Which]})
def get_which(path: OptionPath) -> Running[Which]:
    """Which inverter, how many modules and which way, each with its why."""
    return running(Study.WHICH, path, which)
