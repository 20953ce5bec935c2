/** Modules on the roof by what they made beside their siblings of the same light. */
import { useState } from 'react';
import type { Schemas } from '@/api/client';
import { PlaneCanvas } from '@/drawing/PlaneCanvas';
import { shadeTint } from '@/drawing/shadeTint';
import { useJob } from '@/plan/JobContext';
import { moduleOn } from '@/plan/modules';
import { sceneOf } from '@/plan/scene';
import { TintedModules } from '@/plan/TintedModules';
import { figure } from '@/units/format';

export function ModulesMade({ modules }: { modules: readonly Schemas['ModuleMade'][] }) {
  const { job, option, state, report } = useJob();
  const [chosen, setChosen] = useState('');
  const used = job.survey.planes.filter((p) => option.arrays.some((a) => a.plane_id === p.id));
  const one = modules.find((m) => m.modules.includes(chosen));
  const odd = modules.filter((m) => m.tone !== 'known');
  const behind = (m: Schemas['ModuleMade']) => Math.max(0, 1 - (m.ratio ?? 1));
  const worst = Math.max(...modules.map(behind));
  return (
    <section aria-label="Modules" className="mt-3">
      <h2 className="font-semibold">
        {odd.length === 0
          ? 'No module stands out beside its siblings of the same light'
          : `${odd.length} of ${modules.length} ${odd.length === 1 ? 'stands' : 'stand'} out beside siblings of the same light`}
      </h2>
      <ul className="text-warn">
        {odd.map((m) => (
          <li key={m.name} className={m.tone === 'act' ? 'text-stop' : ''}>
            {m.name}: {figure((m.ratio ?? 0) * 100)} % of its {m.siblings} siblings,{' '}
            {figure(m.kwh, 1)} kWh
          </li>
        ))}
      </ul>
      <div className="flex min-h-72 gap-2 max-md:flex-col">
        {used.map((plane) => {
          const array = option.arrays.find((a) => a.plane_id === plane.id);
          const module = moduleOn(job, option, plane.id);
          return (
            <div key={plane.id} className="flex h-72 min-w-0 grow">
              <PlaneCanvas
                scene={sceneOf(plane, state, report)}
                label={`What modules on ${plane.name} made`}
                padPx={30}
              >
                {(camera) =>
                  array && module ? (
                    <TintedModules
                      camera={camera}
                      array={array}
                      module={module}
                      pick="one"
                      onPick={setChosen}
                      tileOf={(id, i) => {
                        const mine = modules.find((m) => m.modules.includes(id));
                        if (!mine) return null;
                        const told = mine.ratio === null ? '–' : `${figure(mine.ratio * 100)} %`;
                        return {
                          tint: shadeTint(behind(mine), worst),
                          told,
                          label: `Module ${i + 1}: ${told} of its siblings`,
                          picked: id === chosen,
                        };
                      }}
                    />
                  ) : null
                }
              </PlaneCanvas>
            </div>
          );
        })}
      </div>
      {one && (
        <p role="status">
          {one.name}: {figure(one.kwh, 1)} kWh,{' '}
          {one.ratio === null
            ? 'no siblings of the same light to hold it against'
            : `${figure(one.ratio * 100, 1)} % of ${one.siblings} siblings`}
        </p>
      )}
    </section>
  );
}
