/** Array: layouts to choose from with proven counts, and modules moved by hand. */
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { RoofPlane, Schemas } from '@/api/client';
import { shelfQuery } from '@/api/queries';
import { useCatchingUp } from '@/api/useYear';
import type { PointM } from '@/drawing/camera';
import { PlaneCanvas } from '@/drawing/PlaneCanvas';
import { boxAround } from '@/drawing/snap';
import { ToolHint } from '@/drawing/ToolHint';
import { useJob } from '@/plan/JobContext';
import { moduleOn, sizeOf } from '@/plan/modules';
import { PlaneTabs } from '@/plan/PlaneTabs';
import { sceneOf } from '@/plan/scene';
import { stockFirst } from '@/plan/stock';
import { Button } from '@/ui/Button';
import { Board, Toolbar } from '@/ui/Card';
import { Choice } from '@/ui/Choice';
import { Empty } from '@/ui/States';
import { TabbedCard } from '@/ui/TabbedCard';
import { useKeys } from '@/ui/useKeys';
import { besideEdit, type Hand, inBox, TOGGLE } from './hand';
import { AlternativeCard, titleOf } from './parts/AlternativeCard';
import { BracketsFace } from './parts/BracketsFace';
import { EdgesFace } from './parts/EdgesFace';
import { ExactlyFace } from './parts/ExactlyFace';
import { FillFace } from './parts/FillFace';
import { GroundCards } from './parts/GroundCards';
import { GroundFace } from './parts/GroundFace';
import { GroundOverlay } from './parts/GroundOverlay';
import { HeldBar } from './parts/HeldBar';
import { ModuleField } from './parts/ModuleField';
import { OneMoreFace } from './parts/OneMoreFace';
import { RowShortages } from './parts/RowShortages';
import { SeatsOverlay } from './parts/SeatsOverlay';
import { TroubleNote } from './parts/TroubleNote';
import { type Alternative, bracketsQuery, oneMoreQuery } from './queries';
import { type Asked, useLayouts } from './useLayouts';

export default function ArrayStep() {
  const { plane } = useJob();
  if (!plane) return <Empty>Measure a roof plane first.</Empty>;
  return <ArrayOfPlane key={plane.id} plane={plane} />;
}

const NO_MODULES: Schemas['PlacedModule'][] = [];

