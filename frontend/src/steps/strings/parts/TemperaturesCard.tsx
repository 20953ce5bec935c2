/** Design temperatures: typed with their source, or marked as not given. */
import { useQuery } from '@tanstack/react-query';
import { shelfQuery } from '@/api/queries';
import { useJob } from '@/plan/JobContext';
import { Card } from '@/ui/Card';
import { TypedField } from '@/ui/TypedField';
import { figure } from '@/units/format';

export function TemperaturesCard() {
  const { job, edit } = useJob();
  const shelf = useQuery(shelfQuery);
  const climate = shelf.data?.climates.find((c) => c.id === job.site.climate_id);
  const { coldest, hottest } = job.site;
  const written = (value: number | null) =>
    value === null ? '' : `${figure(value, 1).replace(/\.0$/, '')} °C`;
  return (
    <Card title="Design temperatures" className="w-[250px] shrink-0">
      <div className="flex flex-col gap-1">
        <TypedField
          label="Coldest air, °C"
          value={written(coldest.value_degc)}
          placeholder="not given"
          width={88}
          align="right"
          showLabel
          commit={(typed) => edit({ kind: 'set-site-field', field: 'coldest', typed, source: '' })}
        />
        <p className="text-xs text-ink-2">
          {coldest.value_degc === null
            ? `Type the extreme annual mean minimum. The climate’s ${climate?.coldest_degc ?? '…'} °C plans, but passes no limit.`
            : coldest.source}
        </p>
        <TypedField
          label="Hottest air, °C"
          value={written(hottest.value_degc)}
          placeholder="not given"
          width={88}
          align="right"
          showLabel
          commit={(typed) => edit({ kind: 'set-site-field', field: 'hottest', typed, source: '' })}
        />
        <p className="text-xs text-ink-2">
          {hottest.value_degc === null
            ? `Stand-in by climate, ${climate?.hottest_degc ?? '…'} °C.`
            : hottest.source}
        </p>
        <p className="text-xs text-ink-2">
          Daylight keeps strings live: never open a connector under load.
        </p>
      </div>
    </Card>
  );
}
