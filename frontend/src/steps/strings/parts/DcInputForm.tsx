/** Generic DC input in volts, amperes and watts: so the sums of any series-parallel array show. */
import { useState } from 'react';
import { ProblemError, type Schemas } from '@/api/client';
import { useJob } from '@/plan/JobContext';
import { Button } from '@/ui/Button';

const START = { most_v: '150', most_a: '30', most_w: '2000', strings: '2' };
const FIELDS = [
  { id: 'most_v', label: 'Highest volts', unit: 'V' },
  { id: 'most_a', label: 'Most amperes, short-circuited', unit: 'A' },
  { id: 'most_w', label: 'Most watts', unit: 'W' },
  { id: 'strings', label: 'Strings in parallel', unit: '' },
] as const;

type Typed = Record<(typeof FIELDS)[number]['id'], string>;

/** An input as it was typed. */
const typedOf = ({ v_dc_max_v, p_ac_w, trackers: [tracker] }: Schemas['InverterSheet']): Typed => ({
  most_v: String(v_dc_max_v),
  most_a: String(tracker?.i_max_a ?? START.most_a),
  most_w: String(p_ac_w),
  strings: String(tracker?.inputs ?? START.strings),
});

export function DcInputForm() {
  const { job, option, edit } = useJob();
  const now = job.equipment.inverters.find((i) => i.id === option.inverter_id && i.dc_only);
  const [typed, setTyped] = useState<Typed>(now ? typedOf(now) : START);
  const [refusal, setRefusal] = useState('');
  const [done, setDone] = useState(false);
  const use = async () => {
    setDone(false);
    try {
      await edit({ kind: 'use-dc-input', option_id: option.id, ...typed });
      setRefusal('');
      setDone(true);
    } catch (error) {
      if (error instanceof ProblemError) setRefusal(error.message);
      else throw error;
    }
  };
  return (
    <section aria-label="Generic DC input" className="p-4">
      <p className="mb-3 max-w-[560px] text-sm">
        Any input that takes strings, such as a charge controller’s: it stands as one tracker in the
        place of this option’s inverters, and every sum of volts, amperes and watts is checked
        against it. It makes no AC, so it has no year.
      </p>
      <form
        className="flex flex-col gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          void use();
        }}
      >
        {FIELDS.map(({ id, label, unit }) => (
          <label key={id} className="flex items-center gap-2 text-sm">
            <span className="w-[210px]">{label}</span>
            <input
              value={typed[id]}
              onChange={(event) => setTyped({ ...typed, [id]: event.target.value })}
              onKeyDown={(event) => event.stopPropagation()}
              className="h-[27px] w-[90px] rounded-md border border-field bg-sheet px-1.5 text-right font-figure"
            />
            {unit}
          </label>
        ))}
        <span className="mt-1">
          <Button type="submit" weight="main">
            {now ? 'Check against these figures' : 'Check the array against it'}
          </Button>
        </span>
      </form>
      {refusal && (
        <p role="alert" className="mt-2 text-sm text-stop">
          {refusal}
        </p>
      )}
      {now && (
        <p className="mt-3 text-sm">
          This option stands on <strong>{now.name}</strong>, for {now.trackers[0]?.inputs}{' '}
          {now.trackers[0]?.inputs === 1 ? 'string' : 'strings'}.
        </p>
      )}
      {done && (
        <p role="status" className="mt-2 text-sm">
          It stands as tracker 1; its sums are in the Tally, its strings under Wiring. Undo brings
          the inverters back.
        </p>
      )}
    </section>
  );
}
