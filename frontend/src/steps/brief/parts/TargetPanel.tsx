/** The target, its figure, and the ladder of ceilings it is held against. */
import { useState } from 'react';
import type { Schemas, TargetReport } from '@/api/client';
import { Ladder } from '@/charts/Ladder';
import { CatchingUp } from '@/plan/Behind';
import { useJob } from '@/plan/JobContext';
import { SumLines } from '@/tally/parts/SumLines';
import { Choice } from '@/ui/Choice';
import { Panel } from '@/ui/Panel';
import { Failed } from '@/ui/States';
import { TypedField } from '@/ui/TypedField';
import { figure, money, yearlyKwh } from '@/units/format';
import { percent, plain } from '../model';

const KINDS: { value: Schemas['TargetKind']; label: string }[] = [
  { value: 'net-zero', label: 'Net zero over the year' },
  { value: 'share', label: 'A share of the use' },
  { value: 'budget', label: 'What the budget buys' },
  { value: 'roof', label: 'As much as the roof takes' },
  { value: 'rebate', label: 'As much as the rebate pays' },
];
const WIDTH = 372;

interface TargetPanelProps {
  target: TargetReport | undefined;
  behind: boolean;
  error: Error | null;
}

export function TargetPanel({ target, behind, error }: TargetPanelProps) {
  const { job, edit, act } = useJob();
  const wish = job.brief.target;
  return (
    <section
      aria-label="Target and ceilings"
      aria-busy={behind}
      className="flex shrink-0 flex-col"
      style={{ width: WIDTH }}
    >
      <div className="flex items-center gap-2">
        <h2 className="text-sm font-semibold">Target</h2>
        <Choice
          label="Kind of target"
          value={wish.kind}
          items={KINDS}
          onChange={(kind) =>
            act({ kind: 'set-target', target_kind: kind as Schemas['TargetKind'] })
          }
          className="grow"
        />
        {wish.kind === 'share' && (
          <TypedField
            label="Share of the use"
            value={percent(wish.share_frac)}
            width={72}
            commit={(typed) => edit({ kind: 'set-target-field', field: 'share_frac', typed })}
          />
        )}
      </div>
      <PurseFields />
      {error && <Failed error={error} tight />}
      {target && behind && <CatchingUp />}
      {target && <TargetTold target={target} behind={behind} />}
    </section>
  );
}

function PurseFields() {
  const { job, edit } = useJob();
  const { budget_cents, price_cents_per_w, yield_kwh_per_kw } = job.brief.target;
  const field = (
    name: Schemas['TargetField'],
    label: string,
    value: string,
    width: number,
    placeholder: string,
  ) => (
    <TypedField
      label={label}
      value={value}
      width={width}
      align="right"
      placeholder={placeholder}
      showLabel
      commit={(typed) => edit({ kind: 'set-target-field', field: name, typed })}
    />
  );
  return (
    <div className="mt-1 grid grid-cols-[auto_auto_auto] justify-between gap-2">
      {field('budget_cents', 'Budget', money(budget_cents), 74, 'none')}
      {field('price_cents_per_w', 'a watt', money(price_cents_per_w), 52, '2.90')}
      {field('yield_kwh_per_kw', 'kWh/kW', plain(yield_kwh_per_kw, 0), 58, 'guess')}
    </div>
  );
}

function TargetTold({ target, behind }: { target: TargetReport; behind: boolean }) {
  const { act } = useJob();
  const [open, setOpen] = useState('');
  const ceiling = target.ceilings.find((c) => keyOf(c) === open);
  const zero = target.net_zero_modules;
  const drag = (modules: number) => {
    if (!zero) return;
    // Cut, not rounded up: the share must not ask for one module more.
    const share = Math.floor((modules / zero) * 1000) / 10;
    act({ kind: 'set-target-field', field: 'share_frac', typed: `${share} %` });
  };
  return (
    <div className={behind ? 'opacity-50' : ''}>
      <p
        className={`mt-1 text-sm font-medium ${target.spare !== null && target.spare < 0 ? 'text-warn' : ''}`}
        role="status"
      >
        {target.told}.
      </p>
      <p className="text-xs text-ink-2">
        {target.target_dc_kw !== null &&
          `${figure(target.target_dc_kw, 2)} kW DC for ${yearlyKwh(target.target_kwh ?? 0)}; `}
        {figure(target.yield_kwh_per_kw)} kWh/kW, {target.yield_origin}.
      </p>
      <Ladder
        lanes={target.ceilings.map((c) => ({
          key: keyOf(c),
          title: c.title,
          modules: c.modules,
          reason: c.reason,
          binds: c.kind === target.binding,
        }))}
        target={target.target_modules}
        now={target.modules_now}
        widthPx={WIDTH}
        openKey={open}
        onOpen={(key) => setOpen(open === key ? '' : key)}
        onTarget={zero ? drag : undefined}
      />
      <Panel
        title={ceiling ? `${ceiling.title}: ${ceiling.modules ?? 'not known'} modules` : 'Ceiling'}
        description={ceiling ? `Source: ${ceiling.source} (${STATUS[ceiling.source_status]}).` : ''}
        open={ceiling !== undefined}
        onOpenChange={(stays) => !stays && setOpen('')}
      >
        {ceiling && (
          <>
            <SumLines
              sum={ceiling.sum}
              result={ceiling.value === null ? '?' : `${figure(ceiling.value, 2)} modules`}
            />
            {ceiling.reason && <p className="mt-2 text-sm text-warn">{ceiling.reason}.</p>}
          </>
        )}
      </Panel>
    </div>
  );
}

const keyOf = (c: Schemas['CeilingView']) => `${c.kind} ${c.title}`;
const STATUS: Record<string, string> = {
  'from-memory': 'from memory, check it against the edition in force',
  'common-practice': 'common practice, no source',
  geometry: 'geometry of this survey',
  brief: 'this brief',
  sample: 'invented sample',
};
