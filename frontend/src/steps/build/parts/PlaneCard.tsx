/** What the racking of a plane comes to, what is still asked, and ways out where it cannot be. */
import type { Schemas } from '@/api/client';
import { useJob } from '@/plan/JobContext';
import { Button } from '@/ui/Button';
import { Card } from '@/ui/Card';
import { Mark } from '@/ui/Mark';
import { Toggle } from '@/ui/Toggle';
import { capital, figure } from '@/units/format';
import { formatLength } from '@/units/length';
import { formatWeight, formatWeightByArea } from '@/units/weight';

export function PlaneCard({ racked }: { racked: Schemas['PlaneRackingView'] }) {
  const { job, option, act } = useJob();
  const choice = option.racking.planes.find((p) => p.plane_id === racked.plane_id);
  const pins = choice?.pins.length ?? 0;
  const blocking = choice?.blocking_m ?? [];
  const runOn = choice?.run_on ?? false;
  const trimmed = racked.runs.reduce(
    (ends, run) => ends + Number(run.trim_left_m > 0) + Number(run.trim_right_m > 0),
    0,
  );
  return (
    <Card title={racked.name} aside={racked.mounting} scrolls className="min-w-[300px] grow">
      {racked.asked.map((told) => (
        <p key={told} className="flex items-start gap-2 text-sm">
          <span className="mt-1 shrink-0">
            <Mark shape="ring" />
          </span>
          {told}
        </p>
      ))}
      {!racked.fits && (
        <p className="flex items-start gap-2 text-sm text-stop">
          <span className="mt-1 shrink-0">
            <Mark shape="square" />
          </span>
          This system is not made for what the roof is covered with.
        </p>
      )}
      {racked.amiss.length > 0 && (
        <>
          <ul className="text-sm text-stop">
            {racked.amiss.slice(0, 4).map((told) => (
              <li key={told}>{told}</li>
            ))}
          </ul>
          {racked.amiss.length > 4 && (
            <p className="text-xs text-ink-2">and {racked.amiss.length - 4} more</p>
          )}
          <ul className="mt-1 flex flex-col gap-1 text-sm">
            {racked.mends.map((mend) => (
              <li key={mend.told} className="flex items-start justify-between gap-2">
                {mend.told}
                <TakeIt mend={mend} />
              </li>
            ))}
          </ul>
        </>
      )}
      {racked.mounts > 0 && (
        <dl className="grid grid-cols-[1fr_auto] gap-x-3 gap-y-0.5 text-sm">
          <dt>{racked.ground ? 'Piles' : 'Mounts'}</dt>
          <dd className="text-right font-figure font-semibold">{figure(racked.mounts)}</dd>
          {!racked.ground && (
            <>
              <dt>{capital(racked.support)}s shared</dt>
              <dd className="text-right font-figure">
                {figure(racked.shared)}{' '}
                <span className="text-xs text-ink-2">
                  {racked.proven ? 'no fewer can be' : 'best found'}
                </span>
              </dd>
            </>
          )}
          <dt>Rail</dt>
          <dd className="text-right font-figure">{formatLength(racked.rail_m, job.unit)}</dd>
          {racked.pulled !== '' && (
            <>
              <dt>Pulled most</dt>
              <dd className="text-right font-figure">{racked.pulled}</dd>
            </>
          )}
          {racked.kg !== null && racked.kg_per_m2 !== null && (
            <>
              <dt>{racked.ground ? 'Weight of it all' : 'Weight on the roof'}</dt>
              <dd className="text-right font-figure">
                {formatWeight(racked.kg, job.unit)},{' '}
                {formatWeightByArea(racked.kg_per_m2, job.unit)}
              </dd>
            </>
          )}
        </dl>
      )}
      {racked.mounts > 0 && !racked.ground && (
        <p className="text-xs text-ink-2">
          Ring: a rail beside stands on the same {racked.support}. Square: held in place. Draw a
          mount to another {racked.support}, the rest is planned round it; draw a rail across its
          modules.
          {trimmed > 0 &&
            ` Dashed stroke: cut off there last, once the modules lie (${trimmed === 1 ? 'one end' : `${trimmed} ends`}).`}
          {racked.forced > 0 &&
            ` ${figure(racked.forced)} are shared at an end where no other ${racked.support} is near enough.`}
        </p>
      )}
      {racked.mounts > 0 && !racked.ground && racked.loads_asked.length > 0 && (
        <p className="text-xs text-ink-2">
          Pull of the wind not reckoned: {racked.loads_asked.join(', ')} not given (Loads).
        </p>
      )}
      {racked.cautions.map((told) => (
        <p key={told} className="text-xs">
          {told}
        </p>
      ))}
      {racked.mounting_id !== null && !racked.ground && (
        <Toggle
          on={runOn}
          onChange={(on) =>
            void act({
              kind: 'set-run-on',
              option_id: option.id,
              plane_id: racked.plane_id,
              on,
            })
          }
        >
          Rail ends may run on to the next {racked.support || 'support'}
        </Toggle>
      )}
      {racked.mounting_id !== null && racked.runs.some((run) => run.offset_m !== null) && (
        <Toggle
          on={(choice?.rails_a_row ?? 2) === 3}
          onChange={(on) =>
            void act({
              kind: 'set-rails-a-row',
              option_id: option.id,
              plane_id: racked.plane_id,
              count: on ? 3 : 2,
            })
          }
        >
          A third rail under each row
        </Toggle>
      )}
      {racked.engineer.length > 0 && (
        <details className="mt-1 text-xs">
          <summary className="min-h-6 cursor-pointer">
            {racked.engineer.length} things are an engineer’s, not judged here
          </summary>
          <ul className="list-disc pl-4">
            {racked.engineer.map((told) => (
              <li key={told}>{told}</li>
            ))}
          </ul>
        </details>
      )}
      {blocking.length > 0 && (
        <p className="mt-1 flex items-center justify-between gap-2 text-sm">
          Blocking at {blocking.map((at) => formatLength(at, job.unit)).join(', ')}
          <Button
            onClick={() =>
              void act({
                kind: 'set-blocking',
                option_id: option.id,
                plane_id: racked.plane_id,
                at_m: blocking,
                on: false,
              })
            }
          >
            Without it
          </Button>
        </p>
      )}
      {pins > 0 && (
        <p className="mt-1 flex items-center justify-between gap-2 text-sm">
          {pins === 1 ? '1 mount is held in place' : `${pins} mounts are held in place`}
          <Button
            onClick={() =>
              void act({ kind: 'clear-pins', option_id: option.id, plane_id: racked.plane_id })
            }
          >
            Let go of all
          </Button>
        </p>
      )}
    </Card>
  );
}

function TakeIt({ mend }: { mend: Schemas['Mend'] }) {
  const { act } = useJob();
  const { edit } = mend;
  if (edit === null) return null;
  return (
    <Button aria-label={`Take it: ${mend.told}`} onClick={() => void act(edit)}>
      Take it
    </Button>
  );
}
