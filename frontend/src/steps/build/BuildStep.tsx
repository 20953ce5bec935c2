/** Build: rails, mounts, sticks and chalk lines; circuits, the one-line, the panel; parts to bring. */
import { useQuery } from '@tanstack/react-query';
import type { RoofPlane, Schemas } from '@/api/client';
import { shelfQuery } from '@/api/queries';
import { Behind } from '@/plan/Behind';
import { useJob } from '@/plan/JobContext';
import { NoModules } from '@/plan/NoModules';
import { PlaneTabs } from '@/plan/PlaneTabs';
import { useStudy } from '@/plan/useStudy';
import { useView } from '@/plan/useView';
import { Button } from '@/ui/Button';
import { Toolbar } from '@/ui/Card';
import { Choice } from '@/ui/Choice';
import { Empty, Failed, Waiting } from '@/ui/States';
import { ViewButtons } from '@/ui/ViewButtons';
import { CircuitsView } from './circuits/CircuitsView';
import { OneLineView } from './circuits/OneLineView';
import { PanelView } from './circuits/PanelView';
import { ChalkView } from './parts/ChalkView';
import { CutView } from './parts/CutView';
import { PartsView } from './parts/PartsView';
import { RailsView } from './parts/RailsView';
import { circuitsQuery, rackingQuery } from './queries';
import { VIEWS } from './views';

type ViewId = (typeof VIEWS)[number]['id'];

const ELECTRICAL = new Set<ViewId>(['circuits', 'one-line', 'panel']);
const NONE = 'none';

export default function BuildStep() {
  const { plane, report } = useJob();
  if (!plane) return <Empty>Measure a roof plane first.</Empty>;
  if (report.modules === 0) return <NoModules wants="rails and mounts follow the modules." />;
  return <Screen plane={plane} />;
}

function Screen({ plane }: { plane: RoofPlane }) {
  const [view, setView] = useView(VIEWS);
  return (
    <>
      <Toolbar>
        <ViewButtons views={VIEWS} view={view} onView={setView} />
        {view === 'rails' && <SystemChoice plane={plane} />}
        {view === 'rails' && <AimChoice />}
      </Toolbar>
      {view === 'rails' && <PlaneTabs />}
      {view === 'chalk' && (
        // The sheet names its plane itself.
        <div className="for-the-hand">
          <PlaneTabs />
        </div>
      )}
      {ELECTRICAL.has(view) ? <Electrical view={view} /> : <Mechanical plane={plane} view={view} />}
    </>
  );
}

function Mechanical({ plane, view }: { plane: RoofPlane; view: ViewId }) {
  const { at } = useJob();
  const { found, behind, error, running } = useStudy(rackingQuery(at));
  if (error) return <Failed error={error} />;
  if (!found)
    return (
      <Waiting shows="Rails and mounts on the plan, the sticks they are cut from, and the parts.">
        Laying rails
      </Waiting>
    );
  return (
    <Behind behind={behind}>
      {view === 'rails' && <RailsView plane={plane} racking={found} behind={behind} />}
      {view === 'cut' && <CutView racking={found} running={running && !behind} />}
      {view === 'chalk' && <ChalkView plane={plane} racking={found} />}
      {view === 'parts' && <PartsView racking={found} />}
    </Behind>
  );
}

function Electrical({ view }: { view: ViewId }) {
  const { at } = useJob();
  const { found, behind, error } = useStudy(circuitsQuery(at));
  if (error) return <Failed error={error} />;
  if (!found)
    return (
      <Waiting shows="The ways of the cables, and what every circuit is made of.">
        Sizing circuits
      </Waiting>
    );
  return (
    <Behind behind={behind}>
      {view === 'circuits' && <CircuitsView found={found} />}
      {view === 'one-line' && <OneLineView />}
      {view === 'panel' && <PanelView found={found} />}
    </Behind>
  );
}

/** What the roof is covered with, in a mounting system's word for it. */
const coveringOf = (plane: RoofPlane) =>
  plane.ground ? 'ground' : (plane.structure.covering ?? '');

function SystemChoice({ plane }: { plane: RoofPlane }) {
  const { option, act } = useJob();
  const shelf = useQuery(shelfQuery);
  const chosen = option.racking.planes.find((p) => p.plane_id === plane.id)?.mounting_id ?? NONE;
  const covering = coveringOf(plane);
  const fits = (sheet: Schemas['MountingSheet']) =>
    covering === '' || sheet.coverings.includes(covering);
  const listed = (shelf.data?.mountings ?? []).toSorted((a, b) => +fits(b) - +fits(a));
  return (
    <Choice
      label="Mounting system"
      className="max-w-[300px]"
      value={chosen}
      items={[
        { value: NONE, label: 'no mounting system yet' },
        ...listed.map((sheet) => ({
          value: sheet.id,
          label: fits(sheet) ? sheet.name : `${sheet.name} (not for ${covering.replace('-', ' ')})`,
          short: sheet.name.replace(/^Sample /, ''),
        })),
      ]}
      onChange={(value) =>
        void act({
          kind: 'choose-mounting',
          option_id: option.id,
          plane_id: plane.id,
          mounting_id: value === NONE ? null : value,
        })
      }
    />
  );
}

const AIMS: [Schemas['MountAim'], string][] = [
  ['fewest', 'Fewest mounts'],
  ['best-spread', 'Best spread'],
];

function AimChoice() {
  const { option, act } = useJob();
  return (
    <fieldset aria-label="What comes first" className="flex gap-1">
      {AIMS.map(([aim, title]) => (
        <Button
          key={aim}
          weight={option.racking.aim === aim ? 'pressed' : 'plain'}
          aria-pressed={option.racking.aim === aim}
          onClick={() => void act({ kind: 'set-mount-aim', option_id: option.id, aim })}
        >
          {title}
        </Button>
      ))}
    </fieldset>
  );
}
