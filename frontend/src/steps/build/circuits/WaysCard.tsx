/** One way at a time, piece by piece: where it lies, how long it is as drawn or typed. */
import { Link } from 'react-router';
import type { Schemas } from '@/api/client';
import { useJob } from '@/plan/JobContext';
import { Button } from '@/ui/Button';
import { Card } from '@/ui/Card';
import { Choice } from '@/ui/Choice';
import { TypedField } from '@/ui/TypedField';
import { echoOf } from '@/units/length';
import { drawnOf } from './drawnWay';

type Leg = Schemas['LegView'];
type Segment = Schemas['DrawnSegment'];

const LIES: [Schemas['Lie'], string][] = [
  ['roof', 'roof, in the sun'],
  ['attic', 'attic'],
  ['outside', 'outside wall'],
  ['inside', 'inside'],
  ['buried', 'buried'],
];

interface WaysCardProps {
  found: Schemas['CircuitsView'];
  leg: Leg | undefined;
  onChoose: (leg: string) => void;
  onSet: (leg: Leg, segments: Segment[]) => Promise<unknown>;
}

export function WaysCard({ found, leg, onChoose, onSet }: WaysCardProps) {
  const { at, job, option, act, edit } = useJob();
  if (!leg) return null;
  const segments = drawnOf(leg);
  const changed = (n: number, part: Partial<Segment>) =>
    segments.map((s, i) => (i === n ? { ...s, ...part } : s));
  const typed = (n: number, part: Partial<Segment>) =>
    edit({
      kind: 'set-route',
      option_id: option.id,
      leg: leg.id,
      segments: changed(n, part),
    });
  return (
    <Card title="Way of the cable" aside={leg.conduit} className="shrink-0" scrolls>
      <div className="flex flex-wrap items-center gap-2">
        <Choice
          label="Which way"
          className="max-w-[260px]"
          value={leg.id}
          items={found.legs.map((l) => ({
            value: l.id,
            label: `${l.name}, ${l.length_text}`,
            short: l.name.replace(/^To the \w+ from /, ''),
          }))}
          onChange={onChoose}
        />
        {!found.all_taken && found.legs.some((l) => l.pieces.length > 0) && (
          <Button
            weight="main"
            onClick={() => void act({ kind: 'take-routes', option_id: option.id })}
          >
            Take all ways as drawn
          </Button>
        )}
        {leg.taken && <Button onClick={() => void onSet(leg, [])}>As proposed</Button>}
      </div>
      <p className="my-1 text-xs text-ink-2">
        {leg.taken
          ? 'Taken'
          : leg.pieces.length > 0
            ? 'Proposed, from where the gear hangs'
            : leg.asked}{' '}
        {leg.pieces.length === 0 && (
          <Link to={`/jobs/${at.jobId}/${option.id}/survey?view=site`} className="underline">
            To the site plan
          </Link>
        )}
      </p>
      <ol className="flex flex-col gap-1">
        {leg.pieces.map((piece, n) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: pieces have no name but their place
          <li key={n} className="flex flex-wrap items-center gap-2 text-sm">
            <span className="w-3 text-ink-2">{n + 1}</span>
            <Choice
              label={`Piece ${n + 1} lies`}
              className="w-[138px]"
              value={piece.lie}
              items={LIES.map(([value, label]) => ({ value, label }))}
              onChange={(lie) => void onSet(leg, changed(n, { lie: lie as Schemas['Lie'] }))}
            />
            <TypedField
              label={`Length of piece ${n + 1}`}
              value={piece.length_typed || piece.length_text}
              tone={piece.length_typed ? 'plain' : 'derived'}
              width={88}
              align="right"
              echo={(text) => echoOf(text, job.unit)}
              commit={(text) => typed(n, { length: text })}
            />
            {piece.lie === 'roof' && (
              <TypedField
                label={`Piece ${n + 1} over the roof`}
                value={piece.above_typed}
                placeholder="over the roof"
                width={96}
                align="right"
                echo={(text) => echoOf(text, job.unit)}
                commit={(text) => typed(n, { above_roof: text })}
              />
            )}
            {piece.points.length > 1 && (
              <Button onClick={() => void onSet(leg, bent(segments, piece, n))}>Bend</Button>
            )}
            {leg.pieces.length > 1 && (
              <Button
                onClick={() =>
                  void onSet(
                    leg,
                    segments.filter((_, i) => i !== n),
                  )
                }
              >
                Remove
              </Button>
            )}
          </li>
        ))}
      </ol>
      {leg.pieces.length === 0 && (
        <TypedField
          label="Length of the whole way"
          value=""
          placeholder="type it"
          showLabel
          width={96}
          align="right"
          echo={(text) => echoOf(text, job.unit)}
          commit={(text) =>
            edit({
              kind: 'set-route',
              option_id: option.id,
              leg: leg.id,
              segments: [{ lie: 'outside', to: null, length: text, drop: '', above_roof: '' }],
            })
          }
        />
      )}
    </Card>
  );
}

/** The way with one more bend, in the middle of a piece. */
function bent(segments: Segment[], piece: Schemas['CableView'], n: number): Segment[] {
  const [a, b] = piece.points;
  const at = segments[n];
  if (!a || !b || !at) return segments;
  const middle = { east_m: (a.east_m + b.east_m) / 2, north_m: (a.north_m + b.north_m) / 2 };
  const first = { ...at, to: middle, length: '' };
  const second = { ...at, length: '', drop: '' };
  return [...segments.slice(0, n), first, second, ...segments.slice(n + 1)];
}
