"""Routes of Money: an option's price, bills, years and worth."""

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