function ArrayOfPlane({ plane }: { plane: RoofPlane }) {
  const { state, job, option, report, at, act } = useJob();
  const shelf = useQuery(shelfQuery);
  const [asked, setAsked] = useState<Asked>({ kind: 'most', squeeze: false });
  const [hand, setHand] = useState<Hand>(TOGGLE);
  const [holding, setHeld] = useState<string[]>([]);
  const [focused, setFocused] = useState('');
  // The one that was last in focus: its trouble stays told while a button is pressed.
  const [current, setCurrent] = useState('');
  const [splitting, setSplitting] = useState(false);
  const [keeping, setKeeping] = useState(false);
  const [face, setFace] = useState(plane.ground ? 'ground' : 'fill');
  const [why, setWhy] = useState(false);
  const layouts = useLayouts(at, plane.id, asked);
  const { query: oneMore, behind: oneMoreBehind } = useCatchingUp<Schemas['OneMore']>(
    at,
    (settled) => oneMoreQuery(settled, plane.id),
    why,
  );
  const array = option.arrays.find((a) => a.plane_id === plane.id);
  const ground = report.planes.find((p) => p.plane_id === plane.id)?.ground ?? null;
  const placed = array?.modules ?? NO_MODULES;
  const module = moduleOn(job, option, plane.id);
  const view = report.planes.find((p) => p.plane_id === plane.id);
  const scene = sceneOf(plane, state, report);
  // Seams, ribs or beams: something a bracket can sit on without a rail.
  const lined = scene.ribsXM.length + scene.purlinsYM.length > 0;
  const brackets = useQuery({
    ...bracketsQuery(at, plane.id),
    enabled: lined && face === 'brackets',
  });
  const held = holding.filter((id) => placed.some((m) => m.id === id));
  // What the keys act on: the held ones, or the one in focus.
  const meant = held.length > 0 ? held : focused ? [focused] : [];

  const use = (layout: Alternative) => {
    setHeld([]);
    return act({
      kind: 'lay-modules',
      option_id: option.id,
      plane_id: plane.id,
      places: layout.places,
    });
  };
  const fill = (ways: Schemas['Ways']) => {
    const best = layouts.list.find((a) => a.ways === ways && a.rule !== 'free');
    if (best && !layouts.stale) void use(best);
    else void act({ kind: 'fill-plane', option_id: option.id, plane_id: plane.id, ways });
  };
  const step = (by: number) => {
    const { list } = layouts;
    const here = list.findIndex((a) => a.in_use);
    const next = list[(here + by + list.length) % Math.max(list.length, 1)];
    if (next && !layouts.stale) void use(next);
  };
  const move = (ids: string[], right_m: number, up_m: number) =>
    act({ kind: 'move-modules', option_id: option.id, module_ids: ids, right_m, up_m });
  const onMeant = (kind: 'turn-modules' | 'remove-modules') => {
    if (meant.length > 0) void act({ kind, option_id: option.id, module_ids: meant });
    if (kind === 'remove-modules') setHeld([]);
  };
  const add = (spot: PointM) => {
    if (hand.kind !== 'add' || !module) return;
    const { widthM, heightM } = sizeOf(module, hand.orientation, array?.leg_tilt_deg);
    void act({
      kind: 'add-module',
      option_id: option.id,
      plane_id: plane.id,
      at: {
        x_m: spot.xM - widthM / 2,
        y_m: spot.yM - heightM / 2,
        orientation: hand.orientation,
      },
    });
  };
  const lying = [...new Set(placed.filter((m) => m.present).map((m) => m.orientation))]
    .sort()
    .reverse()
    .join('');
  const orientation = placed[0]?.orientation ?? 'P';
  const take = (next: Hand) => setHand(next.kind === hand.kind ? TOGGLE : next);
  const letGo = () => {
    if (hand.kind === 'toggle') setHeld([]);
    setHand(TOGGLE);
    setCurrent('');
    setSplitting(false);
    setKeeping(false);
  };
  const remove = () => onMeant('remove-modules');
  const addBeside = () => {
    if (hand.kind !== 'add' || !array || !module) return;
    const edit = besideEdit(option.id, array, module, focused, hand.orientation);
    if (edit) void act(edit);
  };
  const turn = () => {
    if (hand.kind === 'add')
      setHand({ kind: 'add', orientation: hand.orientation === 'P' ? 'L' : 'P' });
    else onMeant('turn-modules');
  };
  const ask = () => {
    setWhy(true);
    setFace('one-more');
  };
  const split = () => {
    if (meant.length !== 1) return;
    setHeld(meant);
    setSplitting(true);
  };
  useKeys({
    p: () => fill('P'),
    l: () => fill('L'),
    m: () => fill('PL'),
    ',': () => step(-1),
    '.': () => step(1),
    n: () => take({ kind: 'add', orientation }),
    r: turn,
    g: split,
    k: () => setKeeping(troubles.length > 0),
    w: ask,
    h: () => take({ kind: 'hold' }),
    Enter: addBeside,
    Escape: letGo,
    Delete: remove,
    Backspace: remove,
  });

  const onRoof = placed.filter((m) => m.present).length;
  const allTroubles = view?.troubles ?? [];
  const of = held.length > 0 ? held : [current];
  const some = allTroubles.some((t) => of.includes(t.module_id));
  const about = some ? of : allTroubles.map((t) => t.module_id);
  const troubles = allTroubles.filter((t) => about.includes(t.module_id));
  const nameOf = (id: string) => `Module ${placed.findIndex((m) => m.id === id) + 1}`;
  const modules = shelf.data?.modules ?? (module ? [module] : []);
  const [best] = layouts.list;
  const elsewhere = report.modules - onRoof;
  return (
    <>
      <Toolbar>
        {held.length > 0 ? (
          <HeldBar
            held={held}
            splitting={splitting}
            onSplit={setSplitting}
            onTurn={turn}
            onRemove={remove}
            onLetGo={letGo}
          />
        ) : (
          <>
            {(['P', 'L', 'PL'] as const).map((ways) => (
              <Button
                key={ways}
                hint={ways === 'PL' ? 'M' : ways}
                weight={ways === lying ? 'pressed' : 'plain'}
                onClick={() => fill(ways)}
              >
                {FILLS[ways]}
              </Button>
            ))}
            <Button
              hint="H"
              weight={hand.kind === 'hold' ? 'pressed' : 'plain'}
              aria-pressed={hand.kind === 'hold'}
              onClick={() => take({ kind: 'hold' })}
            >
              Hold
            </Button>
            <Button
              hint="N"
              weight={hand.kind === 'add' ? 'pressed' : 'plain'}
              aria-pressed={hand.kind === 'add'}
              onClick={() => take({ kind: 'add', orientation })}
            >
              Add
            </Button>
          </>
        )}
        <Choice
          label="Module"
          value={option.module_id}
          items={stockFirst(modules, job.brief.stock, 'module')}
          onChange={(module_id) => act({ kind: 'choose-module', option_id: option.id, module_id })}
          className="min-w-0 max-w-[230px]"
        />
        <span className="grow" />
        <span className="text-sm whitespace-nowrap text-ink-2">
          {placed.length > 0 ? `${onRoof} of ${placed.length} places taken` : 'Nothing placed yet'}
        </span>
      </Toolbar>
      <PlaneTabs />
      <PlaneCanvas
        scene={scene}
        label={`Modules on ${plane.name}`}
        padPx={50}
        zoomable
        cursor={hand.kind === 'add' ? 'crosshair' : 'default'}
        onSpot={(spot) => (hand.kind === 'add' ? add(spot) : setHeld([]))}
        onBox={(from, to) => {
          if (!module) return;
          const corner = (p: PointM) => ({ leftM: p.xM, bottomM: p.yM, rightM: p.xM, topM: p.yM });
          setHeld(
            inBox(placed, module, boxAround([corner(from), corner(to)]), array?.leg_tilt_deg),
          );
        }}
        overlay={() => (
          <>
            <ToolHint hint={hintOf(hand)} place="top" />
            {layouts.problem ? (
              <p
                role="alert"
                className="absolute top-1/2 left-1/2 z-20 max-w-[420px] -translate-x-1/2 -translate-y-1/2 rounded-md border border-stop bg-sheet px-3 py-2 text-sm text-stop"
              >
                {layouts.problem}
              </p>
            ) : (
              onRoof === 0 &&
              best &&
              hand.kind !== 'add' && (
                <p className="absolute top-1/2 left-1/2 z-20 flex -translate-x-1/2 -translate-y-1/2 items-center gap-3 rounded-md border border-rule bg-sheet px-3 py-2 text-sm">
                  Nothing is laid on this plane yet.
                  <Button weight="main" disabled={layouts.stale} onClick={() => void use(best)}>
                    Lay {best.count}, {titleOf(best).toLowerCase()}
                  </Button>
                </p>
              )
            )}
            {ground && ground.told.length > 0 && (
              <ul
                aria-label="About this ground"
                className="absolute bottom-3 left-4 z-10 flex max-w-[250px] flex-col gap-1 rounded-md border border-warn bg-sheet px-3 py-2 text-sm text-warn"
              >
                {ground.told.map((sentence) => (
                  <li key={sentence}>{sentence}.</li>
                ))}
              </ul>
            )}
            <TroubleNote
              key={about.join()}
              moduleIds={troubles.map((t) => t.module_id)}
              troubles={troubles}
              nameOf={nameOf}
              asking={keeping}
              onAsk={setKeeping}
            />
          </>
        )}
      >
        {(camera) =>
          array && module && view ? (
            <>
              <ModuleField
                camera={camera}
                scene={scene}
                array={array}
                module={module}
                view={view}
                hand={hand}
                held={held}
                onHeld={setHeld}
                focused={focused}
                onFocus={(id) => {
                  setFocused(id);
                  if (id) setCurrent(id);
                }}
                onToggle={(id) =>
                  act({ kind: 'toggle-modules', option_id: option.id, module_ids: [id] })
                }
                onMove={move}
              />
              {ground && <GroundOverlay camera={camera} layout={ground} />}
              {face === 'brackets' && brackets.data && (
                <SeatsOverlay camera={camera} report={brackets.data} />
              )}
              {face === 'one-more' && oneMore.data && (
                <RowShortages camera={camera} rows={oneMore.data.rows} />
              )}
            </>
          ) : null
        }
      </PlaneCanvas>
      <Board heightPx={plane.ground ? 272 : 228}>
        <TabbedCard
          label="What is asked"
          value={face}
          onValueChange={setFace}
          className={`${lined && !plane.ground ? 'w-[368px]' : 'w-[316px]'} shrink-0`}
          faces={[
            ...(plane.ground && array
              ? [
                  {
                    id: 'ground',
                    title: 'Tables',
                    body: <GroundFace planeId={plane.id} array={array} layout={ground} />,
                  },
                ]
              : []),
            {
              id: 'fill',
              title: 'Fill',
              body: module && (
                <FillFace
                  planeId={plane.id}
                  array={array}
                  module={module}
                  modules={stockFirst(modules, job.brief.stock, 'module')}
                  proving={layouts.proving}
                  squeeze={asked.kind === 'most' && asked.squeeze}
                  onSqueeze={(squeeze) => setAsked({ kind: 'most', squeeze })}
                />
              ),
            },
            ...(lined
              ? [
                  {
                    id: 'brackets',
                    title: 'Brackets',
                    body: (
                      <BracketsFace
                        planeId={plane.id}
                        report={brackets.data}
                        problem={brackets.error?.message ?? ''}
                      />
                    ),
                  },
                ]
              : []),
            { id: 'edges', title: 'Setbacks', body: <EdgesFace plane={plane} /> },
            {
              id: 'exactly',
              title: 'Exact count',
              body: <ExactlyFace elsewhere={elsewhere} asked={asked} onAsked={setAsked} />,
            },
            {
              id: 'one-more',
              title: 'Why not one more',
              body: (
                <OneMoreFace
                  answer={oneMore.data}
                  problem={oneMore.error?.message ?? ''}
                  asked={why}
                  stale={oneMoreBehind}
                  onAsk={ask}
                />
              ),
            },
          ]}
        />
        {ground && <GroundCards planeId={plane.id} layout={ground} />}
        {layouts.pending && <p className="text-sm text-ink-2">Counting the layouts</p>}
        {module &&
          layouts.list.map((layout) => (
            <AlternativeCard
              key={`${layout.key} ${layout.count}`}
              alternative={layout}
              module={module}
              legTiltDeg={array?.leg_tilt_deg ?? 0}
              scene={scene}
              unit={job.unit}
              stale={layouts.stale}
              onUse={() => void use(layout)}
            />
          ))}
      </Board>
    </>
  );
}

const FILLS = { P: 'Portrait', L: 'Landscape', PL: 'Mixed' };

function hintOf(hand: Hand): string {
  if (hand.kind === 'hold') return 'Click modules to hold them; drag to move what is held.';
  if (hand.kind === 'add')
    return `Click where a ${hand.orientation === 'P' ? 'portrait' : 'landscape'} module goes; R turns it.`;
  return '';
}
