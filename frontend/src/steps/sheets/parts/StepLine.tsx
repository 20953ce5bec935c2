/** A step of the work: its length, its days, its bar; the bar is drawn along, or nudged by key. */
import { type KeyboardEvent, type PointerEvent, useRef, useState } from 'react';
import type { Schemas } from '@/api/client';
import { useJob } from '@/plan/JobContext';
import { TypedField } from '@/ui/TypedField';
import { daysBetween, daysLater } from './days';

interface StepLineProps {
  row: Schemas['StepRow'];
  work: Schemas['WorkView'];
  days: number;
}

export function StepLine({ row, work, days }: StepLineProps) {
  const { job, edit, act } = useJob();
  const track = useRef<HTMLSpanElement>(null);
  const [drag, setDrag] = useState<{ x: number; by: number } | null>(null);
  const typed = (job.paperwork.work?.steps ?? []).find(({ step }) => step === row.step);
  const set = (field: Schemas['StepField'], words: string) =>
    edit({ kind: 'set-step-field', step: row.step, field, typed: words });
  const share = (day: string) => (daysBetween(work.begins, day) / days) * 100;
  const from = share(row.from_day);
  const wide = ((daysBetween(row.from_day, row.to_day) + 1) / days) * 100;
  const moveTo = (by: number) =>
    void act({
      kind: 'set-step-field',
      step: row.step,
      field: 'not_before',
      typed: daysLater(row.from_day, by),
    });
  const pxPerDay = () => (track.current?.clientWidth ?? days) / days;
  const down = (event: PointerEvent) => {
    if (row.done) return;
    event.currentTarget.setPointerCapture(event.pointerId);
    setDrag({ x: event.clientX, by: 0 });
  };
  const move = (event: PointerEvent) =>
    setDrag((now) => now && { ...now, by: Math.round((event.clientX - now.x) / pxPerDay()) });
  const up = () => {
    if (drag && drag.by !== 0) moveTo(drag.by);
    setDrag(null);
  };
  const nudge = (event: KeyboardEvent) => {
    const by = { ArrowRight: 1, ArrowLeft: -1 }[event.key];
    if (by === undefined || row.done) return;
    event.preventDefault();
    event.stopPropagation();
    moveTo(by);
  };
  const by = drag?.by ?? 0;
  const told = `${row.title}: ${row.from_day} to ${row.to_day}`;
  return (
    <li className="flex min-h-10 items-center border-b border-rule text-sm">
      <span className="flex w-[318px] shrink-0 items-center gap-2 pr-3">
        <span className="w-[152px] shrink-0 leading-tight">
          {row.title}
          <span className="block text-xs text-ink-2">
            {row.told}
            {row.held > 0 && `; ${row.held} held`}
          </span>
          {row.amiss && <span className="block text-xs text-warn">{row.amiss}</span>}
        </span>
        <TypedField
          label={`${row.title}, working days`}
          value={typed?.days != null ? `${typed.days}` : ''}
          placeholder={`${row.days}`}
          width={44}
          tone={typed?.days != null ? 'plain' : 'derived'}
          commit={(words) => set('days', words)}
        />
        <TypedField
          label={`${row.title}, done on`}
          value={typed?.done_on ?? ''}
          placeholder={row.done ? row.to_day : 'done on'}
          width={96}
          commit={(words) => set('done_on', words)}
        />
      </span>
      <span ref={track} className="relative h-9 grow">
        {work.holds.map((hold) => (
          <span
            key={`${hold.from_day} ${hold.why}`}
            title={`Held: ${hold.why}`}
            className="absolute inset-y-0 bg-warn-wash"
            style={{
              left: `${Math.max(0, share(hold.from_day))}%`,
              width: `${((daysBetween(hold.from_day, hold.to_day) + 1) / days) * 100}%`,
            }}
          />
        ))}
        <button
          type="button"
          aria-label={`${told}. Left and right arrow move it.`}
          title={typed?.not_before ? `${told}; not before ${typed.not_before}` : told}
          onPointerDown={down}
          onPointerMove={move}
          onPointerUp={up}
          onKeyDown={nudge}
          onDoubleClick={() => typed?.not_before && void set('not_before', '')}
          className={`absolute top-1.5 h-6 min-w-2 touch-none rounded-sm border ${row.done ? 'border-ink-2 bg-bar' : row.outdoors ? 'cursor-ew-resize border-copper bg-copper-wash' : 'cursor-ew-resize border-patina bg-patina-wash'}`}
          style={{
            left: `${from + (by / days) * 100}%`,
            width: `${wide}%`,
          }}
        />
        <span
          className="pointer-events-none absolute top-2 text-xs whitespace-nowrap text-ink-2"
          style={
            from + wide > 72
              ? { right: `calc(${100 - from}% + 4px)` }
              : { left: `calc(max(${from + wide}%, ${from}% + 8px) + 4px)` }
          }
        >
          {by === 0
            ? row.from_day === row.to_day
              ? row.from_day.slice(5)
              : `${row.from_day.slice(5)} to ${row.to_day.slice(5)}`
            : `not before ${daysLater(row.from_day, by)}`}
          {typed?.not_before && by === 0 && ', held back'}
        </span>
      </span>
    </li>
  );
}
