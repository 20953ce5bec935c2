/** Design temperatures beside the strings they decide. */
import { useQuery } from '@tanstack/react-query';
import { weatherQuery } from '@/api/sunQueries';
import { useJob } from '@/plan/JobContext';
import { TemperatureField } from '@/plan/TemperatureField';
import { Card } from '@/ui/Card';
import { figure } from '@/units/format';

export function TemperaturesCard() {
  const { at } = useJob();
  const { data } = useQuery(weatherQuery(at));
  return (
    <Card title="Design temperatures" className="w-[266px] shrink-0">
      <div className="flex flex-col gap-1">
        <TemperatureField which="coldest" brief />
        <TemperatureField which="hottest" brief />
        {data && (
          <p className="text-xs text-ink-2">
            The weather year’s lowest, {figure(data.lowest_degc)} °C, is no extreme.
          </p>
        )}
        <p className="text-xs text-ink-2">
          Daylight keeps strings live: never open a connector under load.
        </p>
      </div>
    </Card>
  );
}
