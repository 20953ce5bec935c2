/** Points clicked so far, joined, with a line to the hand. */
import { type Camera, type PointM, toScreen } from '@/drawing/camera';
import { pathOf } from '@/drawing/RoofGround';

interface DrawnPointsProps {
  camera: Camera;
  points: PointM[];
  hover: PointM | null;
}

export function DrawnPoints({ camera, points, hover }: DrawnPointsProps) {
  return (
    <g pointerEvents="none">
      <polyline
        points={pathOf(camera, hover ? [...points, hover] : points)}
        fill="none"
        stroke="var(--color-copper)"
        strokeWidth="2"
      />
      {points.map((point, i) => {
        const { xPx, yPx } = toScreen(camera, point);
        return (
          <circle
            // biome-ignore lint/suspicious/noArrayIndexKey: points are kept in their order
            key={i}
            cx={xPx}
            cy={yPx}
            r={i === 0 ? 7 : 4}
            fill="var(--color-sheet)"
            stroke="var(--color-copper)"
            strokeWidth="2"
          />
        );
      })}
    </g>
  );
}
