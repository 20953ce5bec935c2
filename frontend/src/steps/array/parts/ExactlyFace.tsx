/** Exactly so many: how many, how they are arranged, and what the target asks. */

import { useState } from 'react';
import { useTarget } from '@/api/useYear';
import { useJob } from '@/plan/JobContext';
import { Button } from '@/ui/Button';
import { Choice } from '@/ui/Choice';
import { TypedField } from '@/ui/TypedField';
import { figure } from '@/units/format';
import type { Arrangement } from '../queries';
import type { Asked } from '../useLayouts';

interface ExactlyFaceProps {
  /** Modules of this option on other planes: they count towards the target. */
  elsewhere: number;
  asked: Asked;
  onAsked: (asked: Asked) => void;
}

const ARRANGEMENTS: { value: Arrangement; label: string }[] = [
  { value: 'light', label: 'where the light is best' },
  { value: 'together', label: 'together' },
  { value: 'row', label: 'in one row' },
  { value: 'rectangle', label: 'in one rectangle' },
];
const MOST: Asked = { kind: 'most', squeeze: false };

export function ExactlyFace({ elsewhere, asked, onAsked }: ExactlyFaceProps) {
  const { at } = useJob();
  const target = useTarget(at).query.data;
  const [arrangement, setArrangement] = useState<Arrangement>(
    asked.kind === 'exactly' ? asked.arrangement : 'together',
  );
  const wanted = asked.kind === 'exactly' ? asked.modules : null;
  const forTarget = (target?.target_modules ?? 0) - elsewhere;
  const ask = async (typed: string) => {
    const modules = Number(typed.trim());
    if (typed.trim() === '') return onAsked(MOST);
    if (!Number.isInteger(modules) || modules < 1 || modules > 500)
      throw new Error(`Modules wanted reads “${typed}”. Type a whole number from 1 to 500.`);
    return onAsked({ kind: 'exactly', modules, arrangement });
  };
  const arrange = (chosen: Arrangement) => {
    setArrangement(chosen);
    if (wanted !== null) onAsked({ kind: 'exactly', modules: wanted, arrangement: chosen });
  };
  return (
    <div className="flex flex-col gap-1.5">
      <TypedField
        label="Modules on this plane"
        value={wanted === null ? '' : String(wanted)}
        placeholder="most"
        width={72}
        align="right"
        showLabel
        commit={ask}
      />
      <span className="flex items-center justify-between gap-2 text-sm">
        Arranged
        <Choice
          label="Arranged"
          value={arrangement}
          items={ARRANGEMENTS}
          onChange={(value) => arrange(value as Arrangement)}
        />
      </span>
      {target?.target_dc_kw && forTarget > 0 && (
        <Button onClick={() => onAsked({ kind: 'exactly', modules: forTarget, arrangement })}>
          {forTarget} for the target of {target.target_modules} ({figure(target.target_dc_kw, 2)}{' '}
          kW)
        </Button>
      )}
      {wanted !== null && <Button onClick={() => onAsked(MOST)}>Show the fullest again</Button>}
      <p className="text-xs text-ink-2">
        Years here have each place's shade taken off: quick sky, stand-in weather.
      </p>
    </div>
  );
}
