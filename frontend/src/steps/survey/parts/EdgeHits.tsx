/** The sides of an outline as things to click: for a tool, or to choose one. */
import type { Camera } from '@/drawing/camera';
import type { PlaneSurvey } from '@/plan/scene';
import { pressable } from '@/ui/pressable';
import { cornerPx } from './outlineGeometry';

interface EdgeHitsProps {
  camera: Camera;
  seen: PlaneSurvey;
  picked: number | null;
  onEdge: (edge: number) => void;
}

export function EdgeHits({ camera, seen, picked, onEdge }: EdgeHitsProps) {
  return seen.edges.map((edge, i) => {
    const [a, b] = [cornerPx(camera, seen.corners, i), cornerPx(camera, seen.corners, i + 1)];
    return (
      <line
        // biome-ignore lint/suspicious/noArrayIndexKey: an edge is its index
        key={i}
        role="button"
        aria-label={`Side ${edge.name}`}
        aria-pressed={picked === i}
        x1={a.xPx}
        y1={a.yPx}
        x2={b.xPx}
        y2={b.yPx}
        stroke={picked === i ? 'var(--color-copper)' : 'transparent'}
        strokeOpacity={0.35}
        strokeWidth={14}
        className="outline-none focus-visible:stroke-copper"
        style={{ cursor: 'pointer' }}
        onPointerDown={(event) => event.stopPropagation()}
        {...pressable(() => onEdge(i))}
      />
    );
  });
}
