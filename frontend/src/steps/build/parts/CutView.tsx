/** Sticks to scale with their pieces: what to cut, what to keep. */
import { stopStudy } from '@/api/asking';
import type { Schemas } from '@/api/client';
import { useJob } from '@/plan/JobContext';
import { Button } from '@/ui/Button';
import { Empty, Waiting } from '@/ui/States';
import { TypedField } from '@/ui/TypedField';
import { useScrollStop } from '@/ui/useScrollStop';
import { formatTape, type LengthUnit } from '@/units/length';

interface CutViewProps {
  racking: Schemas['RackingView'];
  running: boolean;
}

export function CutView({ racking, running }: CutViewProps) {
  const { job, option, edit, at } = useJob();
  const scrollStop = useScrollStop();
  return (
    <section
      ref={scrollStop}
      aria-label="Cut list"
      className="breaks min-h-0 grow overflow-y-auto px-4 py-3"
    >
      <div className="mb-2 flex flex-wrap items-center gap-3 text-sm">
        <TypedField
          label="Pieces of rail at hand"
          value={option.racking.offcuts.map((o) => o.typed).join('; ')}
          placeholder={job.unit === 'ft' ? '5\' 4"; 7\' 2"' : '1.62 m; 2.18 m'}
          width={220}
          align="left"
          showLabel
          commit={(lengths) => edit({ kind: 'set-offcuts', option_id: option.id, lengths })}
        />
        {running && (
          <>
            <span role="status" className="text-ink-2">
              looking for a better one
            </span>
            <Button onClick={() => void stopStudy(at, 'racking')}>Stop</Button>
          </>
        )}
      </div>
      {racking.cuts.length === 0 && running && (
        <Waiting shows="The sticks to buy, what is cut from each, and what is left of it.">
          Cutting sticks
        </Waiting>
      )}
      {racking.cuts.length === 0 && !running && (
        <Empty>Sticks are cut once every rail of a plane has its mounts: see Rails.</Empty>
      )}
      {racking.cuts.map((cut) => (
        <div key={cut.mounting} className="mb-4">
          <h2 className="text-sm font-semibold">{cut.mounting}</h2>
          <p className={`text-sm ${cut.problem ? 'text-stop' : 'text-ink-2'}`}>
            {cut.problem || cut.told}
          </p>
          {cut.costly.map((told) => (
            <p key={told} className="text-sm">
              {told}
            </p>
          ))}
          <ol className="mt-1 flex flex-col gap-1.5">
            {cut.sticks.map((stick, i) => (
              <li
                // biome-ignore lint/suspicious/noArrayIndexKey: a stick is told by its number
                key={i}
                className="flex items-center gap-2 text-xs"
              >
                <span className="w-7 shrink-0 text-right font-figure text-ink-2">{i + 1}</span>
                <StickBar stick={stick} longestM={longest(cut)} unit={job.unit} />
              </li>
            ))}
          </ol>
        </div>
      ))}
      {racking.cuts.length > 0 && (
        <p className="text-xs text-ink-2">
          Pieces from the left of the stick, the saw’s 3 mm between them. Letters are rails, numbers
          their pieces from the left. A rail that is trimmed last is cut where it lies.
        </p>
      )}
    </section>
  );
}

const longest = (cut: Schemas['CutView']) => Math.max(...cut.sticks.map((s) => s.length_m));

interface StickBarProps {
  stick: Schemas['StickView'];
  longestM: number;
  unit: LengthUnit;
}

/** A piece narrower than this share of the row is told beside it: its words would not fit. */
const TOLD_INSIDE = 0.13;

function StickBar({ stick, longestM, unit }: StickBarProps) {
  const share = (lengthM: number) => `${(lengthM / longestM) * 86}%`;
  const told = (piece: Schemas['PieceView']) => `${piece.name} ${formatTape(piece.length_m, unit)}`;
  const inside = (lengthM: number) => lengthM / longestM >= TOLD_INSIDE;
  const left = `${stick.keep ? 'keep' : 'scrap'} ${formatTape(stick.left_m, unit)}`;
  const beside = [
    ...stick.pieces.filter((p) => !inside(p.length_m)).map(told),
    ...(stick.left_m > 0.001 && !inside(stick.left_m) ? [left] : []),
    ...(stick.bought ? [] : ['at hand']),
  ];
  return (
    <div className="flex min-w-0 grow flex-wrap items-center">
      {stick.pieces.map((piece) => (
        <span
          key={piece.name}
          title={told(piece)}
          style={{ width: share(piece.length_m) }}
          className="flex min-h-7 items-center justify-center border border-ink-2 bg-module text-center leading-tight"
        >
          {inside(piece.length_m) && told(piece)}
        </span>
      ))}
      {stick.left_m > 0.001 && (
        <span
          style={{ width: share(stick.left_m) }}
          className="flex min-h-7 items-center justify-center border border-dashed border-field text-center leading-tight text-ink-2"
        >
          {inside(stick.left_m) && left}
        </span>
      )}
      {beside.length > 0 && <span className="ml-2 text-ink-2">{beside.join(', ')}</span>}
    </div>
  );
}
