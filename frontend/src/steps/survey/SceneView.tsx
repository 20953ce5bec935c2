/** The whole survey as it stands, to catch a plane that looks the wrong way at a glance. */
import { useQuery } from '@tanstack/react-query';
import { lazy, Suspense, useState } from 'react';
import type { RoofPlane } from '@/api/client';
import { useJob } from '@/plan/JobContext';
import type { SceneLabel, Standpoint } from '@/scene/SiteScene';
import { Board } from '@/ui/Board';
import { Button } from '@/ui/Button';
import { Card, Toolbar } from '@/ui/Card';
import { Failed, Waiting } from '@/ui/States';
import { facingWord } from '@/units/facing';
import { figure } from '@/units/format';
import { degrees } from './parts/PlaneFace';
import { sceneQuery } from './queries';
import type { SurveyViewProps } from './views';

const SiteScene = lazy(() => import('@/scene/SiteScene'));

const STANDPOINTS: [string, number, number][] = [
  ['From the south', 180, 24],
  ['East', 90, 24],
  ['North', 0, 24],
  ['West', 270, 24],
  ['Above', 180, 88],
];
const OPENING = <Waiting>Opening the 3-D drawing</Waiting>;

interface SceneViewProps extends SurveyViewProps {
  plane: RoofPlane;
}

export function SceneView({ plane, views }: SceneViewProps) {
  const { job, survey, at, showPlane } = useJob();
  const scene = useQuery(sceneQuery(at));
  const [standpoint, setStandpoint] = useState<Standpoint>({
    bearingDeg: job.site.latitude_deg < 0 ? 20 : 200,
    elevationDeg: 30,
    asked: 0,
  });
  const labels: SceneLabel[] = survey.planes.flatMap((seen, i) => {
    const p = job.survey.planes[i];
    if (!p || seen.site.length === 0) return [];
    const mean = (pick: (c: (typeof seen.site)[number]) => number) =>
      seen.site.reduce((sum, c) => sum + pick(c), 0) / seen.site.length;
    return [
      {
        id: p.id,
        text: p.name,
        at: {
          east_m: mean((c) => c.east_m),
          north_m: mean((c) => c.north_m),
          up_m: mean((c) => c.up_m),
        },
        azimuthDeg: p.azimuth_deg,
        chosen: p.id === plane.id,
      },
    ];
  });
  return (
    <>
      <Toolbar>
        {STANDPOINTS.map(([title, bearingDeg, elevationDeg]) => (
          <Button
            key={title}
            aria-label={`Look ${title.toLowerCase()}`}
            onClick={() => setStandpoint({ bearingDeg, elevationDeg, asked: standpoint.asked + 1 })}
          >
            {title}
          </Button>
        ))}
        {views}
      </Toolbar>
      <div className="min-h-0 grow" role="img" aria-label="The site in three dimensions">
        {scene.isError && <Failed error={scene.error} />}
        <Suspense fallback={OPENING}>
          {scene.data ? (
            <SiteScene
              faces={scene.data.faces}
              rounds={scene.data.rounds}
              labels={labels}
              standpoint={standpoint}
              southern={job.site.latitude_deg < 0}
            />
          ) : (
            scene.isPending && OPENING
          )}
        </Suspense>
      </div>
      <Board heightPx={170}>
        <Card title="Which way it looks" aside="drag to walk round" className="grow">
          <ul className="flex flex-wrap gap-x-6 text-sm">
            {job.survey.planes.map((p) => (
              <li key={p.id}>
                <button
                  type="button"
                  aria-pressed={p.id === plane.id}
                  className={`min-h-7 rounded-sm px-2 text-left ${p.id === plane.id ? 'bg-copper-wash' : 'hover:bg-paper'}`}
                  onClick={() => showPlane(p.id)}
                >
                  <b className="font-medium">{p.name}</b> looks {facingWord(p.azimuth_deg)} (
                  {degrees(p.azimuth_deg)}), slope {figure(p.slope_deg, 1)}°
                  {!p.azimuth_given && <span className="text-warn">, azimuth a guess</span>}
                  {p.eave_height === null && <span className="text-warn">, height a guess</span>}
                </button>
              </li>
            ))}
          </ul>
          <p className="mt-1 text-xs text-ink-2">
            Drawn from the readings as they are, walls straight down to level ground; what is
            guessed is pale. Nothing is measured here.
          </p>
        </Card>
      </Board>
    </>
  );
}
