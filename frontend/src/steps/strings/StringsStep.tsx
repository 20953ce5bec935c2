/** Strings: threads on the plan, drawn by hand or planned; every legal plan; every inverter. */
import { useQuery } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import type { RoofPlane, Schemas } from '@/api/client';
import { shelfQuery } from '@/api/queries';
import { PlaneCanvas } from '@/drawing/PlaneCanvas';
import { useJob, useSaving } from '@/plan/JobContext';
import { moduleOn, sizeOf } from '@/plan/modules';
import { NoModules } from '@/plan/NoModules';
import { PlaneTabs } from '@/plan/PlaneTabs';
import { sceneOf } from '@/plan/scene';
import { stockFirst } from '@/plan/stock';
import { useView } from '@/plan/useView';
import { Board } from '@/ui/Board';
import { Button } from '@/ui/Button';
import { Card, Toolbar } from '@/ui/Card';
import { Choice } from '@/ui/Choice';
import { Empty } from '@/ui/States';
import { useKeys } from '@/ui/useKeys';
import { ViewButtons } from '@/ui/ViewButtons';
import { figure } from '@/units/format';
import { BranchCard } from './parts/BranchCard';
import { Branches } from './parts/Branches';
import { CompareView } from './parts/CompareView';
import { DesignCard } from './parts/DesignCard';
import { DraftCard } from './parts/DraftCard';
import { ElectronicsChoice } from './parts/ElectronicsChoice';
import { EquipmentView } from './parts/EquipmentView';
import { Boxes, HomeRuns } from './parts/HomeRuns';
import { PlansView } from './parts/PlansView';
import { RulesView } from './parts/RulesView';
import { StringCard } from './parts/StringCard';
import { Temperatures } from './parts/Temperatures';
import { Threads } from './parts/Threads';
import { TrackerCard } from './parts/TrackerCard';
import { WaysOutView } from './parts/WaysOutView';
import { VIEWS } from './views';

export default function StringsStep() {
  const { plane } = useJob();
  if (!plane) return <Empty>Measure a roof plane first.</Empty>;
  return <PlaneStrings plane={plane} />;
}

/** An inverter by its size, where there is no room for its name. */
const shortName = ({ dc_only, p_ac_w, v_dc_max_v, trackers }: Schemas['InverterSheet']) =>
  dc_only
    ? `DC ${figure(v_dc_max_v)} V`
    : `${figure(p_ac_w / 1000, 1)} kW, ${trackers.length} MPPT`;

function PlaneStrings({ plane }: { plane: RoofPlane }) {
  const { job, option, report, act } = useJob();
  const [view, setView] = useView(VIEWS);
  const [draft, setDraft] = useState<readonly string[] | null>(null);
  const shelf = useQuery(shelfQuery);
  const inverter = job.equipment.inverters.find((i) => i.id === option.inverter_id);
  const listed = shelf.data?.inverters ?? [];
  // A generic DC input, or another firm's inverter, is on no shelf.
  const own = inverter && !listed.some((i) => i.id === inverter.id) ? [inverter] : [];
  const inverters = [...own, ...listed];
  const micro = option.electronics.architecture === 'microinverters';
  // Equipment and rules can be chosen before there is a module.
  const empty = report.modules === 0 && view !== 'equipment' && view !== 'rules';
  const begin = () => {
    if (micro || empty) return;
    setView('wiring');
    setDraft(draft ? null : []);
  };
  useKeys({
    h: begin,
  });
  return (
    <>
      <Toolbar>
        <ViewButtons views={VIEWS} view={view} onView={setView} />
        <ElectronicsChoice />
        {micro || (
          <Choice
            label="Inverter"
            value={option.inverter_id}
            items={stockFirst(inverters, job.brief.stock, 'inverter', shortName)}
            onChange={(inverter_id) =>
              act({ kind: 'change-inverter', option_id: option.id, unit_number: 1, inverter_id })
            }
            className="w-[142px]"
          />
        )}
        {option.more_inverters.length > 0 && (
          <Button onClick={() => setView('equipment')}>+{option.more_inverters.length}</Button>
        )}
        <span className="grow" />
        {micro && (
          <span className="text-sm whitespace-nowrap text-ink-2">
            {report.at_modules.count} units
          </span>
        )}
      </Toolbar>
      {empty && <NoModules wants="strings are planned by themselves once there are some." />}
      {view === 'wiring' && micro && !empty && <MicroWiring plane={plane} />}
      {view === 'wiring' && !micro && !empty && (
        <Wiring plane={plane} draft={draft} onDraft={setDraft} onThread={begin} />
      )}
      {view === 'plans' &&
        !empty &&
        (micro ? (
          <Empty>
            Every module has its own inverter: there are no strings to plan. Branches stand under
            Wiring.
          </Empty>
        ) : (
          <PlansView />
        ))}
      {view === 'equipment' && <EquipmentView />}
      {view === 'rules' && <RulesView />}
      {view === 'out' && !empty && <WaysOutView />}
      {view === 'compare' && !empty && <CompareView />}
    </>
  );
}

