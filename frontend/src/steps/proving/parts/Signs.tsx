/** What a log gives away: each sign with its days, its evidence, its cost and where to look. */
import type { Schemas } from '@/api/client';
import { figure } from '@/units/format';

const EDGE: Record<Schemas['Tone'], string> = {
  act: 'border-l-stop',
  look: 'border-l-warn',
  known: 'border-l-rule',
};
const ASKS: Record<Schemas['Tone'], string> = {
  act: 'Act',
  look: 'Look',
  known: 'Known',
};
const INK: Record<Schemas['Tone'], string> = {
  act: 'text-stop',
  look: 'text-warn',
  known: 'text-ink-2',
};

interface SignsProps {
  found: Schemas['ProductionView'];
  onDay: (day: string) => void;
}

export function Signs({ found, onDay }: SignsProps) {
  const { signs } = found;
  return (
    <section aria-label="Signs" className="mt-2">
      {signs.length === 0 && <p className="text-ink-2">No sign of anything in what is judged.</p>}
      <ul className="grid gap-1.5 md:grid-cols-2">
        {signs.map((sign) => (
          <li
            key={`${sign.sign}${sign.first}`}
            className={`rounded-md border border-l-4 border-rule bg-sheet px-2.5 py-1.5 ${EDGE[sign.tone]}`}
          >
            <p>
              <b>{sign.title}</b>{' '}
              <span className={`text-xs ${INK[sign.tone]}`}>{ASKS[sign.tone]}</span>
              {sign.lost_kwh != null && sign.lost_kwh >= 0.5 && (
                <span className="float-right font-figure">{figure(sign.lost_kwh)} kWh lost</span>
              )}
            </p>
            <p>
              <button
                type="button"
                className="underline max-md:block max-md:min-h-11 max-md:text-left"
                aria-label={`${sign.title}: show ${sign.first}`}
                onClick={() => onDay(sign.first)}
              >
                {sign.when}
              </button>{' '}
              {sign.seen}.
            </p>
            <p className="text-xs text-ink-2">Look at: {sign.look_at}.</p>
          </li>
        ))}
      </ul>
    </section>
  );
}
