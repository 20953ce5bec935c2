/** The keys of the step in view; single letters can be switched off. */
import { useState } from 'react';
import { Panel } from '@/ui/Panel';
import { setSingleKeys, singleKeysOn } from '@/ui/useKeys';

const EVERYWHERE = [
  ['/', 'find or do'],
  ['?', 'these keys'],
  ['Ctrl or ⌘ Z', 'undo'],
  ['Ctrl or ⌘ Shift Z', 'redo'],
  ['Tab', 'to the next field'],
  ['Enter', 'take what was typed'],
  ['Escape', 'leave it as it was'],
] as const;

const BY_STEP: Record<string, readonly (readonly [string, string])[]> = {
  brief: [
    ['Enter', 'in a bill: to the same column of the next row'],
    ['Arrows up and down', 'in a bill: walk the column'],
    ['Ctrl or ⌘ V', 'in a bill: a pasted column fills downwards, a pasted table becomes rows'],
    ['Arrows on the target', 'one module more or fewer, with Shift five'],
  ],
  survey: [
    ['1, 2, 3', 'plane, site plan, 3-D'],
    ['B', 'plane: sketch the outline by clicking'],
    ['D', 'plane: a diagonal between two corners'],
    ['F', 'plane: a corner square off a side'],
    ['Q', 'plane: mark corners drawn square'],
    ['V, C, S', 'plane: place a vent, a chimney, a skylight'],
    ['K', 'plane: draw a keep-out zone'],
    ['T, H', 'site: place a tree, a house'],
    ['L', 'site: draw a lot line'],
    ['J', 'site: join the edges of two planes'],
    ['A', 'site: place the plane by the ends of its eave'],
    ['Enter', 'close what is being drawn'],
    ['Arrows', 'nudge what is chosen 100 mm, with Shift 10 mm'],
    ['Delete', 'remove what is chosen'],
  ],
  array: [
    ['P, L, M', 'the best layout in portrait, in landscape, in mixed rows'],
    [', and .', 'step through the layouts'],
    ['Arrows', 'walk among the modules'],
    ['Space', 'take the module off or put it back'],
    ['H', 'hold the module, or let it go; with Shift its whole row'],
    ['Arrows on a held module', 'move what is held by a gap, with Shift 10 mm'],
    ['R', 'turn what is held'],
    ['G', 'the gap to the left: splits the row there'],
    ['N', 'add a module: click where, or Enter for beside the one in focus'],
    ['K', 'keep it though it is too close, with the reason'],
    ['Delete', 'remove what is held'],
    ['W', 'why not one more'],
  ],
  sun: [
    ['1 to 6', 'shade, sun path, a day, who takes it, weather, angles'],
    [', and .', 'shade: month by month; a day: 15 minutes back and on'],
    ['Y', 'shade: the whole year'],
    ['[ and ]', 'a day, sun path: the day before, the day after'],
    ['P', 'a day: play it, stop'],
    ['V', 'sun path: from above, from the roof'],
    ['Tab, Enter', 'walk among the modules, choose one'],
  ],
  strings: [
    ['+ and −', 'one module more or fewer in series'],
    ['A', 'let the planner choose'],
    ['1 to 6', 'wiring, plans, equipment, rules, ways out, compare'],
    ['H', 'thread a string by hand; W wires it'],
    ['J', 'add a box for home runs; arrows nudge it, Delete takes it away'],
  ],
  loading: [
    ['1 to 6', 'a day, to the meter, when it clips, at work, own point, sweep'],
    ['M', 'most clipped day'],
    ['S and W', 'clear summer day, clear winter day'],
    ['Arrows on the limit', 'move it by 100 W, with Shift 10 W'],
  ],
};

interface KeyMapPanelProps {
  stepId: string;
  open: boolean;
  onOpenChange: (open: boolean) => void;
}

export function KeyMapPanel({ stepId, open, onOpenChange }: KeyMapPanelProps) {
  const [single, setSingle] = useState(singleKeysOn);
  const rows = [...(BY_STEP[stepId] ?? []), ...EVERYWHERE];
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
    </Panel>
  );
}
