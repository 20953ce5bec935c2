/** Sun: what shade takes of each module's light, who throws it, and what trimming gives back. */
import { useState } from 'react';
import type { RoofPlane } from '@/api/client';
import { useShade } from '@/api/sunQueries';
import { PlaneCanvas } from '@/drawing/PlaneCanvas';
import { useJob } from '@/plan/JobContext';
import { PlaneTabs } from '@/plan/PlaneTabs';
import { sceneOf } from '@/plan/scene';
import { Button } from '@/ui/Button';
import { Board, Toolbar } from '@/ui/Card';
import { Choice } from '@/ui/Choice';
import { useKeys } from '@/ui/useKeys';
import { MONTHS } from '@/units/format';
import { CulpritsCard } from './parts/CulpritsCard';
import { PathView } from './parts/PathView';
import { ShadedModules } from './parts/ShadedModules';
import { WorstCard } from './parts/WorstCard';

export default function SunStep() {
  const { plane, report } = useJob();
  if (!plane) return <p className="p-6 text-sm text-ink-2">Measure a roof plane first.</p>;
  if (report.modules === 0)
    return (
      <p className="p-6 text-sm text-ink-2">
        No module is laid yet: fill a roof in the Array step, and its shade is worked out here.
      </p>
    );
  return <SunOnPlane plane={plane} />;
}

const YEAR = 'year';
const VIEWS = [
  { id: 'shade', title: 'Shade', hint: '1' },
  { id: 'path', title: 'Sun path', hint: '2' },
] as const;

function SunOnPlane({ plane }: { plane: RoofPlane }) {
  const { state, job, option, report, at } = useJob();
  const [month, setMonth] = useState<number | null>(null);
  const [chosenId, setChosenId] = useState('');
  const [view, setView] = useState<'shade' | 'path'>('shade');
  const { query, behind } = useShade(at, true);
  const shade = query.data;
  const array = option.arrays.find((a) => a.plane_id === plane.id);
  const module = job.equipment.modules.find((m) => m.id === option.module_id);
  const next = (by: number) =>
    setMonth((now) => {
      const stop = (now === null ? 12 : now) + by;
      return (stop + 13) % 13 === 12 ? null : (stop + 13) % 13;
    });
  useKeys({
    ',': () => next(-1),
    '.': () => next(1),
    y: () => setMonth(null),
    '1': () => setView('shade'),
    '2': () => setView('path'),
  });
  const nameOf = (id: string) => {
    for (const a of option.arrays) {
      const i = a.modules.findIndex((m) => m.id === id);
      const name = job.survey.planes.find((p) => p.id === a.plane_id)?.name ?? '';
      if (i >= 0) return option.arrays.length > 1 ? `${name} ${i + 1}` : `Module ${i + 1}`;
    }
    return id;
  };
  return (
    <>
      <Toolbar>
        {VIEWS.map(({ id, title, hint }) => (
          <Button
            key={id}
            hint={hint}
            weight={view === id ? 'pressed' : 'plain'}
            aria-pressed={view === id}
            onClick={() => setView(id)}
          >
            {title}
          </Button>
        ))}
        {view === 'shade' && (
          <Choice
            label="Time of year"
            value={month === null ? YEAR : String(month)}
            items={[
              { value: YEAR, label: 'Whole year' },
              ...MONTHS.map((name, i) => ({ value: String(i), label: name })),
            ]}
            onChange={(value) => setMonth(value === YEAR ? null : Number(value))}
          />
        )}
        <span className="min-w-0 grow truncate text-sm" title={shade?.told}>
          {shade?.told ?? ''}
        </span>
        {shade && (
          <span className="text-sm whitespace-nowrap text-ink-2">{shade.resolution} sky</span>
        )}
      </Toolbar>
      <PlaneTabs />
      {view === 'path' ? (
        <PathView plane={plane} moduleId={chosenId} />
      ) : (
        <>
          <PlaneCanvas
            scene={sceneOf(plane, state, report)}
            label={`Shade on ${plane.name}`}
            padPx={44}
            zoomable
            overlay={() => (
              <>
                {query.isPending && (
                  <p role="status" className="absolute top-2 left-3 text-sm text-ink-2">
                    Looking at the sky from every module
                  </p>
                )}
                {query.isError && (
                  <p
                    role="alert"
                    className="absolute top-2 left-3 rounded-md border border-stop bg-sheet px-2 py-1 text-sm text-stop"
                  >
                    {query.error.message}
                  </p>
                )}
              </>
            )}
          >
            {(camera) =>
              array && module && shade ? (
                <g opacity={behind ? 0.55 : 1} aria-busy={behind}>
                  <ShadedModules
                    camera={camera}
                    array={array}
                    module={module}
                    shade={shade}
                    month={month}
                    chosenId={chosenId}
                    onChoose={setChosenId}
                  />
                </g>
              ) : null
            }
          </PlaneCanvas>
          <Board heightPx={216}>
            {shade && (
              <>
                <CulpritsCard shade={shade} behind={behind} />
                <WorstCard
                  shade={shade}
                  month={month}
                  nameOf={nameOf}
                  chosenId={chosenId}
                  onChoose={setChosenId}
                />
              </>
            )}
          </Board>
        </>
      )}
    </>
  );
}
