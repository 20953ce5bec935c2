/** Incentives in their order: what each is, what comes of it, or why nothing does. */
import { useState } from 'react';
import type { Schemas } from '@/api/client';
import { useJob } from '@/plan/JobContext';
import { Button } from '@/ui/Button';
import { Card } from '@/ui/Card';
import { Choice } from '@/ui/Choice';
import { Toggle } from '@/ui/Toggle';
import { TypedField } from '@/ui/TypedField';
import { money } from '@/units/format';

type Incentive = Schemas['IncentiveView'];

const KINDS: [Schemas['IncentiveKind'], string][] = [
  ['share', 'share of the cost'],
  ['credit', 'tax credit'],
  ['per-kw', 'so much a kW'],
  ['grant', 'a sum'],
  ['allowance', 'first-year allowance'],
];
const BASES: [Schemas['BaseKind'], string][] = [
  ['gross', 'of the gross price'],
  ['after-previous', 'of what those before leave'],
  ['eligible', 'of the lines that count'],
];
const items = (pairs: readonly [string, string][]) =>
  pairs.map(([value, label]) => ({ value, label }));

export function IncentivesCard({ found }: { found: Schemas['MoneyView'] }) {
  const { act } = useJob();
  const [open, setOpen] = useState('');
  const own = found.incentives.filter((i) => i.own);
  return (
    <Card title="Incentives" className="w-[330px] shrink-0" scrolls>
      <ol className="flex flex-col">
        {found.incentives.map((one) => (
          <li key={one.id} className="border-b border-rule py-1 text-sm">
            <div className="flex items-baseline justify-between gap-2">
              <span className={one.refused ? 'text-ink-2' : 'font-medium'}>{one.name}</span>
              <span className="font-figure font-semibold whitespace-nowrap">
                {one.refused ? '0' : money(one.cents, found.currency)}
              </span>
            </div>
            <p className="text-xs text-ink-2">{one.worked.lines.join('; ')}</p>
            {one.own && (
              <Button
                aria-expanded={open === one.id}
                onClick={() => setOpen(open === one.id ? '' : one.id)}
              >
                {open === one.id ? 'Done' : 'Change'}
              </Button>
            )}
            {open === one.id && <Fields one={one} place={own.indexOf(one)} last={own.length - 1} />}
          </li>
        ))}
      </ol>
      <div className="mt-1">
        <Choice
          label="Add an incentive"
          value="none"
          items={[{ value: 'none', label: 'Add an incentive …' }, ...items(KINDS)]}
          onChange={(kind) =>
            kind !== 'none' &&
            void act({
              kind: 'add-incentive',
              name: `New ${KINDS.find(([k]) => k === kind)?.[1] ?? 'incentive'}`,
              incentive_kind: kind as Schemas['IncentiveKind'],
            })
          }
          className="w-full"
        />
      </div>
      {found.incentives.length > 0 && (
        <p className="mt-1 text-xs text-ink-2">Check with an adviser.</p>
      )}
    </Card>
  );
}

function Fields({ one, place, last }: { one: Incentive; place: number; last: number }) {
  const { edit, act } = useJob();
  const id = one.id;
  const set = (field: Schemas['IncentiveField'], typed: string) =>
    edit({ kind: 'set-incentive-field', incentive_id: id, field, typed });
  const pick = (field: Schemas['IncentiveField']) => (typed: string) =>
    void act({ kind: 'set-incentive-field', incentive_id: id, field, typed });
  const typed = (field: Schemas['IncentiveField'], label: string, value: string, words = false) => (
    <TypedField
      label={label}
      value={value}
      placeholder="none"
      showLabel
      width={words ? 168 : 92}
      align={words ? 'left' : 'right'}
      commit={(text) => set(field, text)}
    />
  );
  const share = one.kind === 'share' || one.kind === 'credit' || one.kind === 'allowance';
  return (
    <div className="mt-1 flex flex-col gap-1">
      {typed('name', 'Name', one.name, true)}
      <Choice
        label="Kind"
        value={one.kind}
        items={items(KINDS)}
        onChange={pick('kind')}
        className="w-full"
      />
      {share
        ? typed('rate_frac', 'Share', one.rate)
        : typed('cents', one.kind === 'per-kw' ? 'For a kW' : 'Sum', one.amount)}
      {share && (
        <Choice
          label="Base"
          value={one.base}
          items={items(BASES)}
          onChange={pick('base')}
          className="w-full"
        />
      )}
      {share && typed('less', 'Less by', one.less, true)}
      {typed('cap_cents', 'At most', one.cap)}
      {one.kind === 'per-kw' && typed('most_kw', 'Up to kW', one.most_kw)}
      {typed('most_dc_ac_ratio', 'DC over AC at most', one.ratio)}
      {one.ratio !== '' && (
        <Choice
          label="Above the ratio"
          value={one.over}
          items={[
            { value: 'reject', label: 'nothing is paid above it' },
            { value: 'cap', label: 'paid up to it' },
          ]}
          onChange={pick('over')}
          className="w-full"
        />
      )}
      <Choice
        label="For whom"
        value={one.owner ?? 'any'}
        items={[
          { value: 'any', label: 'for anybody' },
          { value: 'household', label: 'for households' },
          { value: 'company', label: 'for companies' },
        ]}
        onChange={pick('owner')}
        className="w-full"
      />
      {one.kind === 'credit' && (
        <Toggle on={one.refundable} onChange={(on) => pick('refundable')(on ? 'yes' : 'no')}>
          Paid even where no tax is owed
        </Toggle>
      )}
      {typed('ends', 'Last day', one.ends)}
      {one.ends !== '' && (
        <Choice
          label="Day that counts"
          value={one.date_rule}
          items={[
            { value: 'in-service', label: 'the day it goes live' },
            { value: 'contract', label: 'the day of the contract' },
          ]}
          onChange={pick('date_rule')}
          className="w-full"
        />
      )}
      {typed('pays_in_year', 'Pays in year (0 at once)', String(one.pays_in_year))}
      {typed('source', 'Source', one.source, true)}
      <Toggle on={one.taken} onChange={(on) => pick('taken')(on ? 'yes' : 'no')}>
        Counted
      </Toggle>
      <div className="flex flex-wrap gap-1">
        {place > 0 && (
          <Button
            onClick={() => void act({ kind: 'move-incentive', incentive_id: id, place: place - 1 })}
          >
            Earlier
          </Button>
        )}
        {place < last && (
          <Button
            onClick={() => void act({ kind: 'move-incentive', incentive_id: id, place: place + 1 })}
          >
            Later
          </Button>
        )}
        <Button onClick={() => void act({ kind: 'remove-incentive', incentive_id: id })}>
          Remove
        </Button>
      </div>
    </div>
  );
}
