/** The weather file in use or just read: where from, its true label, what was mended in it. */
import { useState } from 'react';
import type { Schemas } from '@/api/client';
import { ClosureLine } from '@/charts/ClosureLine';
import { useJob } from '@/plan/JobContext';
import { Button } from '@/ui/Button';
import { Card } from '@/ui/Card';
import { FilePick } from '@/ui/FilePick';
import { useFileRead } from '@/ui/useFileRead';
import { figure } from '@/units/format';
import { formatLength } from '@/units/length';
import { sendWeather, type WeatherReport } from '../queries';

type FileTold = Schemas['FileTold'];
/** Nearer than this nobody is asked. */
const NEAR_KM = 50;

export function WeatherFileCard({ weather }: { weather: WeatherReport }) {
  const { at, act } = useJob();
  const [found, setFound] = useState<FileTold | null>(null);
  const { read, reading, problem } = useFileRead((file: File) => {
    setFound(null);
    return sendWeather(at, file);
  }, setFound);
  const use = async (file: FileTold) => {
    await act({ kind: 'use-weather-file', file: file.ref, far_is_meant: file.away_km > NEAR_KM });
    setFound(null);
  };
  const shown = found ?? weather.file;
  return (
    <Card
      title={shown ? `${shown.ref.file}` : 'Weather'}
      aside={found ? 'read, not yet used' : shown ? 'in use' : 'stand-in'}
      className={`flex shrink-0 flex-col ${shown ? 'w-[470px]' : 'w-[370px]'}`}
    >
      <div className="flex min-h-0 grow gap-3">
        <div className="flex min-w-0 grow flex-col text-sm">
          {shown ? <Told file={shown} /> : <StandIn weather={weather} />}
          {problem && (
            <p role="alert" className="mt-1 rounded-sm bg-stop-wash px-1.5 py-1 text-xs text-stop">
              {problem} The weather there was stays.
            </p>
          )}
          <span className="mt-auto flex items-center gap-2">
            {found ? (
              <>
                <Button weight="main" onClick={() => void use(found)}>
                  {found.away_km > NEAR_KM
                    ? `Use it, though ${figure(found.away_km)} km away`
                    : 'Use it'}
                </Button>
                <Button onClick={() => setFound(null)}>Leave it</Button>
              </>
            ) : (
              <>
                <FilePick label="Choose a weather file" accept=".epw,.csv,.txt" onFile={read} />
                {weather.file && (
                  <Button onClick={() => void act({ kind: 'forget-weather-file' })}>
                    Back to the stand-in
                  </Button>
                )}
                {reading && <span role="status">Reading it</span>}
              </>
            )}
          </span>
        </div>
        {shown && shown.tried_min.length > 0 && (
          <ClosureLine
            minutes={shown.tried_min}
            rms={shown.rms_w_per_m2}
            chosen={shown.label_min ?? 0}
            widthPx={170}
            heightPx={112}
          />
        )}
      </div>
    </Card>
  );
}

function StandIn({ weather }: { weather: WeatherReport }) {
  return (
    <p>
      <b className="rounded-sm bg-warn-wash px-1 text-warn">Stand-in</b> {weather.name}: drawn from
      months, the same each time, some 20 % more change from day to day than real years. An hourly
      year of the place, EPW or TMY3, takes its place.{' '}
      {weather.caveats.slice(1).map((d) => (
        <b key={d}>{d}. </b>
      ))}
    </p>
  );
}

function Told({ file }: { file: FileTold }) {
  const { job } = useJob();
  const label =
    file.label_min === null
      ? 'Its label cannot be checked.'
      : `Its hours are about ${Math.abs(file.label_min)} min ${file.label_min < 0 ? 'before' : 'after'} their label: read so.`;
  return (
    <div className="min-h-0 overflow-y-auto">
      <p>
        {file.written_as.toUpperCase()}, {file.ref.place}: <b>{figure(file.away_km)} km</b> from the
        site
        {file.higher_m !== null &&
          `, ${formatLength(Math.abs(file.higher_m), job.unit)} ${file.higher_m < 0 ? 'lower' : 'higher'}`}
        . {label}
      </p>
      {file.gaps.length > 0 && (
        <p className="text-warn">
          Filled from the days beside:{' '}
          {file.gaps
            .map(
              (g) =>
                `${g.quantity}, ${g.missing} missing and ${g.impossible} impossible hours from hour ${g.first_hour}`,
            )
            .join('; ')}
          .
        </p>
      )}
      {file.notes.map((note) => (
        <p key={note} className="text-warn">
          {note}.
        </p>
      ))}
    </div>
  );
}
