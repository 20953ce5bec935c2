/** The far horizon as bearing and elevation pairs, typed or from a CSV file, and its outline. */
import { useState } from 'react';
import { Chart } from '@/charts/Chart';
import { TableBehind } from '@/charts/TableBehind';
import { useJob } from '@/plan/JobContext';
import { Button } from '@/ui/Button';
import { FilePick, withText } from '@/ui/FilePick';
import { TypedField } from '@/ui/TypedField';
import { figure } from '@/units/format';

const WIDE_PX = 430;
const TALL_PX = 120;
const LEFT_PX = 30;

export function HorizonFace() {
  const { job, edit, act } = useJob();
  const [table, setTable] = useState(false);
  const points = job.survey.horizon;
  const typed = points.map((p) => `${p.bearing_deg}, ${p.elevation_deg}`).join('; ');
  return (
    <div className="flex gap-6">
      <div className="flex w-[300px] flex-col gap-1.5">
        <p className="text-xs text-ink-2">
          Bearing (true) and elevation in degrees, pair by pair: “60, 3.5; 85, 6”.
        </p>
        <TypedField
          label="Horizon, bearing and elevation pairs"
          value={typed}
          placeholder="60, 3.5; 85, 6"
          width={290}
          align="left"
          tall
          commit={(text) => edit({ kind: 'set-horizon', typed: text.replaceAll(';', '\n') })}
        />
        <span className="flex gap-1.5">
          <FilePick
            label="From a CSV file"
            accept=".csv,text/csv,text/plain"
            onFile={withText((text) => act({ kind: 'set-horizon', typed: text }))}
          />
          {points.length > 0 && <Button onClick={() => setTable(true)}>As table</Button>}
        </span>
      </div>
      {points.length > 1 && <Skyline points={points} />}
      <TableBehind
        table={{
          title: 'Horizon',
          columns: ['bearing_deg', 'elevation_deg'],
          rows: points.map((p) => [p.bearing_deg, p.elevation_deg]),
        }}
        open={table}
        onOpenChange={setTable}
      />
    </div>
  );
}

interface SkylineProps {
  points: { bearing_deg: number; elevation_deg: number }[];
}

function Skyline({ points }: SkylineProps) {
  const top = Math.max(10, ...points.map((p) => p.elevation_deg)) * 1.15;
  const x = (bearing: number) => LEFT_PX + (bearing / 360) * (WIDE_PX - LEFT_PX - 6);
  const y = (elevation: number) => TALL_PX - 20 - (Math.max(elevation, 0) / top) * (TALL_PX - 30);
  const [first, last] = [points[0], points.at(-1)];
  if (!first || !last) return null;
  // The skyline goes on round the circle from the last pair to the first.
  const span = 360 - last.bearing_deg + first.bearing_deg || 360;
  const atNorth =
    last.elevation_deg +
    ((360 - last.bearing_deg) / span) * (first.elevation_deg - last.elevation_deg);
  const line = [
    `${x(0)},${y(atNorth)}`,
    ...points.map((p) => `${x(p.bearing_deg)},${y(p.elevation_deg)}`),
    `${x(360)},${y(atNorth)}`,
  ].join(' ');
  return (
    <Chart
      label="The horizon all round"
      widthPx={WIDE_PX}
      heightPx={TALL_PX}
      readings={points.map((p) => ({
        xPx: x(p.bearing_deg),
        yPx: y(p.elevation_deg),
        told: `${figure(p.bearing_deg)}°: ${figure(p.elevation_deg, 1)}° high`,
      }))}
    >
      <polygon
        points={`${x(0)},${y(0)} ${line} ${x(360)},${y(0)}`}
        fill="var(--color-bar)"
        stroke="var(--color-ink-2)"
      />
      {[0, 90, 180, 270, 360].map((bearing, i) => (
        <text key={bearing} x={x(bearing)} y={TALL_PX - 5} fontSize="12.5" textAnchor="middle">
          {['N', 'E', 'S', 'W', 'N'][i]}
        </text>
      ))}
      {[0, 5, 10]
        .filter((e) => e < top)
        .map((elevation) => (
          <text
            key={elevation}
            x={LEFT_PX - 5}
            y={y(elevation) + 4}
            fontSize="12.5"
            textAnchor="end"
          >
            {elevation}°
          </text>
        ))}
    </Chart>
  );
}
