/** The planes of the roof over the drawing: which one is looked at. */
import type { ReactNode } from 'react';
import { Button } from '@/ui/Button';
import { InlineName } from '@/ui/InlineName';
import { useJob } from './JobContext';

/** Where a step can do more with planes, its buttons stand behind the tabs. */
export function PlaneTabs({ children }: { children?: ReactNode }) {
  const { job, plane, showPlane } = useJob();
  const { planes } = job.survey;
  if (!plane || (planes.length === 1 && !children)) return null;
  return (
    <div className="flex shrink-0 flex-wrap items-center gap-1.5 px-3.5 pt-2">
      <fieldset aria-label="Roof planes" className="flex flex-wrap gap-1">
        {planes.map((p) => (
          <Button
            key={p.id}
            weight={p.id === plane.id ? 'pressed' : 'plain'}
            aria-pressed={p.id === plane.id}
            onClick={() => showPlane(p.id)}
          >
            {p.name}
          </Button>
        ))}
      </fieldset>
      {children}
    </div>
  );
}

/** The plane's name, a field when it is clicked. */
export function PlaneName() {
  const { plane, act } = useJob();
  if (!plane) return null;
  return (
    <InlineName
      label="Name of the plane"
      hint="Click to rename"
      value={plane.name}
      onName={(name) => act({ kind: 'rename-plane', plane_id: plane.id, name })}
      className="max-w-[150px]"
    />
  );
}