/** Units and their branches on the plan. */
function MicroWiring({ plane }: { plane: RoofPlane }) {
  const { state, job, option, report } = useJob();
  const array = option.arrays.find((a) => a.plane_id === plane.id);
  const module = moduleOn(job, option, plane.id);
  const { branches, unit } = report.at_modules;
  return (
    <>
      <PlaneTabs />
      <PlaneCanvas
        scene={sceneOf(plane, state, report)}
        label={`Microinverters on ${plane.name}`}
        padPx={36}
      >
        {(camera) =>
          array && module ? (
            <Branches camera={camera} array={array} module={module} branches={branches} />
          ) : null
        }
      </PlaneCanvas>
      <Board heightPx={240}>
        <Card title={unit} scrolls className="w-[236px] shrink-0">
          <Temperatures />
        </Card>
        {branches.map((branch) => (
          <BranchCard key={branch.number} branch={branch} />
        ))}
      </Board>
    </>
  );
}

interface WiringProps {
  plane: RoofPlane;
  draft: readonly string[] | null;
  onDraft: (draft: readonly string[] | null) => void;
  onThread: () => void;
}

function Wiring({ plane, draft, onDraft, onThread }: WiringProps) {
  const { state, job, option, report, act } = useJob();
  const [chosen, setChosen] = useState({ tag: '', moduleId: '' });
  const array = option.arrays.find((a) => a.plane_id === plane.id);
  const module = moduleOn(job, option, plane.id);
  const string = option.strings.find((s) => s.tag === chosen.tag);
  const pick = (id: string, drawn: boolean) => {
    if (!draft) {
      const tag = option.strings.find((s) => s.module_ids.includes(id))?.tag ?? '';
      setChosen({ tag: tag === chosen.tag && id === chosen.moduleId ? '' : tag, moduleId: id });
    } else if (!draft.includes(id)) onDraft([...draft, id]);
    // Clicked again, the thread goes back to before it; drawing over it does nothing.
    else if (!drawn) onDraft(draft.slice(0, draft.indexOf(id)));
  };
  const addBox = () =>
    void act({
      kind: 'place-box',
      option_id: option.id,
      plane_id: plane.id,
      box_id: null,
      ...boxPlace(array, module),
    });
  useKeys({ j: addBox });
  return (
    <>
      <PlaneTabs>
        <span className="grow" />
        <Button hint="H" weight={draft ? 'pressed' : 'plain'} onClick={onThread}>
          Thread
        </Button>
        <Series />
      </PlaneTabs>
      <PlaneCanvas
        scene={sceneOf(plane, state, report)}
        label={`Strings on ${plane.name}`}
        padPx={36}
      >
        {(camera) =>
          array && module ? (
            <>
              <Threads
                camera={camera}
                array={array}
                module={module}
                strings={option.strings}
                chosenTag={chosen.tag}
                unit={job.unit}
                reachM={report.lead_reach_m}
                fitted={option.electronics.fitted}
                draft={draft}
                onModule={pick}
              >
                <HomeRuns
                  camera={camera}
                  planeId={plane.id}
                  array={array}
                  module={module}
                  strings={option.strings}
                  boxes={report.boxes}
                />
              </Threads>
              <Boxes
                camera={camera}
                planeId={plane.id}
                boxes={report.boxes}
                unit={job.unit}
                onMove={(box_id, x_m, y_m) =>
                  act({
                    kind: 'place-box',
                    option_id: option.id,
                    plane_id: plane.id,
                    box_id,
                    x_m,
                    y_m,
                  })
                }
                onRemove={(box_id) =>
                  void act({ kind: 'remove-box', option_id: option.id, box_id })
                }
              />
            </>
          ) : null
        }
      </PlaneCanvas>
      <Board heightPx={240}>
        {draft ? (
          <DraftCard moduleIds={draft} onDone={() => onDraft(null)} />
        ) : string ? (
          <StringCard
            string={string}
            moduleId={chosen.moduleId}
            onGone={() => setChosen({ tag: '', moduleId: '' })}
          />
        ) : (
          <DesignCard plane={plane} onAddBox={addBox} />
        )}
        {report.trackers.map((tracker) => (
          <TrackerCard
            key={tracker.number}
            tracker={tracker}
            onString={(tag) => setChosen({ tag: tag === chosen.tag ? '' : tag, moduleId: '' })}
          />
        ))}
      </Board>
    </>
  );
}

