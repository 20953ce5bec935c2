/** A job's planes and modules as they lie on the site, small, north up. */
import type { Schemas } from '@/api/client';

const WIDE_PX = 112;
const HIGH_PX = 88;
const PAD_PX = 4;

/** Modules lie on planes. */
const LAYERS = [
  { rings: 'planes', fill: 'var(--color-sheet)', stroke: 'var(--color-ink)', strokeWidth: 1 },
  { rings: 'modules', fill: 'var(--color-module)', stroke: 'var(--color-ink-3)', strokeWidth: 0.6 },
] as const;

type Ring = Schemas['CardPlan']['planes'][number];

export function CardPlan({ plan }: { plan: Schemas['CardPlan'] }) {
  const points = plan.planes.flat() as [number, number][];
  const [east, north] = [points.map((p) => p[0]), points.map((p) => p[1])];
  const [left, top] = [Math.min(...east), Math.max(...north)];
  const [wide, high] = [Math.max(...east) - left, top - Math.min(...north)];
  const scale = Math.min((WIDE_PX - 2 * PAD_PX) / wide, (HIGH_PX - 2 * PAD_PX) / high);
  const at = (ring: Ring) =>
    (ring as [number, number][])
      .map(([x, y]) => {
        const px = WIDE_PX / 2 + (x - left - wide / 2) * scale;
        const py = HIGH_PX / 2 + (top - y - high / 2) * scale;
        return `${px.toFixed(1)},${py.toFixed(1)}`;
      })
      .join(' ');
  return (
    <svg
      width={WIDE_PX}
      height={HIGH_PX}
      viewBox={`0 0 ${WIDE_PX} ${HIGH_PX}`}
      aria-hidden="true"
      className="shrink-0 rounded-sm bg-paper"
    >
      {points.length > 2 &&
        LAYERS.map(({ rings, ...look }) =>
          plan[rings].map((ring) => <polygon key={at(ring)} points={at(ring)} {...look} />),
        )}
    </svg>
  );
}
