/** Shade by source, most first; a tree, house or pole is tried lower here. */
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { Schemas } from '@/api/client';
import { useJob } from '@/plan/JobContext';
import { Button } from '@/ui/Button';
import { Card } from '@/ui/Card';
import { TypedField } from '@/ui/TypedField';
import { figure } from '@/units/format';
import { echoOf, formatLength } from '@/units/length';
import { type ShadeReport, trimmedQuery } from '../queries';

const KINDS: Record<Schemas['OwnerKind'], string> = {
  roof: 'roof',
  obstruction: 'on the roof',
  tree: 'tree',
  house: 'house',
  pole: 'pole',
  horizon: 'far horizon',
  rows: 'rows on legs',
};

interface CulpritsCardProps {
  shade: ShadeReport;
  behind: boolean;
  /** The one the plan shows, where it shows one. */
  picked: number | null;
  onPick?: (number: number) => void;
}

export function CulpritsCard({ shade, behind, picked, onPick }: CulpritsCardProps) {
  const [chosen, setChosen] = useState('');
  const most = shade.culprits[0]?.alone_kwh ?? 1;
  const trimmed = shade.culprits.find((c) => c.shade_id && c.shade_id === chosen);
  return (
    <Card
      title="Shade by source"
      aside="kWh a year on the glass"
      className={`flex w-[364px] shrink-0 flex-col ${behind ? 'opacity-60' : ''}`}
    >
      <ul className="min-h-0 grow overflow-y-auto">
        {shade.culprits.map((c, i) => (
          <li
            key={`${c.number}`}
            className={`flex items-center gap-2 rounded-sm py-px text-sm ${c.number === picked ? 'bg-copper-wash' : ''}`}
          >
            <button
              type="button"
              className="min-h-6 w-[142px] shrink-0 pl-1 text-left leading-tight break-words"
              title={c.name}
              aria-pressed={c.number === picked}
              onClick={() => onPick?.(c.number)}
            >
              <span className="font-figure text-ink-2">{i + 1} </span>
              {c.name}
              {c.kind !== 'horizon' && (
                <span className="ml-1 text-xs text-ink-2">{KINDS[c.kind]}</span>
              )}
            </button>
            <span className="h-2 grow rounded-full bg-bar" aria-hidden="true">
              <span
                className="block h-2 rounded-full bg-obstruction"
                style={{ width: `${Math.max(1, (c.alone_kwh / most) * 100)}%` }}
              />
            </span>
            <span className="w-[92px] text-right font-figure">
              {figure(c.alone_kwh)}, {figure((c.alone_kwh / shade.free_kwh) * 100, 1)} %
            </span>
            <span className="w-[52px] text-right">
              {c.shade_id && (
                <Button
                  aria-label={`Trim ${c.name}`}
                  aria-pressed={c.shade_id === chosen}
                  weight={c.shade_id === chosen ? 'pressed' : 'plain'}
                  onClick={() => {
                    setChosen(c.shade_id === chosen ? '' : c.shade_id);
                    if (picked !== null) onPick?.(c.number);
                  }}
                >
                  Trim
                </Button>
              )}
            </span>
          </li>
        ))}
        {shade.culprits.length === 0 && (
          <li className="text-sm text-ink-2">Nothing stands in this array's light.</li>
        )}
      </ul>
      {!trimmed && (
        <p className="shrink-0 border-t border-rule pt-1 text-xs text-ink-2">
          {figure(shade.lost_kwh)} of {figure(shade.free_kwh)} kWh in all
          {shade.shared_kwh >= 1 && `, ${figure(shade.shared_kwh)} by two or more at once`}.{' '}
          {shade.stand_in_weather && 'Stand-in weather. '}
          {shade.crowns}.
        </p>
      )}
      {trimmed && <Trim key={trimmed.shade_id} culprit={trimmed} />}
    </Card>
  );
}

/** An obstacle lowered by so much: what comes back, and the same in the survey. */
function Trim({ culprit }: { culprit: Schemas['Culprit'] }) {
  const { job, at, act } = useJob();
  const [typed, setTyped] = useState('2 m');
  const answer = useQuery(trimmedQuery(at, culprit.shade_id, typed));
  const { data } = answer;
  return (
    <div className="mt-1 flex shrink-0 items-center gap-2 border-t border-rule pt-1.5 text-sm">
      <span className="whitespace-nowrap">Lower by</span>
      <TypedField
        label={`Lower ${culprit.name} by`}
        value={typed}
        width={64}
        noteAbove
        echo={(text) => echoOf(text, job.unit)}
        commit={(text) => Promise.resolve(setTyped(text))}
      />
      {answer.isError ? (
        <span className="text-stop">{answer.error.message}</span>
      ) : data ? (
        <>
          <span className="grow">
            gives <b className="font-figure">{figure(data.recovered_kwh)} kWh</b> of light
            {data.meter_kwh !== null && (
              <>
                , <b className="font-figure">{figure(data.meter_kwh)}</b> at the meter
              </>
            )}
          </span>
          <Button
            onClick={() =>
              void act({
                kind: 'set-shade-field',
                shade_id: culprit.shade_id,
                field: 'height',
                typed: formatLength(data.to_m, job.unit),
              })
            }
          >
            Trim it
          </Button>
        </>
      ) : (
        <span className="text-ink-2">What that brings in a year follows</span>
      )}
    </div>
  );
}
