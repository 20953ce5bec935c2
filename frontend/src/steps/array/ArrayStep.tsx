/** Array: fill the plane, compare the fills, take single modules off or put them back. */
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { RoofPlane } from '@/api/client';
import { alternativesQuery, shelfQuery } from '@/api/queries';
import { useSettled } from '@/api/useYear';
import { PlaneCanvas } from '@/drawing/PlaneCanvas';
import { useJob } from '@/plan/JobContext';
import { PlaneTabs } from '@/plan/PlaneTabs';
import { sceneOf } from '@/plan/scene';
import { stockFirst } from '@/plan/stock';
import { Button } from '@/ui/Button';
import { Board, Toolbar } from '@/ui/Card';
import { Choice } from '@/ui/Choice';
import { useKeys } from '@/ui/useKeys';
import { AlternativeCard } from './parts/AlternativeCard';
import { ModuleField } from './parts/ModuleField';

export default function ArrayStep() {
  const { plane } = useJob();
  if (!plane) return <p className="p-6 text-sm text-ink-2">Measure a roof plane first.</p>;
  return <PlaneArray key={plane.id} plane={plane} />;
}

function PlaneArray({ plane }: { plane: RoofPlane }) {
  const { state, job, option, report, at, act } = useJob();
  const shelf = useQuery(shelfQuery);
  const settled = useSettled(at);
  const fills = useQuery(alternativesQuery(settled, plane.id));
  const [focused, setFocused] = useState('');
  const array = option.arrays.find((a) => a.plane_id === plane.id);
  const module = job.equipment.modules.find((m) => m.id === option.module_id);
  const view = report.planes.find((p) => p.plane_id === plane.id);
  const fill = (orientation: 'P' | 'L') =>
    act({ kind: 'fill-plane', option_id: option.id, plane_id: plane.id, orientation });
  const step = (by: number) => {
    const list = fills.data ?? [];
    const here = list.findIndex((a) => a.orientation === array?.orientation);
    const next = list[(here + by + list.length) % Math.max(list.length, 1)];
    if (next) fill(next.orientation);
  };
  useKeys({ p: () => fill('P'), l: () => fill('L'), ',': () => step(-1), '.': () => step(1) });
  const modules = shelf.data?.modules ?? (module ? [module] : []);
  const present = array?.modules.filter((m) => m.present).length ?? 0;
  return (
    <>
      <Toolbar>
        <Button
          hint="P"
          weight={array?.orientation === 'P' ? 'pressed' : 'plain'}
          onClick={() => fill('P')}
        >
          Fill portrait
        </Button>
        <Button
          hint="L"
          weight={array?.orientation === 'L' ? 'pressed' : 'plain'}
          onClick={() => fill('L')}
        >
          Fill landscape
        </Button>
        <Choice
          label="Module"
          value={option.module_id}
          items={stockFirst(modules, job.brief.stock, 'module')}
          onChange={(module_id) => act({ kind: 'choose-module', option_id: option.id, module_id })}
          className="min-w-0 max-w-[300px]"
        />
        <span className="grow" />
        <span className="text-sm whitespace-nowrap text-ink-2">
          {array
            ? `${present} of ${array.modules.length} places taken; click to take off`
            : 'Nothing placed yet'}
        </span>
      </Toolbar>
      <PlaneTabs />
      <PlaneCanvas
        scene={sceneOf(plane, state, report)}
        label={`Modules on ${plane.name}`}
        padPx={44}
      >
        {(camera) =>
          array && module && view ? (
            <ModuleField
              camera={camera}
              array={array}
              module={module}
              view={view}
              focused={focused}
              onFocus={setFocused}
              onToggle={(id) =>
                act({ kind: 'toggle-modules', option_id: option.id, module_ids: [id] })
              }
            />
          ) : null
        }
      </PlaneCanvas>
      <Board>
        {fills.isPending && <p className="text-sm text-ink-2">Counting the fills</p>}
        {fills.isError && <p className="text-sm text-stop">{fills.error.message}</p>}
        {fills.data?.map((alternative) => (
          <AlternativeCard
            key={alternative.orientation}
            alternative={alternative}
            scene={sceneOf(plane, state, report)}
            inUse={alternative.orientation === array?.orientation}
            stale={fills.isPlaceholderData}
            onUse={() => fill(alternative.orientation)}
          />
        ))}
        {module && (
          <p className="w-[210px] shrink-0 self-end text-xs text-ink-2">
            {module.name}: {module.long_m} × {module.short_m} m, {module.mass_kg} kg.{' '}
            {module.provenance} Two people lift a module; work at height needs fall protection.
          </p>
        )}
      </Board>
    </>
  );
}
