/** One tracker: its strings, its voltage window, its currents. */
import type { Schemas } from '@/api/client';
import { threadOf } from '@/drawing/threads';
import { useJob } from '@/plan/JobContext';
import { Card } from '@/ui/Card';
import { Mark, type Shape } from '@/ui/Mark';
import { figure } from '@/units/format';
import { VoltageWindow } from './VoltageWindow';

export function TrackerCard({ tracker }: { tracker: Schemas['TrackerView'] }) {
  const { option, report } = useJob();
  const subjects = [`tracker ${tracker.number}`, ...tracker.strings.map((tag) => `string ${tag}`)];
  const off = report.checks.filter(
    ({ check }) =>
      subjects.includes(check.subject) && check.verdict !== 'kept' && check.kind !== 'note',
  );
  const stop = off.some(({ check }) => check.kind === 'stop' && check.verdict === 'broken');
  const shape: Shape =
    tracker.strings.length === 0 ? 'ring' : stop ? 'square' : off.length ? 'triangle' : 'circle';
  return (
    <Card
      title={`Tracker ${tracker.number}`}
      aside={<Mark shape={shape} />}
      className="w-[270px] shrink-0"
    >
      {tracker.strings.length === 0 ? (
        <p className="text-sm text-ink-2">
          No string. Some inverters want an unused input closed: see its manual.
        </p>
      ) : (
        <>
          <p className="flex flex-wrap items-center gap-1.5 text-sm">
            {tracker.strings.map((tag) => {
              const index = option.strings.findIndex((s) => s.tag === tag);
              return (
                <span
                  key={tag}
                  className="rounded-full px-2 font-semibold text-sheet"
                  style={{ background: threadOf(index).colour }}
                >
                  {tag}
                </span>
              );
            })}
            {tracker.modules_in_series} modules in series
          </p>
          <VoltageWindow tracker={tracker} />
          <p className="text-xs text-ink-2">
            Imp {figure(tracker.i_operating_a, 1)} A of {figure(tracker.i_operating_max_a, 1)} A
            {'  '}· Isc × factor {figure(tracker.i_short_a, 1)} A of{' '}
            {tracker.i_short_max_a === null ? 'not given' : `${figure(tracker.i_short_max_a, 1)} A`}
          </p>
        </>
      )}
    </Card>
  );
}
