"""Routes of Money: an option's price, bills, years and worth; how sure they are; what would better them."""

from ridge_tally.studies.money.later import NowOrLater, now_or_later
from ridge_tally.studies.money.moves import NextMoves, next_moves
from ridge_tally.studies.money.sure import HowSure, how_sure
from ridge_tally.views.money.view import MoneyView, money_view
from ridge_tally.web.at import OPTION
from ridge_tally.web.models import OptionPath, Running, Study
from ridge_tally.web.routes import Routes
from ridge_tally.web.studies import running

bp = Routes("money", __name__, url_prefix="/api")


@bp.get(f"{OPTION}/money", operation_id="money", responses={200: Running[MoneyView]})
def get_money(path: OptionPath) -> Running[MoneyView]:
    """The priced list and incentives; then bills, years and worth once the hours are known."""
    return running(Study.MONEY, path, money_view)


@bp.get(f"{OPTION}/how-sure", operation_id="how_sure", responses={200: Running[HowSure]})
def get_how_sure(path: OptionPath) -> Running[HowSure]:
    """What each unknown does to the worth alone, and all of them together in many draws."""
    return running(Study.SURE, path, how_sure)


@bp.get(f"{OPTION}/next-moves", operation_id="next_moves", responses={200: Running[NextMoves]})
def get_next_moves(path: OptionPath) -> Running[NextMoves]:
    """What would better the option most, each a complete run, as it is found."""
    return running(Study.MOVES, path, next_moves)


@bp.get(f"{OPTION}/now-or-later", operation_id="now_or_later", responses={200: Running[NowOrLater]})
def get_now_or_later(path: OptionPath) -> Running[NowOrLater]:
    """The option bought today, a year later or in stages, each a complete run to the same year."""
    return running(Study.LATER, path, now_or_later)
