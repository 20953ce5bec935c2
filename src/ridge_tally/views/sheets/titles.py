"""What the title block of every sheet of an option says."""

from ridge_tally.core.job.paperwork import Paperwork
from ridge_tally.core.number_format import spaced
from ridge_tally.core.sheets.titled import IssueRow, TitleFacts
from ridge_tally.core.strings.parts import ac_makers, counted_names
from ridge_tally.rules.design import Design
from ridge_tally.views.option import OptionReport
from ridge_tally.views.sheets.design import Stamp


def title_facts(design: Design, report: OptionReport, stamp: Stamp) -> TitleFacts:
    """Return the firm, the job, its system in words, who stands behind it, what was issued."""
    paper = design.job.paperwork
    system = ". ".join(f"{name}: {what}" for name, what in system_rows(design, report))
    return TitleFacts(
        firm=paper.firm or "Installer: not named",
        job=design.job.name,
        place=design.job.site.place or "Place not given",
        system=system,
        revision=f"{stamp.revision}, {stamp.day.isoformat()}, option {design.option.id.upper()}",
        reviewed=_reviewed(paper),
        people=" ".join(
            f"{told} {name}."
            for told, name in (("Drawn by", paper.drawn_by), ("Checked by", paper.checked_by))
            if name
        ),
        issues=tuple(
            IssueRow(f"{i.number}", i.day.isoformat(), i.what, i.who) for i in paper.issues
        ),
    )


def system_rows(design: Design, report: OptionReport) -> tuple[tuple[str, str], ...]:
    """Return the system in five lines."""
    ratio = "nothing makes AC" if report.dc_ac_ratio is None else f"{spaced(report.dc_ac_ratio, 2)}"
    return (
        ("Modules", "; ".join(report.modules_told) or "none"),
        ("DC", f"{spaced(report.p_dc_w / 1000, 2)} kW"),
        ("AC", f"{counted_names(ac_makers(design)) or 'none'}, {spaced(report.p_ac_w / 1000, 2)} kW"),
        ("DC over AC", ratio),
        ("Strings", f"{len(design.option.strings)} on {len(report.trackers)} trackers, "
                    f"{report.modules_strung} of {report.modules} modules strung"),
    )  # fmt: skip


def _reviewed(paper: Paperwork) -> str:
    """Return by whom and when it was reviewed; nothing until both are there."""
    if not paper.reviewed_by or paper.reviewed_on is None:
        return ""
    return f"Reviewed by {paper.reviewed_by}, {paper.reviewed_on.isoformat()}"