/** Where a new box stands: beside the lowest module furthest to the right. */
function boxPlace(
  array: Schemas['PlaneArray'] | undefined,
  module: Schemas['ModuleSheet'] | undefined,
) {
  const there = array?.modules.filter((m) => m.present) ?? [];
  if (there.length === 0 || !module || !array) return { x_m: 0.3, y_m: 0.3 };
  const right = there.map((m) => m.x_m + sizeOf(module, m.orientation, array.leg_tilt_deg).widthM);
  return { x_m: Math.max(...right) + 0.15, y_m: Math.min(...there.map((m) => m.y_m)) + 0.15 };
}

/** How many in series: a wish, or as the planner has it. */
function Series() {
  const { option, report, act } = useJob();
  const saving = useSaving();
  const locked = option.strings.some((s) => s.locked);
  const longest = Math.max(0, ...option.strings.map((s) => s.module_ids.length));
  const wish = (modules: number | null) =>
    act({ kind: 'wish-series-length', option_id: option.id, modules_in_series: modules });
  const plan = async () => {
    if (locked) await act({ kind: 'plan-anew', option_id: option.id });
    if (option.series_wish !== null || !locked) await wish(null);
  };
  // Clicks faster than the answers add up from what was asked for last, not from what is shown.
  const asked = useRef(0);
  if (!saving) asked.current = option.series_wish ?? longest;
  const change = (by: number) => {
    asked.current = Math.min(60, Math.max(1, asked.current + by));
    wish(asked.current);
  };
  const longer = () => change(1);
  const shorter = () => change(-1);
  useKeys({ '+': longer, '=': longer, '-': shorter, a: () => void plan() });
  return (
    <>
      <fieldset
        className="flex"
        aria-label="Modules in series"
        title={`${report.series_min} to ${report.series_max} in series fit`}
      >
        <Button
          aria-label="One fewer in series"
          className="rounded-r-none"
          disabled={longest === 0}
          onClick={shorter}
        >
          −
        </Button>
        <span className="flex h-[27px] min-w-[82px] items-center justify-center border-y border-rule bg-sheet px-2 font-figure text-base font-semibold">
          {locked ? 'by hand' : `${option.series_wish ?? (longest || '')} in series`}
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
        title="Let the planner choose lengths and trackers"
        weight={option.series_wish === null && !locked ? 'pressed' : 'plain'}
        onClick={() => void plan()}
      >
        Planner
      </Button>
    </>
  );
}
