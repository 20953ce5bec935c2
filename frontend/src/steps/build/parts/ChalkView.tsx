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
      className="min-h-0 grow overflow-y-auto px-5 py-3"
    >
      <h2 className="text-base font-semibold">
        {job.name}, {plane.name}, option {option.id.toUpperCase()}
      </h2>
      <p className="text-sm">
        {racked.mounting}. Tape {along} and {across}; corners first, then both diagonals: equal, or
        the lines are not square.
      </p>
      <table className="mt-2 text-sm">
        <tbody>
          <tr>
            <th scope="row" className="pr-4 text-left font-medium">
              Modules, left and right
            </th>
            <td className="pr-6 font-figure">{tape(racked.left_m)}</td>
            <td className="pr-6 font-figure">{tape(racked.right_m)}</td>
          </tr>
          <tr>
            <th scope="row" className="pr-4 text-left font-medium">
              Modules, bottom and top
            </th>
            <td className="pr-6 font-figure">{tape(racked.bottom_m)}</td>
            <td className="pr-6 font-figure">{tape(racked.top_m)}</td>
          </tr>
          <tr>
            <th scope="row" className="pr-4 text-left font-medium">
              Both diagonals
            </th>
            <td className="pr-6 font-figure font-semibold">{tape(racked.diagonal_m)}</td>
            <td />
          </tr>
        </tbody>
      </table>
      {racked.supports_m.length > 0 && !racked.ground && (
        <p className="mt-2 text-sm">
          <b className="font-medium capitalize">{racked.support}s</b> {along}:{' '}
          {racked.supports_m.map((at, i) => `${i + 1} ${tape(at)}`).join(' · ')}
        </p>
      )}
      <table className="mt-3 w-full border-collapse text-sm">
        <thead>
          <tr className="border-b border-ink text-left">
            <th scope="col">Rail</th>
            <th scope="col">Line {across}</th>
            <th scope="col">No.</th>
            <th scope="col">Mount {along}</th>
            <th scope="col">Running tape</th>
            <th scope="col" className="capitalize">
              {racked.support}
            </th>
            <th scope="col">Found</th>
            <th scope="col">Torque</th>
            <th scope="col">By</th>
          </tr>
        </thead>
        <tbody>
          {racked.runs.flatMap((run) =>
            run.mounts.map((mount, i) => (
              <tr key={`${run.name} ${mount.at_m}`} className="border-b border-rule">
                <td className="font-semibold">{i === 0 ? run.name : ''}</td>
                <td className="font-figure">{i === 0 ? tape(run.across_m) : ''}</td>
                <td className="font-figure">{i + 1}</td>
                <td className="font-figure">{tape(mount.at_m)}</td>
                <td className="font-figure">{tape(mount.at_m - (run.mounts[0]?.at_m ?? 0))}</td>
                <td className="font-figure">{mount.support}</td>
                <Blank />
                <Blank />
                <Blank />
              </tr>
            )),
          )}
        </tbody>
      </table>
      <p className="mt-2 text-xs">
        Probe each {racked.support} before drilling; type what was found under Rails, “What I
        found”. Torques are the maker’s. Anchors before the first step on the roof.
      </p>
    </section>
  );
}

const Blank = () => (
  <td>
    <span className="inline-block h-4 w-16 border-b border-ink-2" />
  </td>
);
