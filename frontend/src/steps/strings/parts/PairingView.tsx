/** A module against every microinverter: what its limit cuts here, in the cold, in the heat. */
import type { Schemas } from '@/api/client';
import { useJob } from '@/plan/JobContext';
import { useStudy } from '@/plan/useStudy';
import { Button } from '@/ui/Button';
import { Mark } from '@/ui/Mark';
import { figure, lossShare } from '@/units/format';
import { pairingQuery } from '../queries';
import { Study } from './Study';

export function PairingView() {
  const { at } = useJob();
  return (
    <Study
      study={useStudy(pairingQuery(at))}
      waiting="Setting module and microinverters against each other"
      coming="Each microinverter of the shelf with what it loses of this module in a year."
    >
      {(study, running) => <Pairings study={study} running={running} />}
    </Study>
  );
}

function Pairings({ study, running }: { study: Schemas['PairingStudy']; running: boolean }) {
  const { option, act } = useJob();
  const [here = '', cold = '', hot = ''] = study.sites;
  return (
    <section
      aria-label="Microinverters for this module"
      className="relative min-h-0 grow overflow-y-auto p-4"
    >
      <h2 className="text-base font-semibold">{study.module}</h2>
      <p className="mb-2 max-w-[760px] text-sm">{study.told}</p>
      {running && (
        <p role="status" className="mb-1 text-sm text-ink-2">
          {figure(study.done_frac * 100)} % worked out
        </p>
      )}
      <table className="w-full max-md:min-w-[600px] text-sm">
        <thead>
          <tr className="text-left align-bottom text-xs text-ink-2">
            <th className="font-normal">Microinverter</th>
            <th className="w-[66px] text-right font-normal">Laboratory W over peak</th>
            <th className="w-[88px] text-right font-normal">Nominal W of its peak</th>
            <th className="w-[128px] text-right font-normal">{here}</th>
            <th className="w-[128px] text-right font-normal" title={cold}>
              {cold.split(':')[0]}
            </th>
            <th className="w-[128px] text-right font-normal" title={hot}>
              {hot.split(':')[0]}
            </th>
            <th className="w-[84px]">
              <span className="sr-only">Take it</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {study.pairings.map((pairing) => (
            <tr key={pairing.unit_id} className="border-t border-rule align-top">
              <th scope="row" className="py-1.5 text-left font-medium">
                <span className="flex items-start gap-2">
                  <span className="mt-1">
                    <Mark shape={pairing.unfit ? 'square' : 'circle'} />
                  </span>
                  <span>
                    {pairing.unit}
                    {pairing.unfit && (
                      <span className="block text-xs font-normal text-stop">{pairing.unfit}</span>
                    )}
                  </span>
                </span>
              </th>
              <td className="py-1.5 text-right font-figure">{figure(pairing.stc_ratio, 2)}</td>
              <td className="py-1.5 text-right font-figure">
                {pairing.nominal_w === null ? '?' : figure(pairing.nominal_w)} of{' '}
                {figure(pairing.p_ac_w)}
              </td>
              <ClippedCell clipped={pairing.here} />
              <ClippedCell clipped={pairing.cold} />
              <ClippedCell clipped={pairing.hot} />
              <td className="py-1 text-right">
                {pairing.chosen ? (
                  <span className="text-xs text-ink-2">chosen</span>
                ) : (
                  <Button
                    aria-label={`Take ${pairing.unit}`}
                    onClick={() =>
                      void act({
                        kind: 'choose-electronics',
                        option_id: option.id,
                        architecture: 'microinverters',
                        unit_id: pairing.unit_id,
                      })
                    }
                  >
                    Take it
                  </Button>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="mt-2 max-w-[760px] text-xs text-ink-2">
        What each module brings to the meter in a year, and what its unit’s AC limit and input
        current take of it; here under this roof’s shade. {cold}. {hot}. Both on stand-in weather,
        drawn and not measured, without shade. A 400 W module on a 300 W unit is a usual pairing
        (common practice, no source).
      </p>
    </section>
  );
}

function ClippedCell({ clipped }: { clipped: Schemas['Clipped'] | null }) {
  if (!clipped) return <td className="py-1.5 text-right text-ink-3">…</td>;
  return (
    <td className="py-1.5 text-right font-figure whitespace-nowrap">
      {figure(clipped.net_kwh_per_module, 1)} kWh
      <span className="block text-xs text-ink-2">
        lost {lossShare(clipped.frac)}: limit {figure(clipped.kwh_per_module, 1)}
        {clipped.input_kwh_per_module >= 0.05 &&
          `, input ${figure(clipped.input_kwh_per_module, 1)}`}{' '}
        kWh
      </span>
      <span className="block text-xs text-ink-2">{figure(clipped.hours)} h at the limit</span>
    </td>
  );
}
