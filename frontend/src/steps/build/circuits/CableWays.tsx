/** The ways of the cables on the site plan: every bend is drawn by hand or moved by arrows. */
import type { Schemas } from '@/api/client';
import { type Camera, toPlane, toScreen } from '@/drawing/camera';
import { pathOf } from '@/drawing/RoofGround';
import { useDrag } from '@/drawing/useDrag';
import { HELD_LOOK, useHold } from '@/drawing/useHold';
import { pointOf, siteOf } from '@/plan/site/siteFrame';

type Leg = Schemas['LegView'];
type SitePoint = Schemas['SitePoint'];

/** A bend is taken hold of this broad. */
const GRIP_PX = 12;

interface CableWaysProps {
  camera: Camera;
  legs: Leg[];
  chosen: string;
  onChoose: (leg: string) => void;
  onMove: (leg: Leg, piece: number, to: SitePoint) => Promise<unknown>;
}

/** Roof in long dashes, under ground dotted, inside dash and dot; a wall is a whole line. */
const DASH: Record<Schemas['Lie'], string | undefined> = {
  roof: '10 4',
  attic: '6 3 1.5 3',
  inside: '6 3 1.5 3',
  buried: '2 4',
  outside: undefined,
};

export function CableWays({ camera, legs, chosen, onChoose, onMove }: CableWaysProps) {
  const bends = legs.flatMap((leg) =>
    leg.pieces.flatMap((piece, n) =>
      piece.to ? [{ id: `${leg.id}|${n}`, leg, n, at: piece.to }] : [],
    ),
  );
  const of = (id: string) => bends.find((b) => b.id === id);
  const drag = useDrag((id, dxPx, dyPx) => {
    const bend = of(id);
    if (!bend) return Promise.resolve();
    const from = toScreen(camera, pointOf(bend.at));
    const spot = toPlane(camera, { xPx: from.xPx + dxPx, yPx: from.yPx + dyPx });
    return onMove(bend.leg, bend.n, siteOf(spot));
  });
  const { hold, told } = useHold((id, { dxM, dyM }) => {
    const bend = of(id);
    if (!bend) return;
    const { east_m, north_m } = bend.at;
    void onMove(bend.leg, bend.n, { east_m: east_m + dxM, north_m: north_m + dyM });
  });
  return (
    <g>
      <g pointerEvents="none">
        {legs.map((leg, n) => (
          <Way key={leg.id} camera={camera} leg={leg} chosen={leg.id === chosen} row={n} />
        ))}
      </g>
      {bends.map(({ id, leg, n, at }) => {
        const spot = toScreen(camera, pointOf(at));
        const words = `${leg.name}, bend ${n + 1}`;
        const held = hold(id);
        return (
          <g
            key={id}
            role="button"
            data-stop=""
            tabIndex={-1}
            aria-label={told(id, words)}
            className={`cursor-move ${HELD_LOOK}`}
            {...drag(id)}
            {...held}
            onFocus={() => onChoose(leg.id)}
          >
            <title>{words}</title>
            <circle cx={spot.xPx} cy={spot.yPx} r={GRIP_PX} fill="transparent" />
            <circle
              cx={spot.xPx}
              cy={spot.yPx}
              r={leg.id === chosen ? 5 : 3.5}
              fill="var(--color-sheet)"
              stroke={colourOf(leg)}
              strokeWidth="2"
            />
          </g>
        );
      })}
    </g>
  );
}

const colourOf = (leg: Leg) => (leg.dc ? 'var(--color-copper)' : 'var(--color-patina-dark)');

interface WayProps {
  camera: Camera;
  leg: Leg;
  chosen: boolean;
  /** Which of the ways: their lengths stand side by side where they run together. */
  row: number;
}

function Way({ camera, leg, chosen, row }: WayProps) {
  const drawn = leg.pieces.filter((p) => p.points.length > 1);
  const longest = drawn.toSorted((a, b) => spanOf(b) - spanOf(a))[0];
  const [a, b] = (longest?.points ?? []).map((p) => toScreen(camera, pointOf(p)));
  return (
    <>
      {drawn.map((piece) => (
        <polyline
          key={JSON.stringify(piece.points)}
          points={pathOf(camera, piece.points.map(pointOf))}
          fill="none"
          stroke={colourOf(leg)}
          strokeWidth={chosen ? 4 : 2.5}
          strokeOpacity={leg.taken ? 1 : 0.55}
          strokeDasharray={DASH[piece.lie]}
        />
      ))}
      {a && b && (
        <text
          x={(a.xPx + b.xPx) / 2 + (row % 2 ? 16 : -16)}
          y={(a.yPx + b.yPx) / 2 + 4}
          textAnchor={row % 2 ? 'start' : 'end'}
          fontSize="12.5"
          fontWeight={chosen ? 600 : 400}
          fill={colourOf(leg)}
          stroke="var(--color-paper)"
          strokeWidth="3"
          paintOrder="stroke"
        >
          {leg.dc ? 'DC' : 'AC'} {leg.length_text}
        </text>
      )}
    </>
  );
}

const spanOf = (piece: Schemas['CableView']) => {
  const [a, b] = piece.points;
  return a && b ? Math.hypot(b.east_m - a.east_m, b.north_m - a.north_m) : 0;
};
