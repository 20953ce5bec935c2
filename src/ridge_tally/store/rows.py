"""The tables.  Rows never leave ``store``; callers get frozen values."""

from datetime import datetime

from sqlalchemy import DateTime, Float, ForeignKey, Integer, String, Text
from sqlalchemy.orm import DeclarativeBase, Mapped, mapped_column


class Base(DeclarativeBase):
    """Root of the rows."""


class JobRow(Base):
    """A job: which revision is the newest."""

    __tablename__ = "jobs"

    id: Mapped[str] = mapped_column(String(96), primary_key=True)
    head: Mapped[int] = mapped_column(Integer)
    deleted_at: Mapped[datetime | None] = mapped_column(DateTime)
    archived_at: Mapped[datetime | None] = mapped_column(DateTime)


class RevisionRow(Base):
    """One immutable state of a job's document."""

    __tablename__ = "revisions"

    job_id: Mapped[str] = mapped_column(ForeignKey("jobs.id"), primary_key=True)
    number: Mapped[int] = mapped_column(Integer, primary_key=True)
    parent: Mapped[int | None] = mapped_column(Integer)
    name: Mapped[str] = mapped_column(String(80))
    document: Mapped[str] = mapped_column(Text)
    what: Mapped[str] = mapped_column(String(120))
    author: Mapped[str] = mapped_column(String(64))
    saved_at: Mapped[datetime] = mapped_column(DateTime)


class YearRow(Base):
    """What a year of a design makes at the meter, kept so that the list of jobs can tell it."""

    __tablename__ = "years"

    job_id: Mapped[str] = mapped_column(ForeignKey("jobs.id"), primary_key=True)
    revision: Mapped[int] = mapped_column(Integer, primary_key=True)
    option_id: Mapped[str] = mapped_column(String(80), primary_key=True)
    energy_kwh: Mapped[float] = mapped_column(Float)


class EquipmentRow(Base):
    """An own datasheet; the same name is the same row."""

    __tablename__ = "own_equipment"

    kind: Mapped[str] = mapped_column(String(16), primary_key=True)
    id: Mapped[str] = mapped_column(String(80), primary_key=True)
    document: Mapped[str] = mapped_column(Text)
    saved_at: Mapped[datetime] = mapped_column(DateTime)
