/** The planes, and more of them: new from a shape, or derived from the one in view. */
import type { Edit, RoofPlane, Schemas } from '@/api/client';
import { useJob } from '@/plan/JobContext';
import { PlaneTabs } from '@/plan/PlaneTabs';
import type { PlaneSurvey } from '@/plan/scene';
import { Menu } from '@/ui/Menu';
import { useNotify } from '@/ui/Notices';

const SHAPES: [Schemas['PlaneShape'], string][] = [
  ['gable', 'Gable, one half'],
  ['hip', 'Hip, a long side'],
  ['hip-end', 'Hip end, a triangle'],
  ['shed', 'Shed'],
  ['ell', 'L'],
  ['dormer-cut', 'With a dormer cut out'],
  ['wall', 'Wall, upright'],
  ['carport', 'Carport, on posts'],
];
const GROUND: [Schemas['PlaneShape'], string] = ['ground', 'Ground area'];

export function PlaneMenus({ plane, seen }: { plane: RoofPlane; seen: PlaneSurvey }) {
  const { job, showPlane, edit, act } = useJob();
  const notify = useNotify();
  const known = new Set(job.survey.planes.map((p) => p.id));
  const add = (change: Edit) =>
    void edit(change).then(
      (state) => showPlane(state.job.survey.planes.find((p) => !known.has(p.id))?.id ?? ''),
      (error: Error) => notify({ text: error.message, tone: 'stop' }),
    );
  const hip = seen.edges.map((e) => e.kind).join() === 'eave,hip,ridge,hip';
  return (
    <PlaneTabs>
      <Menu
        label="Add a plane"
        items={[...SHAPES, GROUND].map(([shape, label]) => ({
          label,
          run: () => add({ kind: 'add-plane', shape }),
        }))}
      />
      <Menu
        label="Mirror, extend, remove"
        items={[
          {
            label: 'Derive the other side',
            run: () => add({ kind: 'add-other-side', plane_id: plane.id }),
          },
          {
            label: 'Derive the other three of a hip',
            disabled: !hip,
            run: () => add({ kind: 'add-hip-planes', plane_id: plane.id }),
          },
          ...SHAPES.map(([shape, label]) => ({
            label: `Start again: ${label.toLowerCase()}`,
            run: () => act({ kind: 'start-shape', plane_id: plane.id, shape }),
          })),
          {
            label: `Remove ${plane.name}`,
            disabled: job.survey.planes.length === 1,
            run: () => act({ kind: 'remove-plane', plane_id: plane.id }),
          },
        ]}
      />
    </PlaneTabs>
  );
}
