"""``python -m ridge_tally.cli``."""

from ridge_tally.cli.program import main

main()
