/** What rows take of the year's light against the gap between them. */
import { scaleLinear } from 'd3-scale';
import { line } from 'd3-shape';
import { figure, lossShare } from '@/units/format';
import { Chart } from './Chart';
import { LevelLines } from './LevelLines';

export interface SpacingDot {
  gapM: number;
  lossFrac: number;
}

interface SpacingChartProps {
  dots: readonly SpacingDot[];
  hereM: number;
  solsticeM: number;
  /** A length as people read it. */
  name: (metres: number) => string;
  widthPx: number;
  heightPx: number;
}

const PAD = { left: 40, right: 8, top: 14, bottom: 20 };

export function SpacingChart({
  dots,
  hereM,
  solsticeM,
  name,
  widthPx,
  heightPx,
}: SpacingChartProps) {
  const widest = Math.max(hereM, ...dots.map((d) => d.gapM)) * 1.02;
  const x = scaleLinear([0, widest], [PAD.left, widthPx - PAD.right]);
  const y = scaleLinear(
    [0, Math.max(0.01, ...dots.map((d) => d.lossFrac)) * 100],
    [heightPx - PAD.bottom, PAD.top],
  );
  const path = line<SpacingDot>(
    (d) => x(d.gapM),
    (d) => y(d.lossFrac * 100),
  );
  // The two lines share one name where their names would run into each other.
  const apart = Math.abs(x(hereM) - x(solsticeM)) > 60;
  const nameSide = (px: number) =>
    ({ textAnchor: px > widthPx - 50 ? 'end' : px < PAD.left + 40 ? 'start' : 'middle' }) as const;
  return (
    <Chart
      widthPx={widthPx}
      heightPx={heightPx}
      label={`Rows ${name(hereM)} apart, the shortest day asks for ${name(solsticeM)}`}
      readings={dots.map((d) => ({
        xPx: x(d.gapM),
        yPx: y(d.lossFrac * 100),
        told: `${name(d.gapM)}: ${lossShare(d.lossFrac)} taken`,
      }))}
    >
      <g fontSize="12" fill="var(--color-ink-2)">
        <LevelLines
          y={y}
          count={3}
          leftPx={PAD.left}
          rightPx={widthPx - PAD.right}
          name={(v) => `${figure(v, v > 0 && v < 1 ? 1 : 0)} %`}
        />
        {x.ticks(4).map((m) => (
          <text key={m} x={x(m)} y={heightPx - 4} textAnchor="middle">
            {name(m).replace(/\.0+ /, ' ')}
          </text>
        ))}
      </g>
      {[
        { at: solsticeM, colour: 'var(--color-warn)', dash: '5 4', says: 'shortest day' },
        { at: hereM, colour: 'var(--color-ink)', dash: '', says: apart ? 'now' : '' },
      ].map(({ at, colour, dash, says }) => (
        <g key={colour}>
          <line
            x1={x(at)}
            x2={x(at)}
            y1={PAD.top}
            y2={heightPx - PAD.bottom}
            stroke={colour}
            strokeWidth="1.5"
            strokeDasharray={dash}
          />
          <text x={x(at)} y={PAD.top - 3} fontSize="12" fill={colour} {...nameSide(x(at))}>
            {says}
          </text>
        </g>
      ))}
      <path d={path([...dots]) ?? ''} fill="none" stroke="var(--color-patina)" strokeWidth="2.5" />
    </Chart>
  );
}
