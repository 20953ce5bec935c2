/** Under everything on the site: the picture traced from, lot lines, true north, the scale. */
import type { Schemas } from '@/api/client';
import { pictureAddress } from '@/api/queries';
import { type Camera, toScreen } from '@/drawing/camera';
import { pathOf } from '@/drawing/RoofGround';
import { formatLength, type LengthUnit } from '@/units/length';
import { metresPerPx, pointOf } from './siteFrame';

export function TracePicture({ camera, trace }: { camera: Camera; trace: Schemas['Trace'] }) {
  const at = toScreen(camera, pointOf(trace.at));
  const scale = metresPerPx(trace) * camera.pxPerM;
  const { picture, first } = trace;
  return (
    <image
      href={pictureAddress(picture.sha256)}
      width={picture.width_px}
      height={picture.height_px}
      opacity={0.6}
      data-ground=""
      transform={`translate(${at.xPx} ${at.yPx}) rotate(${trace.turned_deg}) scale(${scale}) translate(${-first.x_px} ${-first.y_px})`}
    />
  );
}

export function LotLine({ camera, line }: { camera: Camera; line: Schemas['LotLine'] }) {
  const points = pathOf(camera, line.points.map(pointOf));
  const shape = { fill: 'none', stroke: 'var(--color-copper)', strokeWidth: 1.5 };
  const first = line.points[0];
  const at = first && toScreen(camera, pointOf(first));
  return (
    <g pointerEvents="none">
      {line.closed ? (
        <polygon points={points} strokeDasharray="14 4 3 4" {...shape} />
      ) : (
        <polyline points={points} strokeDasharray="14 4 3 4" {...shape} />
      )}
      {at && (
        <text x={at.xPx + 6} y={at.yPx - 6} fontSize="12.5" fill="var(--color-copper)">
          {line.name}
        </text>
      )}
    </g>
  );
}

interface TrenchProps {
  camera: Camera;
  /** From a table or the area to the panel. */
  points: Schemas['SitePoint'][];
  /** Its length and depth. */
  told: string;
}

export function Trench({ camera, points, told }: TrenchProps) {
  const [begin, next] = points;
  if (!begin || !next) return null;
  const at = toScreen(camera, pointOf(next));
  const from = toScreen(camera, pointOf(begin));
  return (
    <g pointerEvents="none">
      <polyline
        points={pathOf(camera, points.map(pointOf))}
        fill="none"
        stroke="var(--color-ink-2)"
        strokeWidth="3"
        strokeDasharray="2 4"
      />
      <text
        x={(at.xPx + from.xPx) / 2}
        y={(at.yPx + from.yPx) / 2 + 26}
        fontSize="12.5"
        textAnchor="middle"
        fill="var(--color-ink-2)"
        stroke="var(--color-paper)"
        strokeWidth="3"
        paintOrder="stroke"
      >
        {told}
      </text>
    </g>
  );
}

interface NorthAndScaleProps {
  camera: Camera;
  widthPx: number;
  heightPx: number;
  unit: LengthUnit;
}

const STEPS_M = { m: [1, 2, 5, 10, 20, 50, 100], ft: [1.524, 3.048, 6.096, 15.24, 30.48] };

export function NorthAndScale({ camera, widthPx, heightPx, unit }: NorthAndScaleProps) {
  const longM = STEPS_M[unit].findLast((m) => m * camera.pxPerM <= 150) ?? STEPS_M[unit][0] ?? 1;
  const longPx = longM * camera.pxPerM;
  const y = heightPx - 16;
  return (
    <g pointerEvents="none">
      <g transform={`translate(${widthPx - 36} 46)`} role="img" aria-label="True north is up">
        <circle r="17" fill="var(--color-paper)" stroke="var(--color-field)" />
        <path d="M0 -13 L5 9 L0 5 L-5 9 Z" fill="var(--color-ink)" />
        <text y="-20" fontSize="12.5" fontWeight="600" textAnchor="middle">
          N
        </text>
      </g>
      <g stroke="var(--color-ink-2)" transform={`translate(14 ${y})`}>
        <path d={`M0 -5 V0 H${longPx} V-5`} fill="none" strokeWidth="1.4" />
        <text x={longPx / 2} y="-7" fontSize="12.5" textAnchor="middle" stroke="none">
          {formatLength(longM, unit)
            .replace(/\.00 m$/, ' m')
            .replace(/' 0"$/, "'")}
        </text>
      </g>
    </g>
  );
}
