/** A piece of the service on the site plan, by its letter. */
import type { Schemas } from '@/api/client';
import { type Camera, toScreen } from '@/drawing/camera';
import { pointOf } from './siteFrame';

type Gear = Schemas['Gear'];
type SitePoint = Schemas['SitePoint'];

export const GEAR: [Gear, string, string][] = [
  ['meter', 'Meter', 'M'],
  ['panel', 'Main panel', 'P'],
  ['disconnect', 'Disconnect', 'D'],
  ['inverter', 'Inverter', 'I'],
];

interface GearMarkProps {
  camera: Camera;
  letter: string;
  at: SitePoint;
  chosen: boolean;
}

export function GearMark({ camera, letter, at, chosen }: GearMarkProps) {
  const { xPx, yPx } = toScreen(camera, pointOf(at));
  return (
    <>
      <rect
        x={xPx - 9}
        y={yPx - 9}
        width={18}
        height={18}
        rx={4}
        fill="var(--color-straw)"
        stroke={chosen ? 'var(--color-copper)' : 'var(--color-ink)'}
        strokeWidth={chosen ? 2.5 : 1.2}
      />
      <text x={xPx} y={yPx + 4.5} fontSize="12.5" fontWeight="600" textAnchor="middle">
        {letter}
      </text>
    </>
  );
}
