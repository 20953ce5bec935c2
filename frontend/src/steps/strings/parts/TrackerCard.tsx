/** One tracker: its strings, its voltage window, its currents. */
import { useState } from 'react';
import type { Schemas } from '@/api/client';
import { useCatchingUp } from '@/api/useYear';
import { threadOf } from '@/drawing/threads';
import { useJob } from '@/plan/JobContext';
import { Card } from '@/ui/Card';
import { Mark, type Shape } from '@/ui/Mark';
import { figure, taken } from '@/units/format';
import { trackerLossesQuery } from '../queries';
import { VoltageWindow } from './VoltageWindow';

/** What a string's tag is carried as. */
const STRING = 'application/x-ridge-tally-string';

interface TrackerCardProps {
  tracker: Schemas['TrackerView'];
  onString: (tag: string) => void;
}

export function TrackerCard({ tracker, onString }: TrackerCardProps) {
  const { option, report, act } = useJob();
  const [over, setOver] = useState(false);
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
      aside={
        <span className="flex items-center gap-1.5">
          {tracker.inverter}
          <Mark shape={shape} />
        </span>
      }
      className={`w-[270px] shrink-0 ${over ? 'border-patina bg-patina-wash' : ''}`}
      dropped={{
        onDragOver: (event) => {
          if (!event.dataTransfer.types.includes(STRING)) return;
          event.preventDefault();
          setOver(true);
        },
        onDragLeave: () => setOver(false),
        onDrop: (event) => {
          setOver(false);
          const tag = event.dataTransfer.getData(STRING);
          if (tag && !tracker.strings.includes(tag))
            void act({
              kind: 'move-string',
              option_id: option.id,
              tag,
              tracker_number: tracker.number,
            });
        },
      }}
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
                <button
                  key={tag}
                  type="button"
                  draggable
                  aria-label={`String ${tag}: look at it, or draw it to another tracker`}
                  onClick={() => onString(tag)}
                  onDragStart={(event) => event.dataTransfer.setData(STRING, tag)}
                  className="min-h-6 cursor-grab rounded-full px-2 font-semibold text-sheet"
                  style={{ background: threadOf(index).colour }}
                >
                  {tag}
                  {option.strings[index]?.locked && (
                    <span
                      aria-hidden="true"
                      className="mb-0.5 ml-1.5 inline-block h-1.5 w-1.5 rounded-full bg-sheet"
                    />
                  )}
                </button>
              );
            })}
            {tracker.modules_in_series} modules in series
          </p>
          {tracker.held_v === null ? (
            <>
              <VoltageWindow tracker={tracker} />
              <p className="text-xs text-ink-2">
                {tracker.planes.join(' and ')}. Imp {figure(tracker.i_operating_a, 1)} A
                {tracker.i_hot_a !== null && `, hot ${figure(tracker.i_hot_a, 1)} A`} of{' '}
                {figure(tracker.i_operating_max_a, 1)} A{'  '}· Isc × factor{' '}
                {figure(tracker.i_short_a, 1)} A of{' '}
                {tracker.i_short_max_a === null
                  ? 'not given'
                  : `${figure(tracker.i_short_max_a, 1)} A`}
              </p>
            </>
          ) : (
            <p className="mt-1 text-sm">
              Held at {figure(tracker.held_v)} V
              <span className="block text-xs text-ink-2">
                {tracker.planes.join(' and ')}. In full sun {figure(tracker.held_a ?? 0, 1)} A of{' '}
                {figure(tracker.i_operating_max_a, 1)} A. {report.at_modules.unit} at every module.
              </span>
            </p>
          )}
          <TrackerYear number={tracker.number} />
          {tracker.strings.length > 1 && (
            <p className="mt-0.5 text-xs text-warn">
              Prove the polarity of each string before they are joined.
            </p>
          )}
        </>
      )}
    </Card>
  );
}

/** What the tracker loses in a year, worked out when edits pause. */
function TrackerYear({ number }: { number: number }) {
  const { at } = useJob();
  const { query, behind } = useCatchingUp(at, trackerLossesQuery);
  const losses = query.data?.find((l) => l.number === number);
  if (!losses) return null;
  const { uneven_kwh, mixed_kwh, limits_kwh, over_hours } = losses;
  const told = [
    `uneven ${taken(uneven_kwh)} kWh`,
    ...(mixed_kwh === null ? [] : [`of it mixing ${taken(Math.max(0, mixed_kwh))}`]),
    ...(limits_kwh >= 0.5 ? [`its limits ${taken(limits_kwh)}`] : []),
    ...(over_hours > 0 ? [`${figure(over_hours)} h over its current`] : []),
  ];
  return (
    <p className={`mt-0.5 text-xs text-ink-2 ${behind ? 'opacity-50' : ''}`}>
      A year, DC: {told.join(', ')}.
    </p>
  );
}
