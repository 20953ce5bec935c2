/** The mean day of a house: its use, its sun, what a battery gives and takes, and what is bought. */
import { scaleLinear } from 'd3-scale';
import { area, line } from 'd3-shape';
import { figure } from '@/units/format';
import { Chart } from './Chart';
import { LevelLines } from './LevelLines';
import { LineKey } from './LineKey';

interface HouseDayChartProps {
  label: string;
  loadKw: readonly number[];
  madeKw: readonly number[];
  /** Above 0 where the battery gives, below where it takes. */
  batteryKw: readonly number[];
  boughtKw: readonly number[];
  widthPx: number;
  heightPx: number;
}

const PAD = { left: 44, right: 12, top: 20, bottom: 22 };
type Spot = [hour: number, kw: number];

const spots = (kw: readonly number[]): Spot[] =>
  kw.map((v, i) => [((i + 0.5) * 24) / kw.length, v]);

export function HouseDayChart({
  label,
  loadKw,
  madeKw,
  batteryKw,
  boughtKw,
  widthPx,
  heightPx,
}: HouseDayChartProps) {
  const most = Math.max(0.5, ...loadKw, ...madeKw, ...batteryKw) * 1.06;
  const least = Math.min(0, ...batteryKw) * 1.06;
  const stores = batteryKw.some((v) => Math.abs(v) > 0.005);
  const x = scaleLinear([0, 24], [PAD.left, widthPx - PAD.right]);
  const y = scaleLinear([least, most], [heightPx - PAD.bottom, PAD.top]);
  const hourPx = x(1) - x(0);
  const path = line<Spot>(
    ([h]) => x(h),
    ([, kw]) => y(kw),
  );
  const filled = area<Spot>(
    ([h]) => x(h),
    y(0),
    ([, kw]) => y(kw),
  );
  const readings = loadKw.map((load, i) => {
    const battery = batteryKw[i] ?? 0;
    return {
      xPx: x(((i + 0.5) * 24) / loadKw.length),
      yPx: y(load),
      told: `${[
        `${Math.floor((i * 24) / loadKw.length)} h: uses ${figure(load, 2)}`,
        `sun ${figure(madeKw[i] ?? 0, 2)}`,
        `bought ${figure(boughtKw[i] ?? 0, 2)}`,
        ...(stores
          ? [`battery ${battery < 0 ? 'takes' : 'gives'} ${figure(Math.abs(battery), 2)}`]
          : []),
      ].join(', ')} kW`,
    };
  });
  return (
    <figure>
      <Chart label={label} widthPx={widthPx} heightPx={heightPx} readings={readings}>
        <path d={filled(spots(madeKw)) ?? ''} fill="var(--color-straw)" opacity="0.75" />
        <g fontSize="12.5" fill="var(--color-ink-2)">
          <LevelLines
            y={y}
            count={4}
            leftPx={PAD.left}
            rightPx={widthPx - PAD.right}
            name={(kw) => String(kw).replace('-', '−')}
          />
          {[0, 3, 6, 9, 12, 15, 18, 21, 24].map((h) => (
            <text key={h} x={x(h)} y={heightPx - 5} textAnchor={h === 24 ? 'end' : 'middle'}>
              {h} h
            </text>
          ))}
          <text x={4} y={13}>
            kW
          </text>
        </g>
        {stores &&
          batteryKw.map((kw, i) => (
            <rect
              // biome-ignore lint/suspicious/noArrayIndexKey: an hour is named by its number
              key={i}
              x={x(i) + hourPx * 0.2}
              width={hourPx * 0.6}
              y={y(Math.max(0, kw))}
              height={Math.abs(y(kw) - y(0))}
              fill={kw >= 0 ? 'var(--color-patina)' : 'var(--color-copper)'}
            />
          ))}
        <line x1={x(0)} x2={x(24)} y1={y(0)} y2={y(0)} stroke="var(--color-ink)" />
        <path
          d={path(spots(boughtKw)) ?? ''}
          fill="none"
          stroke="var(--color-stop)"
          strokeWidth="1.5"
          strokeDasharray="4 3"
        />
        <path
          d={path(spots(loadKw)) ?? ''}
          fill="none"
          stroke="var(--color-ink)"
          strokeWidth="2.5"
        />
      </Chart>
      <figcaption className="pl-8">
        <LineKey
          lines={[
            { title: 'the house uses', colour: 'var(--color-ink)', dash: '' },
            { title: 'the sun gives', colour: 'var(--color-straw)', dash: '' },
            { title: 'bought', colour: 'var(--color-stop)', dash: '4 3' },
            ...(stores
              ? [
                  { title: 'battery gives', colour: 'var(--color-patina)', dash: '' },
                  { title: 'battery takes', colour: 'var(--color-copper)', dash: '' },
                ]
              : []),
          ]}
        />
      </figcaption>
    </figure>
  );
}
