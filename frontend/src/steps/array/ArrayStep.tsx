/** Array: layouts to choose from with proven counts, and modules moved by hand. */
import { useQuery } from '@tanstack/react-query';
import { useReducer, useState } from 'react';
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
import { Board } from '@/ui/Board';
import { Empty, Waiting } from '@/ui/States';
import { TabbedCard } from '@/ui/TabbedCard';
import { useKeys } from '@/ui/useKeys';
import { useSame } from '@/ui/useSame';
import { besideEdit, type Hand, inBox } from './hand';
import { EMPTY_HANDED, meantBy, next } from './inHand';
import { AlternativeCard } from './parts/AlternativeCard';
import { ArrayToolbar } from './parts/ArrayToolbar';
import { BracketsFace } from './parts/BracketsFace';
import { EdgesFace } from './parts/EdgesFace';
import { ExactlyFace } from './parts/ExactlyFace';
import { FillFace } from './parts/FillFace';
import { GroundCards } from './parts/GroundCards';
import { GroundFace } from './parts/GroundFace';
import { GroundOverlay } from './parts/GroundOverlay';
import { ModuleField } from './parts/ModuleField';
import { OneMoreFace } from './parts/OneMoreFace';
import { OnTheRoof } from './parts/OnTheRoof';
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
  const [inHand, turnHand] = useReducer(next, EMPTY_HANDED);
  const { hand, focused } = inHand;
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
  const scene = useSame(sceneOf(plane, state, report));
  // Seams, ribs or beams: something a bracket can sit on without a rail.
  const lined = scene.ribsXM.length + scene.purlinsYM.length > 0;
  const brackets = useQuery({
    ...bracketsQuery(at, plane.id),
    enabled: lined && face === 'brackets',
  });
  const held = inHand.held.filter((id) => placed.some((m) => m.id === id));
  const meant = meantBy(inHand, held);
  const hold = (ids: readonly string[]) => turnHand({ do: 'hold', ids });

  const use = (layout: Alternative) => {
    hold([]);
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
    const other = list[(here + by + list.length) % Math.max(list.length, 1)];
    if (other && !layouts.stale) void use(other);
  };
  const move = (ids: string[], right_m: number, up_m: number) =>
    act({ kind: 'move-modules', option_id: option.id, module_ids: ids, right_m, up_m });
  const onMeant = (kind: 'turn-modules' | 'remove-modules') => {
    if (meant.length > 0) void act({ kind, option_id: option.id, module_ids: [...meant] });
    if (kind === 'remove-modules') hold([]);
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
  const letGo = () => turnHand({ do: 'let-go' });
  const remove = () => onMeant('remove-modules');
  const addBeside = () => {
    if (hand.kind !== 'add' || !array || !module) return;
    const edit = besideEdit(option.id, array, module, focused, hand.orientation);
    if (edit) void act(edit);
  };
  const turn = () => (hand.kind === 'add' ? turnHand({ do: 'turn' }) : onMeant('turn-modules'));
  const ask = () => {
    setWhy(true);
    setFace('one-more');
  };
  useKeys({
    p: () => fill('P'),
    l: () => fill('L'),
    m: () => fill('PL'),
    ',': () => step(-1),
    '.': () => step(1),
    n: () => turnHand({ do: 'take', hand: { kind: 'add', orientation } }),
    r: turn,
    g: () => turnHand({ do: 'ask', what: 'gap', of: meant }),
    k: () => troubles.length > 0 && turnHand({ do: 'ask', what: 'reason' }),
    w: ask,
    h: () => turnHand({ do: 'take', hand: { kind: 'hold' } }),
    Enter: addBeside,
    Escape: letGo,
    Delete: remove,
    Backspace: remove,
  });

  const onRoof = placed.filter((m) => m.present).length;
  const allTroubles = view?.troubles ?? [];
  const of = held.length > 0 ? held : [inHand.current];
  const some = allTroubles.some((t) => of.includes(t.module_id));
  const about = some ? of : allTroubles.map((t) => t.module_id);
  const troubles = allTroubles.filter((t) => about.includes(t.module_id));
  const nameOf = (id: string) => `Module ${placed.findIndex((m) => m.id === id) + 1}`;
  const modules = shelf.data?.modules ?? (module ? [module] : []);
  const [best] = layouts.list;
  const elsewhere = report.modules - onRoof;
  return (
    <>
      <ArrayToolbar
        inHand={inHand}
        held={held}
        act={turnHand}
        lying={lying}
        orientation={orientation}
        modules={modules}
        taken={onRoof}
        places={placed.length}
        onFill={fill}
        onTurn={turn}
        onRemove={remove}
      />
      <PlaneTabs />
      <PlaneCanvas
        scene={scene}
        label={`Modules on ${plane.name}`}
        padPx={50}
        zoomable
        cursor={hand.kind === 'add' ? 'crosshair' : 'default'}
        onSpot={(spot) => (hand.kind === 'add' ? add(spot) : hold([]))}
        onBox={(from, to) => {
          if (!module) return;
          const corner = (p: PointM) => ({ leftM: p.xM, bottomM: p.yM, rightM: p.xM, topM: p.yM });
          hold(inBox(placed, module, boxAround([corner(from), corner(to)]), array?.leg_tilt_deg));
        }}
        overlay={() => (
          <>
            <ToolHint hint={hintOf(hand)} place="top" />
            <OnTheRoof
              problem={layouts.problem}
              first={onRoof === 0 && hand.kind !== 'add' ? best : undefined}
              stale={layouts.stale}
              onUse={(layout) => void use(layout)}
              ground={ground}
            />
            <TroubleNote
              key={about.join()}
              moduleIds={troubles.map((t) => t.module_id)}
              troubles={troubles}
              nameOf={nameOf}
              asking={inHand.asks === 'reason'}
              onAsk={(on) => turnHand(on ? { do: 'ask', what: 'reason' } : { do: 'asked' })}
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
                onHeld={hold}
                focused={focused}
                onFocus={(id) => turnHand({ do: 'focus', id })}
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
                <RowShortages camera={camera} rows={oneMore.data.rows} unit={job.unit} />
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
          className={`${lined && !plane.ground ? 'w-[404px]' : 'w-[352px]'} shrink-0`}
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
        {layouts.pending && (
          <Waiting shows="Layouts in portrait, landscape and mixed rows, each drawn with its count and its kWh.">
            Counting the layouts
          </Waiting>
        )}
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

function hintOf(hand: Hand): string {
  if (hand.kind === 'hold') return 'Click modules to hold them; drag to move what is held.';
  if (hand.kind === 'add')
    return `Click where a ${hand.orientation === 'P' ? 'portrait' : 'landscape'} module goes; R turns it.`;
  return '';
}
