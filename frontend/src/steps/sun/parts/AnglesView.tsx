/** Which way to face: every tilt and azimuth on this weather, and the array split in two. */
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { Schemas } from '@/api/client';
import { AngleLegend, AngleMapChart } from '@/charts/AngleMapChart';
import { DayLines } from '@/charts/DayLines';
import { SplitChart } from '@/charts/SplitChart';
import { useJob } from '@/plan/JobContext';
import { WEIGHED } from '@/plan/weighed';
import { Choice } from '@/ui/Choice';
import { Fitted } from '@/ui/Fitted';
import { Failed } from '@/ui/States';
import { TypedField } from '@/ui/TypedField';
import { figure } from '@/units/format';
import { anglesQuery, splitQuery } from '../queries';

export function AnglesView() {
  const { at } = useJob();
  const [by, setBy] = useState('year');
  const { data: map, error } = useQuery(anglesQuery(at, by));
  if (error) return <Failed error={error} />;
  return (
    <div className="beside min-h-0 grow">
      <section aria-label="Tilt and azimuth" className="w-[452px] shrink-0 overflow-y-auto p-3">
        <div className="mb-1 flex items-center gap-2">
          <h2 className="grow text-sm font-semibold">Every tilt and azimuth here</h2>
          <Choice
            label="Weighed by"
            value={by}
            items={WEIGHED.map(({ value, words }) => ({ value, label: `By ${words}` }))}
            onChange={setBy}
          />
        </div>
        {map ? (
          <>
            <Fitted mostPx={428}>
              {(widthPx) => (
                <AngleMapChart
                  tiltsDeg={map.tilts_deg}
                  azimuthsDeg={map.azimuths_deg}
                  values={map.kwh_per_m2}
                  best={{ tiltDeg: map.best_tilt_deg, azimuthDeg: map.best_azimuth_deg }}
                  planes={map.planes.map((p) => ({
                    name: p.name,
                    tiltDeg: p.tilt_deg,
                    azimuthDeg: p.azimuth_deg,
                    lossFrac: p.loss_frac,
                  }))}
                  widthPx={widthPx}
                  heightPx={300}
                />
              )}
            </Fitted>
            <AngleLegend />
            <p className="mt-2 text-sm">
              Best {figure(map.best_tilt_deg)}° facing {figure(map.best_azimuth_deg)}°:{' '}
              <b className="font-figure">{figure(map.best_kwh_per_m2)} kWh/m²</b> behind the glass.
            </p>
            <ul className="text-sm">
              {map.planes.map((p) => (
                <li key={p.name}>
                  {p.name}, {p.modules} modules at {figure(p.tilt_deg)}° facing{' '}
                  {figure(p.azimuth_deg)}°: {figure(p.kwh_per_m2)} kWh/m², −
                  {figure(p.loss_frac * 100, 1)} %
                </li>
              ))}
            </ul>
            <p className="mt-1 text-xs text-ink-2">
              Light behind the glass of free planes, without shade, heat and inverter; from the sky
              of this job’s weather by bins of 2.5°.
            </p>
          </>
        ) : (
          <p className="text-sm text-ink-2" role="status">
            Looking at every angle
          </p>
        )}
      </section>
      <Split />
    </div>
  );
}

const number = (typed: string) => {
  const value = Number.parseFloat(typed.replace(',', '.').replace('°', ''));
  return Number.isFinite(value) ? value : null;
};

function Split() {
  const { at } = useJob();
  const [tilt, setTilt] = useState<number | null>(null);
  const [ratio, setRatio] = useState<number | null>(null);
  const { data: study, error } = useQuery(splitQuery(at, tilt, ratio));
  return (
    <section
      aria-label="The array split"
      className="min-w-0 grow overflow-y-auto border-l border-rule p-3"
    >
      <h2 className="mb-1 text-sm font-semibold">Half the modules turned each way</h2>
      <div className="mb-1 flex items-center gap-3 text-sm">
        <span>Tilt</span>
        <TypedField
          label="Tilt of the split array"
          value={study ? `${figure(study.tilt_deg)}°` : ''}
          width={56}
          commit={async (typed) => setTilt(number(typed))}
        />
        <span>DC:AC</span>
        <TypedField
          label="Loading of the split array"
          value={study ? figure(study.ratio, 2) : ''}
          width={56}
          commit={async (typed) => setRatio(number(typed))}
        />
      </div>
      {error && <Failed error={error} tight />}
      {study ? <SplitTold study={study} /> : <p className="text-sm text-ink-2">Turning it about</p>}
    </section>
  );
}

