/** A tree, house, pole or chimney seen from above. */
import type { Schemas } from '@/api/client';
import { type Camera, toScreen } from '@/drawing/camera';

interface ShadeMarkProps {
  camera: Camera;
  source: Schemas['ShadeSource'];
  view: Schemas['ShadeView'];
  chosen: boolean;
  named?: boolean;
}

/** Its name and its height, or that it is wanted. */
export const shadeWords = (source: Schemas['ShadeSource'], view: Schemas['ShadeView']) =>
  `${source.name}, ${view.height_text || 'height?'}`;

export function ShadeMark({ camera, source, view, chosen, named = true }: ShadeMarkProps) {
  const at = toScreen(camera, { xM: view.at.east_m, yM: view.at.north_m });
  const wide = Math.max(source.width.value_m * camera.pxPerM, 7);
  const deep = Math.max(source.depth.value_m * camera.pxPerM, 7);
  const stroke = chosen ? 'var(--color-copper)' : 'var(--color-ink-2)';
  const heavy = chosen ? 2.5 : 1.3;
  const house = source.kind === 'house';
  const words = shadeWords(source, view);
  return (
    <g transform={`translate(${at.xPx} ${at.yPx})`}>
      {house ? (
        // Its length runs along its bearing: drawn pointing north, then turned.
        <g transform={`rotate(${source.turned_deg})`}>
          <rect
            x={-deep / 2}
            y={-wide / 2}
            width={deep}
            height={wide}
            fill="var(--color-bar)"
            stroke={stroke}
            strokeWidth={heavy}
          />
          <line y1={-wide / 2} y2={wide / 2} stroke={stroke} />
        </g>
      ) : source.kind === 'tree' ? (
        <>
          <circle
            r={wide / 2}
            fill="var(--color-patina-wash)"
            fillOpacity={0.8}
            stroke={chosen ? stroke : 'var(--color-patina)'}
            strokeWidth={heavy}
            strokeDasharray={source.leaf === 'deciduous' ? '7 4' : undefined}
          />
          <circle
            r={Math.max((source.trunk.value_m / 2) * camera.pxPerM, 2.5)}
            fill="var(--color-patina)"
          />
        </>
      ) : (
        <rect
          x={-wide / 2}
          y={-wide / 2}
          width={wide}
          height={wide}
          rx={source.kind === 'pole' ? wide / 2 : 1}
          fill="var(--color-obstruction)"
          stroke={stroke}
          strokeWidth={heavy}
        />
      )}
      {named && (
        <text
          x={house ? 0 : wide / 2 + 4}
          y={4}
          fontSize="12.5"
          textAnchor={house ? 'middle' : 'start'}
          stroke="var(--color-paper)"
          strokeWidth="3"
          paintOrder="stroke"
          fill={view.height_text ? 'var(--color-ink)' : 'var(--color-warn)'}
        >
          {words}
        </text>
      )}
    </g>
  );
}
