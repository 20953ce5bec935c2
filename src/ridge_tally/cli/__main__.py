"""``python -m ridge_tally.cli``."""

from ridge_tally.cli.commands import main

main()
