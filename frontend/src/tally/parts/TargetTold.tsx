/** What the Tally tells of a target: energy against need, the count, the first ceiling, what is passed. */
import { useState } from 'react';
import type { TargetReport } from '@/api/client';
import { Mark } from '@/ui/Mark';
import { figure, yearlyKwh } from '@/units/format';
import { KIND } from './LimitRow';
import { Row } from './Row';
import { SumLines } from './SumLines';

export function TargetTold({ target }: { target: TargetReport }) {
  const [open, setOpen] = useState(false);
  const binding = target.ceilings.find((c) => c.kind === target.binding && c.modules !== null);
  const wanted = target.target_modules;
  if (target.need_kwh === null && wanted === null) {
    return <p className="py-1 text-sm text-ink-2">No use yet: type the bills in the Brief.</p>;
  }
  const share = target.against_need_frac;
  return (
    <>
      {share !== null && (
        <Row
          label="Against usage"
          value={`${figure(share * 100)} %`}
          aside={`of ${yearlyKwh(target.need_kwh ?? 0)}`}
        />
      )}
      {wanted !== null && (
        <Row
          label="Target"
          value={`${wanted} modules`}
          aside={target.modules_now ? difference(target.modules_now - wanted) : ''}
        />
      )}
      {binding && (
        <div className={open ? '-mx-2 rounded-sm bg-paper px-2' : ''}>
          <button
            type="button"
            aria-expanded={open}
            onClick={() => setOpen(!open)}
            className="block w-full text-left"
          >
            <Row
              label={`First ceiling: ${binding.title.toLowerCase()}`}
              value={String(binding.modules)}
              aside={target.spare === null ? '' : spareOf(target.spare)}
            />
          </button>
          {open && (
            <div className="mb-1.5 border-l-2 border-copper pl-2">
              <SumLines sum={binding.sum} result={`${figure(binding.value ?? 0, 2)} modules`} />
              <p className="text-xs text-ink-2">Source: {binding.source}</p>
            </div>
          )}
        </div>
      )}
      {target.ceilings
        .filter((c) => c.passed)
        .map((c) => (
          <p key={c.title} className="flex items-center gap-1.5 py-[3px] text-xs text-warn">
            <Mark shape="triangle" />
            {`${KIND[c.limit_kind]}: ${target.modules_now} modules pass the ${c.title.toLowerCase()} at ${c.modules}`}
          </p>
        ))}
      {!target.yield_simulated && (
        <p className="text-xs text-ink-2">
          With {figure(target.yield_kwh_per_kw)} kWh/kW, {target.yield_origin}.
        </p>
      )}
    </>
  );
}

const difference = (modules: number) =>
  modules === 0 ? 'reached' : modules > 0 ? `${modules} over` : `${-modules} short`;
const spareOf = (spare: number) =>
  spare < 0 ? `ends it, ${-spare} short` : spare === 0 ? 'just enough' : `${spare} to spare`;
