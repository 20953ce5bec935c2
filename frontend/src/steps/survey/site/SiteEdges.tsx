/** The edges of all planes as things to click while two of them are joined. */
import { type Camera, toScreen } from '@/drawing/camera';
import type { PlaneSurvey } from '@/plan/scene';
import { pressable } from '@/ui/pressable';
import type { EdgeAt } from '../siteTool';

interface SiteEdgesProps {
  camera: Camera;
  planes: PlaneSurvey[];
  picked: EdgeAt | null;
  onEdge: (edge: EdgeAt) => void;
}

export function SiteEdges({ camera, planes, picked, onEdge }: SiteEdgesProps) {
  return planes.flatMap((seen) =>
    seen.edges.map((edge, i) => {
      const [a, b] = [seen.site[i], seen.site[(i + 1) % seen.site.length]];
      if (!a || !b) return null;
      const [from, to] = [a, b].map((c) => toScreen(camera, { xM: c.east_m, yM: c.north_m }));
      const mine = picked?.planeId === seen.plane_id && picked.edge === i;
      return (
        <line
          key={`${seen.plane_id} ${edge.name}`}
          role="button"
          aria-label={`${edge.name} of ${seen.plane_id}`}
          x1={from?.xPx}
          y1={from?.yPx}
          x2={to?.xPx}
          y2={to?.yPx}
          stroke="var(--color-copper)"
          strokeOpacity={mine ? 0.9 : 0.3}
          strokeWidth={10}
          className="outline-none focus-visible:stroke-straw"
          style={{ cursor: 'pointer' }}
          onPointerDown={(event) => event.stopPropagation()}
          {...pressable(() => onEdge({ planeId: seen.plane_id, edge: i }))}
        />
      );
    }),
  );
}
