/** Who costs what: each that stands in the light at its place, by what it takes from the array. */
import type { Schemas } from '@/api/client';
import { type Camera, toScreen } from '@/drawing/camera';
import { Pane } from '@/drawing/Pane';
import { shadeTint } from '@/drawing/shadeTint';
import { useJob } from '@/plan/JobContext';
import { PlaneOnSite } from '@/plan/site/PlaneOnSite';
import { ShadeMark } from '@/plan/site/ShadeMark';
import { NorthAndScale } from '@/plan/site/SiteGround';
import { extentOf, pointOf } from '@/plan/site/siteFrame';
import { ringPoints } from '@/plan/site/siteModules';
import { Board } from '@/ui/Board';
import { pressable } from '@/ui/pressable';
import { figure } from '@/units/format';
import type { ShadeReport } from '../queries';
import { CulpritsCard } from './CulpritsCard';
import { CulpritWords } from './CulpritWords';
import { WorstThree } from './WorstThree';

type Culprit = Schemas['Culprit'];

interface WhoViewProps {
  shade: ShadeReport;
  rings: readonly Schemas['ModuleOnSite'][];
  behind: boolean;
  nameOf: (id: string) => string;
  picked: number | null;
  onPick: (number: number) => void;
}

/** So that the rank does not lie on a name. */
const BESIDE_PX = 17;
/** Narrower, names would lie on ranks: the list has both. */
const NAMED_PX = 480;
/** Beyond these the plan would be all lines. */
const DRAWN = 8;

export function WhoView({ shade, rings, behind, nameOf, picked: number, onPick }: WhoViewProps) {
  const { state, job, survey } = useJob();
  const picked = shade.culprits.find((c) => c.number === number) ?? shade.culprits[0];
  const most = Math.max(1e-9, ...(picked?.module_kwh ?? []));
  const middle = middleOf(rings);
  return (
    <>
      <Pane
        points={extentOf(state)}
        padPx={{ left: 60, right: 150, top: 30, bottom: 30 }}
        label="Shade by source, on the site plan, north up"
        zoomable
      >
        {({ camera, widthPx, heightPx }) => (
          <g opacity={behind ? 0.55 : 1} aria-busy={behind}>
            {job.survey.shade_sources.map((source, i) => {
              const view = survey.shade[i];
              return (
                view && (
                  <ShadeMark
                    key={source.id}
                    camera={camera}
                    source={source}
                    view={view}
                    chosen={source.id === picked?.shade_id}
                    named={widthPx > NAMED_PX}
                  />
                )
              );
            })}
            {survey.planes.map((seen) => (
              <PlaneOnSite key={seen.plane_id} camera={camera} seen={seen} chosen={false} />
            ))}
            {rings.map((m) => {
              const i = shade.modules.findIndex((s) => s.module_id === m.module_id);
              const kwh = picked?.module_kwh[i] ?? 0;
              return (
                <polygon
                  key={m.module_id}
                  points={ringPoints(camera, m.ring)}
                  fill={shadeTint(kwh / most, 1).fill}
                  stroke="var(--color-ink)"
                  strokeWidth="0.8"
                >
                  <title>{`${nameOf(m.module_id)}: ${figure(kwh, 1)} kWh a year`}</title>
                </polygon>
              );
            })}
            {middle &&
              shade.culprits
                .slice(0, DRAWN)
                .map(
                  (c, i) =>
                    c.at && (
                      <Claim
                        key={c.number}
                        camera={camera}
                        culprit={c}
                        rank={i + 1}
                        most={shade.culprits[0]?.alone_kwh ?? 1}
                        to={middle}
                        chosen={c.number === picked?.number}
                        onPick={() => onPick(c.number)}
                      />
                    ),
                )}
            <NorthAndScale camera={camera} widthPx={widthPx} heightPx={heightPx} unit={job.unit} />
          </g>
        )}
      </Pane>
      <Board heightPx={226}>
        <CulpritsCard
          shade={shade}
          behind={behind}
          picked={picked?.number ?? null}
          onPick={onPick}
        />
        {picked && <CulpritWords shade={shade} culprit={picked} />}
        <WorstThree nameOf={nameOf} />
      </Board>
    </>
  );
}

function middleOf(rings: readonly Schemas['ModuleOnSite'][]): Schemas['SitePoint'] | null {
  const points = rings.flatMap((r) => r.ring);
  if (points.length === 0) return null;
  const mean = (axis: 0 | 1) => points.reduce((sum, p) => sum + (p[axis] ?? 0), 0) / points.length;
  return { east_m: mean(0), north_m: mean(1) };
}

interface ClaimProps {
  camera: Camera;
  culprit: Culprit;
  rank: number;
  most: number;
  to: Schemas['SitePoint'];
  chosen: boolean;
  onPick: () => void;
}

/** A line to the array, as broad as what is taken, and the rank to click. */
function Claim({ camera, culprit, rank, most, to, chosen, onPick }: ClaimProps) {
  if (!culprit.at) return null;
  const [foot, b] = [toScreen(camera, pointOf(culprit.at)), toScreen(camera, pointOf(to))];
  // Beside the foot of what has its name there already.
  const a = {
    xPx: foot.xPx - (culprit.shade_id && culprit.kind !== 'house' ? BESIDE_PX : 0),
    yPx: foot.yPx - (culprit.kind === 'house' ? BESIDE_PX + 4 : 0),
  };
  const colour = chosen ? 'var(--color-copper)' : 'var(--color-ink-2)';
  return (
    <g
      role="button"
      aria-label={`${rank}, ${culprit.name}: ${figure(culprit.alone_kwh)} kWh a year`}
      aria-pressed={chosen}
      className="cursor-pointer outline-none"
      {...pressable(onPick)}
    >
      {chosen && (
        <line
          x1={a.xPx}
          y1={a.yPx}
          x2={b.xPx}
          y2={b.yPx}
          stroke={colour}
          strokeOpacity="0.45"
          strokeWidth={2 + 12 * Math.sqrt(culprit.alone_kwh / most)}
          strokeLinecap="round"
        />
      )}
      <circle cx={a.xPx} cy={a.yPx} r="12" fill={colour} stroke="var(--color-sheet)" />
      <text
        x={a.xPx}
        y={a.yPx + 4.5}
        fontSize="13"
        fontWeight="600"
        textAnchor="middle"
        fill="var(--color-sheet)"
      >
        {rank}
      </text>
    </g>
  );
}
