"""``python -m ridge_tally.cli``."""

from ridge_tally.cli.choosing import main

main()
