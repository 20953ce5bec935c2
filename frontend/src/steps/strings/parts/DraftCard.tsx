/** A string being threaded by hand: how long it is, and where it goes. */
import { useState } from 'react';
import { useJob } from '@/plan/JobContext';
import { Button } from '@/ui/Button';
import { Card } from '@/ui/Card';
import { useKeys } from '@/ui/useKeys';
import { TrackerChoice } from './TrackerChoice';

interface DraftCardProps {
  moduleIds: readonly string[];
  onDone: () => void;
}

export function DraftCard({ moduleIds, onDone }: DraftCardProps) {
  const { option, report, act } = useJob();
  const [picked, setPicked] = useState<number | null>(null);
  const empty = report.trackers.find((t) => t.strings.length === 0)?.number;
  const before = option.strings.find((s) => s.module_ids.includes(moduleIds[0] ?? ''));
  // An unused tracker first, else where its modules were.
  const tracker = picked ?? empty ?? before?.tracker_number ?? 1;
  const many = moduleIds.length;
  const { series_min, series_max } = report;
  const wire = () => {
    if (many > 0)
      void act({
        kind: 'thread-string',
        option_id: option.id,
        tracker_number: tracker,
        module_ids: [...moduleIds],
      });
    onDone();
  };
  useKeys({ w: wire, Escape: onDone });
  return (
    <Card title="New string" aside={`${many} in series`} className="w-[270px] shrink-0">
      <div className="flex flex-col gap-1.5 text-sm">
        <p>Click or draw across modules in wiring order, from the positive end.</p>
        <p className={many > series_max ? 'font-semibold text-stop' : 'text-ink-2'}>
          {many > series_max
            ? `${many} are too many: ${series_max} at most`
            : `${series_min} to ${series_max} fit`}
        </p>
        <TrackerChoice label="Tracker of the new string" number={tracker} onChange={setPicked} />
        <div className="flex gap-1.5">
          <Button weight="main" hint="W" disabled={many === 0} onClick={wire}>
            Wire it
          </Button>
          <Button hint="Esc" onClick={onDone}>
            Leave it
          </Button>
        </div>
      </div>
    </Card>
  );
}
