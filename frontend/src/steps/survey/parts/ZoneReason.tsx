/** A zone was drawn: why it stays free, typed where it lies. */
import type { RoofPlane } from '@/api/client';
import { type Camera, type PointM, toScreen } from '@/drawing/camera';
import { At } from '@/drawing/Pane';
import { useJob } from '@/plan/JobContext';
import { TypedField } from '@/ui/TypedField';

interface ZoneReasonProps {
  camera: Camera;
  plane: RoofPlane;
  ring: PointM[];
  onSettled: () => void;
}

export function ZoneReason({ camera, plane, ring, onSettled }: ZoneReasonProps) {
  const { edit } = useJob();
  const middle = {
    xM: ring.reduce((sum, p) => sum + p.xM, 0) / ring.length,
    yM: ring.reduce((sum, p) => sum + p.yM, 0) / ring.length,
  };
  return (
    <At {...toScreen(camera, middle)}>
      <TypedField
        label="Why the zone stays free"
        value=""
        placeholder="why? e.g. stay off"
        width={170}
        align="left"
        focusNow
        commit={(reason) =>
          edit({
            kind: 'add-keep-out',
            plane_id: plane.id,
            reason,
            corners: ring.map((p) => ({ x_m: p.xM, y_m: p.yM })),
          }).then(onSettled)
        }
        onLeave={onSettled}
      />
    </At>
  );
}
