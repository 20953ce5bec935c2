/** One page for the roof: corners, diagonals, a ruler of supports, every rail and mount, blanks. */
import type { RoofPlane, Schemas } from '@/api/client';
import { useJob } from '@/plan/JobContext';
import { sceneOf } from '@/plan/scene';
import { Empty } from '@/ui/States';
import { useScrollStop } from '@/ui/useScrollStop';
import { capital } from '@/units/format';
import { formatTape } from '@/units/length';
import { ChalkPlan } from './ChalkPlan';
import { chalkLines } from './chalkLines';

interface ChalkViewProps {
  plane: RoofPlane;
  racking: Schemas['RackingView'];
}

export function ChalkView({ plane, racking }: ChalkViewProps) {
  const { job, option, state, report } = useJob();
  const scrollStop = useScrollStop();
  const racked = racking.planes.find((p) => p.plane_id === plane.id);
  if (!racked || racked.mounts === 0)
    return (
      <Empty>Lines are chalked once every rail of {plane.name} has its mounts: see Rails.</Empty>
    );
  const tape = (lengthM: number) => formatTape(lengthM, job.unit);
  // In the table millimetres stand bare, their unit at its head.
  const bare = (lengthM: number) =>
    job.unit === 'm' ? String(Math.round(lengthM * 1000)) : tape(lengthM);
  const along = racked.up_slope ? 'from the eave' : 'from the left edge';
  const front = racked.ground ? 'the front edge' : 'the eave';
  const across = racked.up_slope ? 'from the left edge' : `up from ${front}`;
  const { columns, lines } = chalkLines(racked);
  return (
    <section
      ref={scrollStop}
      aria-label="Chalk lines"
      className="breaks min-h-0 grow overflow-auto bg-sheet px-5 py-3 print:bg-white"
    >
      <div className="flex flex-wrap items-baseline justify-between gap-x-4">
        <h2 className="text-base font-semibold">
          {job.name}, {plane.name}, option {option.id.toUpperCase()}: {racked.mounting}
        </h2>
        <span className="text-sm">
          Both diagonals <b className="font-figure">{tape(racked.diagonal_m)}</b>
          <Found /> <Found />
        </span>
      </div>
      <ChalkPlan racked={racked} corners={sceneOf(plane, state, report).corners} tape={tape} />
      <table className="w-full border-collapse text-center font-figure text-xs max-md:min-w-[860px]">
        <thead>
          <tr>
            <th scope="col" className="border-b border-ink text-left">
              {capital(racked.support)}
            </th>
            {columns.map((column) => (
              <th key={column.support} scope="col" className="border-b border-ink text-sm">
                {column.support}
              </th>
            ))}
            <th scope="col" className="border-b border-ink px-1 text-left font-normal">
              Torque, by
            </th>
          </tr>
          <tr>
            <th scope="row" className="text-left font-medium">
              {capital(along)}
              {job.unit === 'm' && ', mm'}
            </th>
            {columns.map((column) => (
              <td key={column.support} className="px-0.5 leading-tight">
                {bare(column.at_m)}
              </td>
            ))}
            <td />
          </tr>
          <tr>
            <th scope="row" className="border-b border-ink pb-1 text-left font-medium">
              As found
            </th>
            {columns.map((column) => (
              <td key={column.support} className="border-b border-ink px-1 pb-1 align-bottom">
                <span className="mt-4 block border-b border-ink-2" />
              </td>
            ))}
            <td className="border-b border-ink" />
          </tr>
        </thead>
        <tbody>
          {lines.map((line) => (
            <tr key={line.line} className="border-b border-rule">
              <th scope="row" className="max-w-[190px] py-0.5 pr-2 text-left leading-tight">
                <span className="whitespace-nowrap">
                  <b className="text-sm">{line.names.join(' ')}</b> {bare(line.across_m)}
                </span>
                {line.trims.length > 0 && (
                  <span className="block font-normal">
                    trim {line.trims.map((trim) => `${trim.told} ${bare(trim.lengthM)}`).join(', ')}
                  </span>
                )}
              </th>
              {line.cells.map((cell, i) => (
                <td
                  key={columns[i]?.support}
                  className="px-0.5 py-0.5 leading-tight whitespace-nowrap"
                >
                  {cell !== null && (
                    <>
                      <span
                        aria-hidden="true"
                        className="mx-auto block h-2.5 w-2.5 rounded-full border border-ink"
                      />
                      {bare(cell)}
                    </>
                  )}
                </td>
              ))}
              <td className="w-[88px] px-1 align-bottom">
                <span className="block border-b border-ink-2" />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="mt-1 text-xs">
        Corners: from the left edge →, up from {front} ↑, as seen facing the plane. Each rail: its
        line {across}; in its row the {racked.support}s under it, by the running tape from the
        rail’s first; the circle is ticked when it is in.{' '}
        {racked.ground
          ? 'Ask for buried lines first. Strings on the outer piles, front row, then back; level the front beam before the back one. Depth is an engineer’s.'
          : `${racked.support === 'rafter' ? 'Probe before drilling; type' : 'Type'} what was found under Rails. Torques are the maker’s. Anchors before the first step on the roof.`}
      </p>
    </section>
  );
}

const Found = () => <span className="ml-2 inline-block w-16 border-b border-ink-2" />;
