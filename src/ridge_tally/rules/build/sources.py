"""Where the limits of racking come from."""

from ridge_tally.core.working import Source, SourceStatus

SHEET = Source("mounting datasheet", "", SourceStatus.DATASHEET)
TYPED = Source("typed for this job", "", SourceStatus.TYPED)
GEOMETRY = Source("geometry", "", SourceStatus.GEOMETRY)
