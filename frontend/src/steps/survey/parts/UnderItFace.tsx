/** What mounts will find: covering, seams or ribs, rafters or trusses, purlins. */
import type { RoofPlane } from '@/api/client';
import { useJob } from '@/plan/JobContext';
import { StructureChoice, StructureLength } from '@/plan/StructureFields';
import { TypedField } from '@/ui/TypedField';

export function UnderItFace({ plane }: { plane: RoofPlane }) {
  const { job, edit } = useJob();
  const { structure } = plane;
  const usual = job.unit === 'ft' ? '16" or 24"' : '400mm';
  return (
    <div className="grid grid-cols-2 gap-x-4 gap-y-[3px]">
      <StructureChoice plane={plane} field="covering" />
      <StructureChoice plane={plane} field="framing" />
      {structure.covering === 'standing-seam' && (
        <>
          <StructureLength plane={plane} field="seam_spacing" label="Seams every" />
          <StructureLength plane={plane} field="first_rib" label="First seam" />
        </>
      )}
      {structure.covering === 'ribbed-metal' && (
        <>
          <StructureLength plane={plane} field="rib_spacing" label="Ribs every" />
          <StructureLength plane={plane} field="first_rib" label="First rib" />
          <StructureLength plane={plane} field="rib_height" label="Rib height" />
          <StructureLength plane={plane} field="cover_width" label="Cover width" />
        </>
      )}
      <StructureLength plane={plane} field="rafter_spacing" label="Spacing" placeholder={usual} />
      <StructureLength plane={plane} field="first_rafter" label="First from left" />
      <TypedField
        label="Size"
        value={structure.rafter_size}
        placeholder="2 × 8"
        width={72}
        align="right"
        showLabel
        commit={(typed) =>
          edit({ kind: 'set-structure', plane_id: plane.id, field: 'rafter_size', typed })
        }
      />
      <StructureLength plane={plane} field="rafter_span" label="Span" />
      <StructureLength plane={plane} field="purlin_spacing" label="Purlins every" />
      <StructureLength plane={plane} field="first_purlin" label="First from eave" />
      <p className="col-span-2 text-xs text-ink-2">
        Tap for rafters, then prove one by its nails: mounts that miss wood hold nothing. Loads are
        for the engineer and the authority having jurisdiction.
      </p>
    </div>
  );
}
