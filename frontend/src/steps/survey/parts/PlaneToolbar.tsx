/** The tools of the plane's drawing. */
import type { RoofPlane } from '@/api/client';
import { useJob } from '@/plan/JobContext';
import { Button } from '@/ui/Button';
import { Toolbar } from '@/ui/Card';
import { Menu } from '@/ui/Menu';
import { OBSTRUCTION_KINDS } from '../obstructionKinds';
import type { PlaneTool } from '../planeTool';
import type { SurveyViewProps } from '../views';

interface PlaneToolbarProps extends SurveyViewProps {
  plane: RoofPlane;
  tool: PlaneTool;
  onTake: (tool: PlaneTool) => void;
}

export function PlaneToolbar({ plane, tool, onTake, views }: PlaneToolbarProps) {
  const { job } = useJob();
  const drawn = new Set(plane.existing.map((r) => r.existing_id));
  const button = (title: string, hint: string, next: PlaneTool) => (
    <Button
      hint={hint}
      aria-pressed={tool.kind === next.kind}
      weight={tool.kind === next.kind ? 'pressed' : 'plain'}
      onClick={() => onTake(next)}
    >
      {title}
    </Button>
  );
  return (
    <Toolbar>
      {button('Sketch', 'B', { kind: 'sketch', points: [] })}
      {button('Diagonal', 'D', { kind: 'diagonal', from: null })}
      {button('Offset', 'F', { kind: 'offset', corner: null })}
      {button('Square', 'Q', { kind: 'square' })}
      <Menu
        label="More readings"
        pressed={tool.kind === 'along' || tool.kind === 'parallel' || tool.kind === 'in-line'}
        items={[
          {
            label: 'Distance along a side',
            run: () => onTake({ kind: 'along', corner: null }),
          },
          { label: 'Sides drawn parallel', run: () => onTake({ kind: 'parallel', edge: null }) },
          {
            label: 'Corner in line with a side',
            run: () => onTake({ kind: 'in-line', corner: null }),
          },
        ]}
      >
        More
      </Menu>
      <Menu
        label="On the roof"
        pressed={tool.kind === 'place' || tool.kind === 'keep-out' || tool.kind === 'old-array'}
        items={[
          ...OBSTRUCTION_KINDS.map(({ kind, title, hint }) => ({
            label: title,
            ...(hint ? { hint } : {}),
            run: () => onTake({ kind: 'place', what: kind }),
          })),
          {
            label: 'Keep-out zone',
            hint: 'K',
            run: () => onTake({ kind: 'keep-out', points: [] }),
          },
          ...job.brief.already.arrays.map((a) => ({
            label: `${a.name} (there already)`,
            disabled: drawn.has(a.id),
            run: () => onTake({ kind: 'old-array', existingId: a.id }),
          })),
        ]}
      />
      {views}
    </Toolbar>
  );
}
