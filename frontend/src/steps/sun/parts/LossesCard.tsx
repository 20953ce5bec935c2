/** What else changes the light: dirt, snow and the back of the modules. */
import type { Schemas } from '@/api/client';
import { useCatchingUp, useShade } from '@/api/useYear';
import { useJob } from '@/plan/JobContext';
import { Card } from '@/ui/Card';
import { Toggle } from '@/ui/Toggle';
import { figure } from '@/units/format';
import { lossesAtMeterQuery, type WeatherReport } from '../queries';

type LossAtMeter = Schemas['LossAtMeter'];

const sum = (values: readonly number[]) => values.reduce((a, b) => a + b, 0);

export function LossesCard({ weather }: { weather: WeatherReport }) {
  const { job, option, at, act, report } = useJob();
  const { query, behind } = useShade(at, true);
  const meter = useCatchingUp(at, lossesAtMeterQuery, report.modules_strung > 0);
  const atMeter = (step: LossAtMeter['step']) =>
    meter.query.data?.find((l) => l.step === step)?.kwh;
  const shade = query.data;
  const rows: [string, LossAtMeter['step'], number, string][] = shade
    ? [
        ['Shade takes', 'shade', -shade.lost_kwh, 'of the free light'],
        [
          'Snow takes',
          'snow',
          -sum(shade.monthly_snow_kwh),
          weather.typed.includes('snowfall')
            ? 'monthly model of Townsend and Powers'
            : 'no snowfall is typed',
        ],
        ['Soiling takes', 'dirt', -sum(shade.monthly_soiling_kwh), 'of what is left'],
        ['The back adds', 'back', sum(shade.monthly_rear_kwh), shade.rear_told],
      ]
    : [];
  return (
    <Card
      title="What else changes the light"
      aside="kWh a year"
      scrolls
      className={`flex min-w-[360px] grow basis-0 flex-col ${behind ? 'opacity-60' : ''}`}
    >
      <table className="text-sm">
        <thead>
          <tr className="text-xs text-ink-2">
            <td />
            <th className="pr-3 text-right font-normal">array</th>
            <th className="pr-3 text-right font-normal">meter</th>
          </tr>
        </thead>
        <tbody>
          {rows.map(([title, step, kwh, told]) => (
            <tr key={title}>
              <th scope="row" className="pr-3 text-left font-normal whitespace-nowrap">
                {title}
              </th>
              <td className="pr-3 text-right font-figure whitespace-nowrap">{figure(kwh)}</td>
              <td className="pr-3 text-right font-figure whitespace-nowrap">
                {atMeter(step) === undefined ? '' : figure(atMeter(step) ?? 0)}
              </td>
              <td
                className="text-xs text-ink-2"
                title={step === 'snow' ? weather.snow_told : undefined}
              >
                {told}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <div className="mt-1 flex flex-wrap gap-x-4">
        {option.arrays
          .filter((a) => a.modules.some((m) => m.present))
          .map((a) => (
            <Toggle
              key={a.plane_id}
              on={a.brushed}
              onChange={(on) =>
                void act({
                  kind: 'set-brushed',
                  option_id: option.id,
                  plane_id: a.plane_id,
                  on,
                })
              }
            >
              Snow is brushed off{' '}
              {job.survey.planes.find((p) => p.id === a.plane_id)?.name ?? a.plane_id}
            </Toggle>
          ))}
      </div>
      <p className="mt-auto text-xs text-ink-2">
        Brush from the ground only: icy roofs and sliding snow injure.{' '}
        {weather.typed.includes('snowfall') && weather.snow_told}
      </p>
    </Card>
  );
}
