/** The weather behind every figure: months, what may be typed over them, and a file's own. */
import { useQuery } from '@tanstack/react-query';
import type { Schemas } from '@/api/client';
import { weatherQuery } from '@/api/queries';
import { WeatherMonths } from '@/charts/WeatherMonths';
import { useJob } from '@/plan/JobContext';
import { Board } from '@/ui/Board';
import { Failed, Waiting } from '@/ui/States';
import { useSize } from '@/ui/useSize';
import { MONTHS } from '@/units/format';
import type { WeatherReport } from '../queries';
import { LossesCard } from './LossesCard';
import { MonthCell } from './MonthCell';
import { WeatherFileCard } from './WeatherFileCard';

type Month = WeatherReport['months'][number];

interface Line {
  title: string;
  unit: string;
  places: number;
  read: (m: Month) => number | null;
  /** What is typed over; without one the line is only told. */
  quantity?: Schemas['Monthly'];
  /** A file brings its own. */
  byFile?: boolean;
}

const LINES: Line[] = [
  { title: 'Light on the level', unit: 'kWh/m²', places: 0, read: (m) => m.ghi_kwh_per_m2 },
  {
    title: 'Clearness',
    unit: 'of outside the air',
    places: 2,
    read: (m) => m.clearness_frac,
    quantity: 'clearness',
    byFile: true,
  },
  {
    title: 'Days’ highest',
    unit: '°C',
    places: 1,
    read: (m) => m.max_degc,
    quantity: 'max_air',
    byFile: true,
  },
  {
    title: 'Mean air',
    unit: '°C',
    places: 1,
    read: (m) => m.mean_degc,
    quantity: 'mean_air',
    byFile: true,
  },
  {
    title: 'Days’ lowest',
    unit: '°C',
    places: 1,
    read: (m) => m.min_degc,
    quantity: 'min_air',
    byFile: true,
  },
  {
    title: 'Wind',
    unit: 'm/s',
    places: 1,
    read: (m) => m.wind_m_per_s,
    quantity: 'wind',
    byFile: true,
  },
  {
    title: 'Ground throws back',
    unit: '%',
    places: 0,
    read: (m) => m.reflection_frac * 100,
    quantity: 'reflection',
  },
  {
    title: 'Soiling',
    unit: '%',
    places: 1,
    read: (m) => m.soiling_frac * 100,
    quantity: 'soiling',
  },
  { title: 'Snow falls', unit: 'cm', places: 0, read: (m) => m.snowfall_cm, quantity: 'snowfall' },
];

export function WeatherView() {
  const { at } = useJob();
  const { data, error, isPlaceholderData } = useQuery(weatherQuery(at));
  const [size, measure] = useSize();
  return (
    <>
      <div className="min-h-0 grow overflow-auto px-4 pt-2">
        {error && <Failed error={error} tight />}
        {!data && !error && (
          <Waiting shows="The light and the air of each month, where they are from, and what was typed over them.">
            Reading the weather
          </Waiting>
        )}
        {data && (
          <div className={`max-md:min-w-[840px] ${isPlaceholderData ? 'opacity-60' : ''}`}>
            <div ref={measure} className="h-[150px]">
              {size && <WeatherMonths months={data.months} widthPx={size.widthPx} heightPx={150} />}
            </div>
            <table className="mt-1 w-full table-fixed text-sm">
              <thead>
                <tr className="text-xs text-ink-2">
                  <th className="w-[190px] text-left font-normal">
                    {data.stand_in ? 'Stand-in year: type over any month' : 'Months of the file'}
                  </th>
                  {MONTHS.map((m) => (
                    <th key={m} scope="col" className="text-right font-normal">
                      {m}
                    </th>
                  ))}
                  <td className="w-[92px]" />
                </tr>
              </thead>
              <tbody>
                {LINES.map((line) => (
                  <WeatherLine key={line.title} line={line} weather={data} />
                ))}
              </tbody>
            </table>
          </div>
        )}
      </div>
      <Board heightPx={212}>
        {data && <WeatherFileCard weather={data} />}
        {data && <LossesCard weather={data} />}
      </Board>
    </>
  );
}

function WeatherLine({ line, weather }: { line: Line; weather: WeatherReport }) {
  const { act } = useJob();
  const open = line.quantity && (weather.stand_in || !line.byFile);
  const typed = line.quantity !== undefined && weather.typed.includes(line.quantity);
  return (
    <tr className="border-t border-rule">
      <th scope="row" className="h-[25px] truncate text-left font-normal">
        {line.title} <span className="text-xs text-ink-2">{line.unit}</span>
      </th>
      {weather.months.map((m, i) => (
        <td key={MONTHS[i]} className="text-right font-figure">
          <MonthCell
            label={`${line.title}, ${MONTHS[i] ?? ''}`}
            value={line.read(m)}
            places={line.places}
            quantity={open ? line.quantity : undefined}
            month={i}
            typed={typed}
          />
        </td>
      ))}
      <td className="text-right">
        {typed && open && line.quantity && (
          <button
            type="button"
            className="min-h-6 text-xs font-medium text-patina underline"
            onClick={() =>
              line.quantity && void act({ kind: 'reset-monthly', quantity: line.quantity })
            }
          >
            Back to usual
          </button>
        )}
      </td>
    </tr>
  );
}
