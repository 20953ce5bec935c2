/** How well global, beam and diffuse light agree, by the minutes a file's label may be off. */
import { max } from 'd3-array';
import { scaleLinear } from 'd3-scale';
import { figure } from '@/units/format';
import { Chart } from './Chart';

interface ClosureLineProps {
  minutes: readonly number[];
  rms: readonly number[];
  chosen: number;
  widthPx: number;
  heightPx: number;
}

export function ClosureLine({ minutes, rms, chosen, widthPx, heightPx }: ClosureLineProps) {
  const x = scaleLinear([minutes[0] ?? -60, minutes.at(-1) ?? 60], [12, widthPx - 12]);
  const y = scaleLinear([0, max(rms) ?? 1], [heightPx - 34, 16]);
  const best = rms[minutes.indexOf(chosen)] ?? 0;
  return (
    <Chart
      widthPx={widthPx}
      heightPx={heightPx}
      className="shrink-0"
      label={`The three irradiances part by ${figure(best, 1)} W/m² at ${figure(chosen)} minutes`}
      readings={minutes.map((m, i) => ({
        xPx: x(m),
        yPx: y(rms[i] ?? 0),
        told: `${figure(m)} min: ${figure(rms[i] ?? 0, 1)} W/m²`,
      }))}
    >
      <polyline
        points={minutes.map((m, i) => `${x(m)},${y(rms[i] ?? 0)}`).join(' ')}
        fill="none"
        stroke="var(--color-ink-2)"
        strokeWidth="1.5"
      />
      <circle cx={x(chosen)} cy={y(best)} r="4" fill="var(--color-copper)" />
      <text x={x(chosen)} y={y(best) - 8} fontSize="12" textAnchor="middle">
        {figure(best, 1)} W/m²
      </text>
      {[-60, 0, 60].map((m) => (
        <text key={m} x={x(m)} y={heightPx - 19} fontSize="12" textAnchor="middle">
          {figure(m)}
        </text>
      ))}
      <text
        x={widthPx / 2}
        y={heightPx - 4}
        fontSize="12"
        textAnchor="middle"
        fill="var(--color-ink-2)"
      >
        minutes from label
      </text>
    </Chart>
  );
}
