/** Exactly so many: how many, how they are kept, and what the target asks. */

import { useTarget } from '@/api/useYear';
import { useJob } from '@/plan/JobContext';
import { Button } from '@/ui/Button';
import { Choice } from '@/ui/Choice';
import { TypedField } from '@/ui/TypedField';
import { figure } from '@/units/format';
import type { Kept } from '../queries';
import type { Asked } from '../useLayouts';

interface ExactlyFaceProps {
  /** Modules of this option on other planes: they count towards the target. */
  elsewhere: number;
  asked: Asked;
  onAsked: (asked: Asked) => void;
}

const KEPT: { value: Kept; label: string }[] = [
  { value: 'light', label: 'where the light is best' },
  { value: 'together', label: 'together' },
  { value: 'row', label: 'in one row' },
  { value: 'rectangle', label: 'in one rectangle' },
];
const MOST: Asked = { kind: 'most', squeeze: false };

export function ExactlyFace({ elsewhere, asked, onAsked }: ExactlyFaceProps) {
  const { at } = useJob();
  const target = useTarget(at).query.data;
  const kept = asked.kind === 'exactly' ? asked.kept : 'together';
  const wanted = asked.kind === 'exactly' ? asked.modules : null;
  const forTarget = (target?.target_modules ?? 0) - elsewhere;
  const ask = async (typed: string) => {
    const modules = Number(typed.trim());
    if (typed.trim() === '') return onAsked(MOST);
    if (!Number.isInteger(modules) || modules < 1 || modules > 500)
      throw new Error(`Modules wanted reads “${typed}”. Type a whole number from 1 to 500.`);
    return onAsked({ kind: 'exactly', modules, kept });
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
        Kept
        <Choice
          label="How they are kept"
          value={kept}
          items={KEPT}
          onChange={(value) =>
            wanted !== null && onAsked({ kind: 'exactly', modules: wanted, kept: value as Kept })
          }
        />
      </span>
      {target?.target_dc_kw && forTarget > 0 && (
        <Button onClick={() => onAsked({ kind: 'exactly', modules: forTarget, kept })}>
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
