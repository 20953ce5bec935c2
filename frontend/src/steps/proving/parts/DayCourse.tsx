/** A day of a log, step by step: made over due, with what is left out and why. */
import { useQuery } from '@tanstack/react-query';
import { scaleLinear } from 'd3-scale';
import { area, line } from 'd3-shape';
import type { Schemas } from '@/api/client';
import { Chart } from '@/charts/Chart';
import { LevelLines } from '@/charts/LevelLines';
import { useJob } from '@/plan/JobContext';
import { Fitted } from '@/ui/Fitted';
import { day as dayTold, figure } from '@/units/format';
import { productionDayQuery } from '../queries';

const PAD = { left: 40, right: 10, top: 10, bottom: 20 };
const HIGH_PX = 190;
const HOURS = [4, 6, 8, 10, 12, 14, 16, 18, 20];

interface DayCourseProps {
  number: number;
  day: string;
}

export function DayCourse({ number, day }: DayCourseProps) {
  const { at } = useJob();
  const { data: course, error } = useQuery(productionDayQuery(at, number, day));
  if (error)
    return (
      <p role="alert" className="text-stop">
        {error.message}
      </p>
    );
  if (!course || course.made_w.length < 2) return null;
  return (
    <section aria-label="Course of the day" className="mt-2">
      <h2>
        <b>{dayTold(course.day)}</b>: {course.told}.
      </h2>
      <Fitted mostPx={1100}>{(widthPx) => <Lines course={course} widthPx={widthPx} />}</Fitted>
      <p className="flex flex-wrap gap-x-4 text-xs text-ink-2">
        <Swatch ink="var(--color-copper)">made</Swatch>
        <Swatch ink="var(--color-patina)">due in that light</Swatch>
        <Swatch ink="var(--color-warn-wash)">left out of the judgement</Swatch>
        <span>hours of standard time</span>
      </p>
    </section>
  );
}

function Swatch({ ink, children }: { ink: string; children: string }) {
  return (
    <span className="inline-flex items-center gap-1">
      <span className="inline-block h-1.5 w-5" style={{ background: ink }} />
      {children}
    </span>
  );
}

function Lines({ course, widthPx }: { course: Schemas['DayCourse']; widthPx: number }) {
  const stepH = course.step_min / 60;
  const lit = course.free_w.map((w, n) => (w > 0 ? n : -1)).filter((n) => n >= 0);
  const [first, last] = [lit[0] ?? 0, lit[lit.length - 1] ?? course.made_w.length - 1];
  const steps = course.made_w
    .map((made, n) => ({
      hour: (n + 0.5) * stepH,
      made: made ?? null,
      due: course.due_w[n] ?? 0,
      out: course.left_out[n] ?? '',
    }))
    .slice(first, last + 1);
  const most = Math.max(...steps.map((s) => Math.max(s.made ?? 0, s.due)), 1);
  const x = scaleLinear([first * stepH, (last + 1) * stepH], [PAD.left, widthPx - PAD.right]);
  const y = scaleLinear([0, most / 1000], [HIGH_PX - PAD.bottom, PAD.top]);
  const due = area<(typeof steps)[number]>(
    (s) => x(s.hour),
    y(0),
    (s) => y(s.due / 1000),
  );
  const made = line<(typeof steps)[number]>(
    (s) => x(s.hour),
    (s) => y((s.made ?? 0) / 1000),
  ).defined((s) => s.made !== null);
  return (
    <Chart
      label="Made and due over the day"
      widthPx={widthPx}
      heightPx={HIGH_PX}
      readings={steps.map((s) => ({
        xPx: x(s.hour),
        yPx: y((s.made ?? 0) / 1000),
        told: `${clock(s.hour)}: ${s.made === null ? 'no reading' : `${figure(s.made / 1000, 2)} kW made`}, ${figure(s.due / 1000, 2)} due${s.out ? `; ${s.out}` : ''}`,
      }))}
    >
      {steps
        .filter((s) => s.out)
        .map((s) => (
          <rect
            key={s.hour}
            x={x(s.hour - stepH / 2)}
            width={x(s.hour + stepH / 2) - x(s.hour - stepH / 2) + 0.5}
            y={PAD.top}
            height={HIGH_PX - PAD.bottom - PAD.top}
            fill="var(--color-warn-wash)"
          />
        ))}
      <g fontSize="12" fill="var(--color-ink-2)">
        <LevelLines
          y={y}
          count={4}
          leftPx={PAD.left}
          rightPx={widthPx - PAD.right}
          name={(v) => `${figure(v, v % 1 ? 1 : 0)} kW`}
        />
        {HOURS.filter((h) => x(h) >= PAD.left && x(h) <= widthPx - PAD.right).map((h) => (
          <text key={h} x={x(h)} y={HIGH_PX - 5} textAnchor="middle">
            {h}:00
          </text>
        ))}
      </g>
      <path d={due(steps) ?? ''} fill="var(--color-patina-wash)" stroke="var(--color-patina)" />
      <path d={made(steps) ?? ''} fill="none" stroke="var(--color-copper)" strokeWidth="2" />
    </Chart>
  );
}

const clock = (hour: number) =>
  `${Math.floor(hour)}:${String(Math.round((hour % 1) * 60)).padStart(2, '0')}`;
