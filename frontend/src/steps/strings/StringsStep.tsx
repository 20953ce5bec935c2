/** Strings: threads on the plan, a card for each tracker with its voltage window. */
import { useQuery } from '@tanstack/react-query';
import { useRef } from 'react';
import type { RoofPlane } from '@/api/client';
import { shelfQuery } from '@/api/queries';
import { PlaneCanvas } from '@/drawing/PlaneCanvas';
import { useJob, useSaving } from '@/plan/JobContext';
import { PlaneTabs } from '@/plan/PlaneTabs';
import { sceneOf } from '@/plan/scene';
import { stockFirst } from '@/plan/stock';
import { Button } from '@/ui/Button';
import { Board, Toolbar } from '@/ui/Card';
import { Choice } from '@/ui/Choice';
import { useKeys } from '@/ui/useKeys';
import { TemperaturesCard } from './parts/TemperaturesCard';
import { Threads } from './parts/Threads';
import { TrackerCard } from './parts/TrackerCard';

export default function StringsStep() {
  const { plane } = useJob();
  if (!plane) return <p className="p-6 text-sm text-ink-2">Measure a roof plane first.</p>;
  return <PlaneStrings plane={plane} />;
}

function PlaneStrings({ plane }: { plane: RoofPlane }) {
  const { state, job, option, report, act } = useJob();
  const saving = useSaving();
  const shelf = useQuery(shelfQuery);
  const inverter = job.equipment.inverters.find((i) => i.id === option.inverter_id);
  const inverters = shelf.data?.inverters ?? (inverter ? [inverter] : []);
  const array = option.arrays.find((a) => a.plane_id === plane.id);
  const module = job.equipment.modules.find((m) => m.id === option.module_id);
  const longest = Math.max(0, ...option.strings.map((s) => s.module_ids.length));
  const wish = (modules: number | null) =>
    act({ kind: 'wish-series-length', option_id: option.id, modules_in_series: modules });
  // Clicks faster than the answers add up from what was asked for last, not from what is shown.
  const asked = useRef(0);
  if (!saving) asked.current = option.series_wish ?? longest;
  const change = (by: number) => {
    asked.current = Math.min(60, Math.max(1, asked.current + by));
    wish(asked.current);
  };
  const longer = () => change(1);
  const shorter = () => change(-1);
  useKeys({ '+': longer, '=': longer, '-': shorter, a: () => wish(null) });
  return (
    <>
      <Toolbar>
        <Choice
          label="Inverter"
          value={option.inverter_id}
          items={stockFirst(inverters, job.brief.stock, 'inverter')}
          onChange={(inverter_id) =>
            act({ kind: 'choose-inverter', option_id: option.id, inverter_id })
          }
          className="min-w-[250px]"
        />
        <span className="ml-1 text-sm">In series</span>
        <fieldset className="flex" aria-label="Modules in series">
          <Button
            aria-label="One fewer in series"
            className="rounded-r-none"
            disabled={longest === 0}
            onClick={shorter}
          >
            −
          </Button>
          <span className="flex h-[27px] min-w-[66px] items-center justify-center border-y border-rule bg-sheet px-2 font-figure text-base font-semibold">
            {option.series_wish ?? `auto ${longest || ''}`}
          </span>
          <Button
            aria-label="One more in series"
            className="rounded-l-none"
            disabled={longest === 0}
            onClick={longer}
          >
            +
          </Button>
        </fieldset>
        <Button
          hint="A"
          weight={option.series_wish === null ? 'pressed' : 'plain'}
          onClick={() => wish(null)}
        >
          Let the planner choose
        </Button>
        <span className="grow" />
        <span className="text-sm whitespace-nowrap text-ink-2">
          {report.series_min} to {report.series_max} fit
        </span>
      </Toolbar>
      <PlaneTabs />
      <PlaneCanvas
        scene={sceneOf(plane, state, report)}
        label={`Strings on ${plane.name}`}
        padPx={36}
      >
        {(camera) =>
          array && module ? (
            <Threads camera={camera} array={array} module={module} strings={option.strings} />
          ) : null
        }
      </PlaneCanvas>
      <Board heightPx={228}>
        <TemperaturesCard />
        {report.trackers.map((tracker) => (
          <TrackerCard key={tracker.number} tracker={tracker} />
        ))}
      </Board>
    </>
  );
}
