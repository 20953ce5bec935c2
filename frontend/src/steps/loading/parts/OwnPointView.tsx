/** What converters at single modules would give here: picked on the roof, reckoned beside it. */
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { Schemas } from '@/api/client';
import { PlaneCanvas } from '@/drawing/PlaneCanvas';
import { shadeTint } from '@/drawing/shadeTint';
import { useJob } from '@/plan/JobContext';
import { moduleOn } from '@/plan/modules';
import { sceneOf } from '@/plan/scene';
import { type Tile, TintedModules } from '@/plan/TintedModules';
import { Button } from '@/ui/Button';
import { figure, signed } from '@/units/format';
import { ownPointQuery } from '../queries';

type Way = Schemas['WayYear'];

export function OwnPointView() {
  const { at, job, option, state, report } = useJob();
  const [picked, setPicked] = useState<readonly string[] | null>(null);
  const { data, isError, error, isFetching } = useQuery(ownPointQuery(at, picked));
  const used = job.survey.planes.filter((p) => option.arrays.some((a) => a.plane_id === p.id));
  const helped = picked ?? data?.modules.filter((m) => m.helped).map((m) => m.module_id) ?? [];
  const toggle = (id: string) =>
    setPicked(helped.includes(id) ? helped.filter((h) => h !== id) : [...helped, id]);
  return (
    <>
      <div className="flex items-center gap-2 px-3.5 pt-2 text-sm">
        <span>
          The light shade leaves each module. Click those that get an add-on optimizer:{' '}
          {helped.length} {helped.length === 1 ? 'has' : 'have'} one.
        </span>
        {picked !== null && <Button onClick={() => setPicked(null)}>Back to the darkest</Button>}
      </div>
      <div className="flex min-h-0 grow gap-2 max-md:min-h-fit max-md:flex-col">
        {used.map((plane) => {
          const array = option.arrays.find((a) => a.plane_id === plane.id);
          const module = moduleOn(job, option, plane.id);
          return (
            <PlaneCanvas
              key={plane.id}
              scene={sceneOf(plane, state, report)}
              label={`Optimizers on ${plane.name}`}
              padPx={36}
            >
              {(camera) =>
                array && module && data ? (
                  <TintedModules
                    camera={camera}
                    array={array}
                    module={module}
                    pick="any"
                    onPick={toggle}
                    tileOf={(id, i) => tileOf(data.modules, helped, id, i)}
                  />
                ) : null
              }
            </PlaneCanvas>
          );
        })}
      </div>
      <section
        aria-label="Ways to the grid"
        aria-busy={isFetching}
        className="shrink-0 border-t border-rule bg-sheet px-3.5 py-2"
      >
        {isError && (
          <p role="alert" className="text-sm text-stop">
            {error.message}
          </p>
        )}
        {!data && !isError && (
          <p role="status" className="text-sm text-ink-2">
            Strings alone, optimizers where they are ticked and on all, microinverters: the year of
            each, side by side.
          </p>
        )}
        {data && (
          <ul
            className={`grid gap-3 max-md:grid-cols-2! ${isFetching ? 'opacity-50' : ''}`}
            style={{ gridTemplateColumns: `repeat(${data.ways.length}, minmax(0, 1fr))` }}
          >
            {data.ways.map((way) => (
              <WayCard key={way.unit || way.way} way={way} helped={helped} />
            ))}
          </ul>
        )}
        <p className="mt-2 text-xs text-ink-2">
          Years by the hour. Units are invented samples; strings stay as they are threaded. What
          microinverters give is mostly their higher limit where that differs. Once taken, its rules
          stand in the Tally: copy the option first to keep this one.
        </p>
      </section>
    </>
  );
}

/** A module by the light shade leaves it, and whether it has an optimizer. */
function tileOf(
  shares: readonly Schemas['ModuleShare'][],
  helped: readonly string[],
  id: string,
  index: number,
): Tile | null {
  const mine = shares.find((s) => s.module_id === id);
  if (!mine) return null;
  const worst = Math.max(...shares.map((s) => 1 - s.light_frac));
  const told = `${figure(mine.light_frac * 100)} %`;
  return {
    tint: shadeTint(1 - mine.light_frac, worst),
    told,
    label: `Module ${index + 1}, ${told} of its light: optimizer`,
    picked: helped.includes(id),
  };
}

const TITLES: Record<Way['way'], string> = {
  strung: 'Strings as they are',
  'add-on': 'Optimizers where marked',
  system: 'Optimizers on all',
  micro: 'Microinverters',
};

const ARCHITECTURE: Record<Way['way'], Schemas['Architecture']> = {
  strung: 'strings',
  'add-on': 'add-on-optimizers',
  system: 'system-optimizers',
  micro: 'microinverters',
};

function WayCard({ way, helped }: { way: Way; helped: readonly string[] }) {
  const { option, act } = useJob();
  const { architecture, optimizer_id, microinverter_id } = option.electronics;
  const chosen =
    architecture === ARCHITECTURE[way.way] &&
    way.unit_id === (optimizer_id ?? microinverter_id ?? '');
  const use = async () => {
    await act({
      kind: 'choose-electronics',
      option_id: option.id,
      architecture: ARCHITECTURE[way.way],
      unit_id: way.unit_id,
    });
    if (way.way === 'add-on' && helped.length > 0)
      await act({
        kind: 'fit-optimizers',
        option_id: option.id,
        module_ids: [...helped],
        on: true,
      });
  };
  return (
    <li className="text-sm">
      <p className="font-medium">{TITLES[way.way]}</p>
      {way.energy_kwh !== null && (
        <p className="whitespace-nowrap font-figure text-lg font-semibold">
          {figure(way.energy_kwh)} kWh
        </p>
      )}
      {way.unit && way.gain_kwh !== null && way.gain_frac !== null && (
        <p className="font-figure">
          {signed(way.gain_kwh) || '0'} kWh, {signed(way.gain_frac * 100, 1) || '0.0'} %
        </p>
      )}
      <p className="text-xs text-ink-2">{way.unit && `${way.units} × ${way.unit}`}</p>
      <p className="text-xs text-ink-2">
        limit {figure(way.limit_kw, 2)} kW
        {way.clipped_kwh !== null && `, clips ${figure(way.clipped_kwh)} kWh`}
      </p>
      {way.problem && <p className="text-xs text-stop">{way.problem}</p>}
      {chosen ? (
        <p className="mt-1 text-xs text-ink-2">chosen for this option</p>
      ) : (
        <Button
          className="mt-1"
          aria-label={`Take it: ${way.unit || 'strings alone'}`}
          onClick={() => void use()}
        >
          Take it
        </Button>
      )}
    </li>
  );
}