function SplitTold({ study }: { study: Schemas['SplitStudy'] }) {
  const [day, setDay] = useState(1);
  const shown = study.days[day] ?? study.days[0];
  const at = (deg: number) => study.points.find((p) => p.split_deg === deg);
  // Where all to the equator is best, an eighth of a turn shows what lies between.
  const between = study.best_year_deg === 0 ? 45 : study.best_year_deg;
  const rows = [
    { title: 'All to the equator', point: study.points[0] },
    { title: `Split by ${figure(between)}°`, point: at(between) },
    { title: 'East and west', point: study.points.at(-1) },
  ];
  return (
    <>
      <ul className="mb-1 text-sm">
        {study.told.map((sentence) => (
          <li key={sentence}>{sentence}</li>
        ))}
      </ul>
      <Fitted mostPx={376}>
        {(widthPx) => (
          <SplitChart
            dots={study.points.map((p) => ({
              splitDeg: p.split_deg,
              yearKwh: p.year_kwh,
              clippedFrac: p.clipped_frac,
            }))}
            bestDeg={study.best_year_deg}
            widthPx={widthPx}
            heightPx={186}
          />
        )}
      </Fitted>
      <table className="mt-1 w-full text-xs">
        <thead>
          <tr className="text-right text-ink-2">
            <th className="text-left font-normal">{study.modules} modules</th>
            <th className="font-normal">kWh</th>
            <th className="font-normal">winter half</th>
            <th className="font-normal">16–21 h</th>
            <th className="font-normal">clipped</th>
            <th className="font-normal">sun behind</th>
          </tr>
        </thead>
        <tbody>
          {rows.map(({ title, point }) => (
            <tr key={title} className="border-t border-rule text-right font-figure">
              <th scope="row" className="py-0.5 text-left font-medium">
                {title}
              </th>
              <td>{figure(point?.year_kwh ?? 0)}</td>
              <td>{figure(point?.winter_kwh ?? 0)}</td>
              <td>{figure(point?.evening_kwh ?? 0)}</td>
              <td>{figure((point?.clipped_frac ?? 0) * 100, 1)} %</td>
              <td>{figure(point?.behind_hours ?? 0)} h</td>
            </tr>
          ))}
        </tbody>
      </table>
      {shown && (
        <div className="mt-2">
          <Choice
            label="Clear day"
            value={`${day}`}
            items={study.days.map((d, i) => ({ value: `${i}`, label: `Clear day, ${d.title}` }))}
            onChange={(i) => setDay(Number(i))}
          />
          <SplitDay day={shown} bestDeg={study.best_year_deg} />
        </div>
      )}
      <p className="mt-1 text-xs text-ink-2">
        Unshaded, on this weather by the hour, its inverter of the size that DC:AC makes it. “Sun
        behind”: hours with the sun above 10° and behind one half.
      </p>
    </>
  );
}

function SplitDay({ day, bestDeg }: { day: Schemas['SplitDay']; bestDeg: number }) {
  return (
    <Fitted mostPx={376}>
      {(widthPx) => (
        <DayLines
          label={`Power on a clear day, ${day.title}`}
          lines={[
            {
              title: 'all to the equator',
              kw: day.equator_kw,
              colour: 'var(--color-ink)',
              dash: '',
            },
            ...(bestDeg === 0
              ? []
              : [
                  {
                    title: `split by ${figure(bestDeg)}°`,
                    kw: day.best_kw,
                    colour: 'var(--color-patina)',
                    dash: '',
                  },
                ]),
            {
              title: 'east and west',
              kw: day.east_west_kw,
              colour: 'var(--color-copper)',
              dash: '7 4',
            },
          ]}
          widthPx={widthPx}
          heightPx={128}
        />
      )}
    </Fitted>
  );
}
