/** Design temperatures beside the strings they decide. */
import { useQuery } from '@tanstack/react-query';
import { weatherQuery } from '@/api/queries';
import { useJob } from '@/plan/JobContext';
import { TemperatureField } from '@/plan/TemperatureField';
import { figure } from '@/units/format';

export function Temperatures() {
  const { at } = useJob();
  const { data } = useQuery(weatherQuery(at));
  return (
    <div className="flex flex-col gap-1">
      <TemperatureField which="coldest" />
      <TemperatureField which="hottest" />
      {data && (
        <p className="text-xs text-ink-2">
          The weather year’s lowest, {figure(data.lowest_degc)} °C, is no extreme.
        </p>
      )}
      <p className="text-xs text-ink-2">
        Daylight keeps strings live: never open a connector under load.
      </p>
    </div>
  );
}
