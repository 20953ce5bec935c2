/** The keys of the step in view; single letters can be switched off. */
import { useState } from 'react';
import type { StepManifest } from '@/plan/manifest';
import { Panel } from '@/ui/Panel';
import { setSingleKeys, singleKeysOn } from '@/ui/useKeys';
import { stepOf } from './steps';

const EVERYWHERE = [
  ['/', 'find or do'],
  ['?', 'these keys'],
  ['Ctrl or ⌘ Z', 'undo'],
  ['Ctrl or ⌘ Shift Z', 'redo'],
  ['Tab', 'to the next field, drawing or chart'],
  ['Arrows', 'walk inside a drawing or a chart, Home and End to its ends'],
  ['Enter', 'take what was typed; choose what is in focus'],
  ['Escape', 'leave it as it was'],
] as const;

/** What keys do in a step: those of its views, from the first to the last, then its own. */
function keysOf({ views = [], keys = [] }: StepManifest): readonly (readonly [string, string])[] {
  const titles = views.map(({ title }) => title).join(', ');
  const span = `${views[0]?.hint} to ${views.at(-1)?.hint}`;
  return views[0]?.hint ? [[span, titles], ...keys] : keys;
}

interface KeyMapPanelProps {
  stepId: string;
  open: boolean;
  onOpenChange: (open: boolean) => void;
  nextShown: boolean;
  onNextShown: (on: boolean) => void;
}

export function KeyMapPanel({
  stepId,
  open,
  onOpenChange,
  nextShown,
  onNextShown,
}: KeyMapPanelProps) {
  const [single, setSingle] = useState(singleKeysOn);
  const step = stepOf(stepId);
  const rows = [...(step ? keysOf(step) : []), ...EVERYWHERE];
  return (
    <Panel
      title="Keys"
      description="What the keyboard does in this step."
      open={open}
      onOpenChange={onOpenChange}
    >
      <dl className="grid grid-cols-[150px_1fr] gap-y-1 text-sm">
        {rows.map(([key, deed]) => (
          <div key={key} className="contents">
            <dt className="font-semibold">{key}</dt>
            <dd>{deed}</dd>
          </div>
        ))}
      </dl>
      <label className="mt-4 flex min-h-6 items-center gap-2 text-sm">
        <input
          type="checkbox"
          checked={single}
          onChange={(event) => {
            setSingleKeys(event.target.checked);
            setSingle(event.target.checked);
          }}
        />
        Single letters do things
      </label>
      <label className="mt-1 flex min-h-6 items-center gap-2 text-sm">
        <input
          type="checkbox"
          checked={nextShown}
          onChange={(event) => onNextShown(event.target.checked)}
        />
        Say what is missing next above the step
      </label>
    </Panel>
  );
}
