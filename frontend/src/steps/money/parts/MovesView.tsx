/** What would better the option most: each change worked out whole, taken into a new option at a press. */
import { useNavigate } from 'react-router';
import type { Schemas } from '@/api/client';
import { movesQuery } from '@/api/money';
import { useJob } from '@/plan/JobContext';
import { useStudy } from '@/plan/useStudy';
import { Button } from '@/ui/Button';
import { Failed, Waiting } from '@/ui/States';
import { useScrollStop } from '@/ui/useScrollStop';
import { cash, figure, money, signed } from '@/units/format';
import { Unsound } from './Unsound';

type Move = Schemas['Move'];

const HEADS = ['Worth today', 'Net price', 'kWh a year', 'Saved, year 1', 'Paid back'];

export function MovesView({ currency }: { currency: string }) {
  const { at } = useJob();
  const scrollStop = useScrollStop();
  const { found, behind, running, error } = useStudy(movesQuery(at));
  if (error) return <Failed error={error} />;
  if (!found)
    return (
      <Waiting shows="What would better this option most, the best first, as it is found.">
        Working out this option first
      </Waiting>
    );
  return (
    <section
      ref={scrollStop}
      aria-label="Next moves"
      aria-busy={behind}
      className={`breaks relative min-h-0 grow overflow-auto px-4 py-2 ${behind ? 'opacity-50' : ''}`}
    >
      <p role="status" className="mb-1 text-sm">
        {running && found.trying
          ? `${found.looked_at} tried; now: ${found.trying}`
          : `${found.looked_at} changes tried, each a whole run against ${money(found.npv_cents, currency)} today.`}
      </p>
      <table className="w-full max-w-[980px] border-collapse text-sm">
        <thead>
          <tr className="border-b border-ink text-ink-2">
            <th scope="col" className="text-left font-normal">
              Change
            </th>
            {HEADS.map((title) => (
              <th key={title} scope="col" className="pl-3 text-right font-normal">
                {title}
              </th>
            ))}
            <th scope="col" className="sr-only">
              Take it
            </th>
          </tr>
        </thead>
        <tbody>
          {found.moves.map((move) => (
            <Row key={move.title} move={move} currency={currency} />
          ))}
        </tbody>
      </table>
      {found.untried.length > 0 && (
        <p className="mt-2 text-xs text-ink-2">Not tried: {found.untried.join('; ')}.</p>
      )}
    </section>
  );
}

function Row({ move, currency }: { move: Move; currency: string }) {
  const { at, edit } = useJob();
  const navigate = useNavigate();
  const change = (cents: number) =>
    cents === 0 ? '0' : `${cents > 0 ? '+' : ''}${cash(cents, currency)}`;
  const taken = move.edit;
  const take = async () => {
    if (!taken) return;
    const state = await edit({ ...taken, kind: 'take-remedy' });
    const made = state.job.options.at(-1);
    if (made) navigate(`/jobs/${at.jobId}/${made.id}/money`);
  };
  return (
    <tr className="border-b border-rule text-right font-figure">
      <th scope="row" className="py-1 text-left font-sans font-medium">
        {move.title}
        <span className="block text-xs font-normal text-ink-2">{move.work}</span>
        <Unsound breaks={move.breaks} unpriced={move.unpriced} />
      </th>
      <td className="pl-3 font-semibold whitespace-nowrap">{change(move.npv_cents)}</td>
      <td className="pl-3 whitespace-nowrap">{change(move.net_cents)}</td>
      <td className="pl-3 whitespace-nowrap">{signed(move.energy_kwh) || '0'}</td>
      <td className="pl-3 whitespace-nowrap">{change(move.saved_cents)}</td>
      <td className="pl-3 whitespace-nowrap">
        {move.years === null ? 'never' : `${figure(move.years, 1)} years`}
      </td>
      <td className="pl-3">
        {taken && (
          <Button aria-label={`Into a new option: ${move.title}`} onClick={() => void take()}>
            Into a new option
          </Button>
        )}
      </td>
    </tr>
  );
}
