/** One page for the roof: corners, diagonals, rail lines and every mount, with blanks to fill. */
import type { RoofPlane, Schemas } from '@/api/client';
import { useJob } from '@/plan/JobContext';
import { Empty } from '@/ui/States';
import { useScrollStop } from '@/ui/useScrollStop';
import { formatTape } from '@/units/length';

interface ChalkViewProps {
  plane: RoofPlane;
  racking: Schemas['RackingView'];
}

export function ChalkView({ plane, racking }: ChalkViewProps) {
  const { job, option } = useJob();
  const scrollStop = useScrollStop();
  const racked = racking.planes.find((p) => p.plane_id === plane.id);
  if (!racked || racked.mounts === 0)
    return (
      <Empty>Lines are chalked once every rail of {plane.name} has its mounts: see Rails.</Empty>
    );
  const tape = (lengthM: number) => formatTape(lengthM, job.unit);
  const along = racked.up_slope ? 'from the eave' : 'from the left edge';
  const across = racked.up_slope ? 'from the left edge' : 'up from the eave';
  return (
    <section
      ref={scrollStop}
      aria-label="Chalk lines"
      className="breaks min-h-0 grow overflow-y-auto px-5 py-3"
    >
      <h2 className="text-base font-semibold">
        {job.name}, {plane.name}, option {option.id.toUpperCase()}
      </h2>
      <p className="text-sm">
        {racked.mounting}. Tape {along} and {across}; corners first, then both diagonals: equal, or
        the lines are not square.
      </p>
      <dl aria-label="Corners" className="mt-1.5 flex flex-wrap gap-x-5 text-sm">
        {(
          [
            ['Modules, left', racked.left_m],
            ['right', racked.right_m],
            ['bottom', racked.bottom_m],
            ['top', racked.top_m],
            ['Both diagonals', racked.diagonal_m],
          ] as const
        ).map(([name, lengthM]) => (
          <div key={name} className="flex gap-1.5">
            <dt className="font-medium">{name}</dt>
            <dd className="font-figure">{tape(lengthM)}</dd>
          </div>
        ))}
      </dl>
      {racked.supports_m.length > 0 && !racked.ground && (
        <p className="mt-2 text-sm">
          <b className="font-medium capitalize">{racked.support}s</b> {along}:{' '}
          {racked.supports_m.map((at, i) => `${i + 1} ${tape(at)}`).join(' · ')}
        </p>
      )}
      <ol aria-label="Mounts by rail" className="mt-3">
        {racked.runs.map((run) => (
          <li key={run.name} className="flex gap-3 border-t border-ink py-1">
            <span className="w-[92px] shrink-0 text-sm">
              <b className="text-base">{run.name}</b>
              <span className="block font-figure">{tape(run.across_m)}</span>
            </span>
            <ol aria-label={`Rail ${run.name}`} className="flex grow flex-wrap gap-x-1 gap-y-1">
              {run.mounts.map((mount) => (
                <li key={mount.at_m} className="w-[57px] text-xs">
                  <b className="block font-figure text-sm">{tape(mount.at_m)}</b>
                  <span className="block whitespace-nowrap">
                    {mount.support} +{tape(mount.at_m - (run.mounts[0]?.at_m ?? 0))}
                  </span>
                  <Blank />
                </li>
              ))}
            </ol>
            <span className="flex w-[72px] shrink-0 flex-col gap-1 text-xs">
              <span className="flex items-end gap-1">
                Torque <span className="grow border-b border-ink-2" />
              </span>
              <span className="flex items-end gap-1">
                By <span className="grow border-b border-ink-2" />
              </span>
            </span>
          </li>
        ))}
      </ol>
      <p className="mt-1 text-xs">
        Each rail: its line {across}. Each mount: its tape {along}, its {racked.support}, how far
        from the rail’s first; a line for where it was found. Probe before drilling; type what was
        found under Rails. Torques are the maker’s. Anchors before the first step on the roof.
      </p>
    </section>
  );
}

const Blank = () => <span className="mt-2.5 block border-b border-ink-2" />;
