/** The plane with each module tinted by what shade takes, and the figures behind it. */
import { useState } from 'react';
import type { RoofPlane } from '@/api/client';
import { PlaneCanvas } from '@/drawing/PlaneCanvas';
import { useJob } from '@/plan/JobContext';
import { moduleOn } from '@/plan/modules';
import { sceneOf } from '@/plan/scene';
import { Board } from '@/ui/Board';
import { TabbedCard } from '@/ui/TabbedCard';
import type { Period } from '../periods';
import type { ShadeReport } from '../queries';
import { CulpritsCard } from './CulpritsCard';
import { HoursTable } from './HoursTable';
import { ShadedModules } from './ShadedModules';
import { WorstCard } from './WorstCard';

interface ShadeViewProps {
  plane: RoofPlane;
  shade: ShadeReport | undefined;
  behind: boolean;
  problem: string;
  period: Period;
  chosenId: string;
  nameOf: (id: string) => string;
  onChoose: (id: string) => void;
  onCulprit: (number: number) => void;
  /** Of the moment looked at in the other views. */
  month: number;
  hour: number;
}

export function ShadeView({
  plane,
  shade,
  behind,
  problem,
  period,
  chosenId,
  nameOf,
  onChoose,
  onCulprit,
  month,
  hour,
}: ShadeViewProps) {
  const { state, job, option, report } = useJob();
  const [face, setFace] = useState('modules');
  const array = option.arrays.find((a) => a.plane_id === plane.id);
  const module = moduleOn(job, option, plane.id);
  return (
    <>
      <PlaneCanvas
        scene={sceneOf(plane, state, report)}
        label={`Shade on ${plane.name}`}
        padPx={44}
        zoomable
        overlay={() => (
          <>
            {!shade && !problem && (
              <p role="status" className="absolute top-2 left-3 text-sm text-ink-2">
                Looking at the sky from every module
              </p>
            )}
            {problem && (
              <p
                role="alert"
                className="absolute top-2 left-3 rounded-md border border-stop bg-sheet px-2 py-1 text-sm text-stop"
              >
                {problem}
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
                period={period}
                chosenId={chosenId}
                onChoose={onChoose}
              />
            </g>
          ) : null
        }
      </PlaneCanvas>
      <Board heightPx={250}>
        {shade && (
          <>
            <CulpritsCard shade={shade} behind={behind} picked={null} onPick={onCulprit} />
            <TabbedCard
              label="Shade in figures"
              value={face}
              onValueChange={setFace}
              className="min-w-[420px] grow basis-0"
              faces={[
                {
                  id: 'modules',
                  title: 'Module by module',
                  body: (
                    <WorstCard
                      shade={shade}
                      period={period}
                      nameOf={nameOf}
                      chosenId={chosenId}
                      onChoose={onChoose}
                    />
                  ),
                },
                {
                  id: 'hours',
                  title: 'Month by hour',
                  aside: chosenId ? nameOf(chosenId) : 'whole array',
                  body: (
                    <HoursTable
                      moduleId={chosenId}
                      name={chosenId ? nameOf(chosenId) : 'Whole array'}
                      month={month}
                      hour={hour}
                    />
                  ),
                },
              ]}
            />
          </>
        )}
      </Board>
    </>
  );
}
