/** One branch circuit: its units, its current, how much its trunk rises. */
import type { Schemas } from '@/api/client';
import { threadOf } from '@/drawing/threads';
import { useJob } from '@/plan/JobContext';
import { Card } from '@/ui/Card';
import { Mark } from '@/ui/Mark';
import { figure } from '@/units/format';

export function BranchCard({ branch }: { branch: Schemas['Branch'] }) {
  const { report } = useJob();
  const mine = report.checks.filter(({ check }) => check.subject === `branch ${branch.number}`);
  const of = (rule: string) => mine.find(({ check }) => check.rule_id === rule);
  const amps = of('micro.branch');
  const rise = of('micro.trunk-rise');
  const off = mine.filter(({ check }) => check.verdict !== 'kept');
  const stop = off.some(({ check }) => check.kind === 'stop' && check.verdict === 'broken');
  const skipped = branch.connectors - branch.units.length;
  const shape = stop ? 'square' : off.length > 0 ? 'triangle' : 'circle';
  return (
    <Card
      title={`Branch ${branch.number}`}
      aside={<Mark shape={shape} />}
      className="w-[236px] shrink-0"
    >
      <p className="flex items-center gap-1.5 text-sm">
        <span
          aria-hidden="true"
          className="inline-block h-3 w-3 rounded-full"
          style={{ background: threadOf(branch.number - 1).colour }}
        />
        {branch.units.length} units, {figure(branch.amps, 1)} A of {amps?.limit_text}
      </p>
      <p className="mt-1 text-xs text-ink-2">{amps?.check.reached_at}.</p>
      {rise && (
        <p className="mt-1 text-xs text-ink-2">
          Trunk: {rise.check.reason || `rises ${rise.value_text} of ${rise.limit_text}`}
          {rise.check.reached_at && `; ${rise.check.reached_at}`}. {branch.connectors} connectors to
          order{skipped > 0 && `, ${skipped} of them skipped, each with a sealing cap`}; an end cap,
          two if it is fed in its middle.
        </p>
      )}
      <p className="mt-1 text-xs text-ink-2">
        AC lies on the roof while the grid is there: open the branch before a unit is unplugged.
      </p>
    </Card>
  );
}
