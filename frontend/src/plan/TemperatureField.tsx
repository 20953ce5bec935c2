/** A design temperature with its source, or the words that say it is not given. */
import { useQuery } from '@tanstack/react-query';
import type { Schemas } from '@/api/client';
import { shelfQuery } from '@/api/queries';
import { TypedField } from '@/ui/TypedField';
import { figure } from '@/units/format';
import { useJob } from './JobContext';

type Which = 'coldest' | 'record_low' | 'hottest';

const LABEL: Record<Which, string> = {
  coldest: 'Coldest air, °C',
  record_low: 'Record low, °C',
  hottest: 'Hottest air, °C',
};

const written = (value: number | null) =>
  value === null ? '' : `${figure(value, 1).replace(/\.0$/, '')} °C`;

interface TemperatureFieldProps {
  which: Which;
  /** The source as a field of its own; else it is told in words. */
  sourced?: boolean;
}

export function TemperatureField({ which, sourced = false }: TemperatureFieldProps) {
  const { job, edit } = useJob();
  const shelf = useQuery(shelfQuery);
  const climate = shelf.data?.climates.find((c) => c.id === job.site.climate_id);
  const temperature: Schemas['DesignTemperature'] = job.site[which];
  const commit = (typed: string, source: string) =>
    edit({ kind: 'set-site-field', field: which, typed, source });
  const missing = {
    coldest: `Type the extreme annual mean minimum. The climate’s ${climate ? figure(climate.coldest_degc) : '…'} °C plans, but passes no limit.`,
    record_low: 'The stricter school also looks at the lowest ever read.',
    hottest: `The 2 % high; stand-in by climate, ${climate ? figure(climate.hottest_degc) : '…'} °C.`,
  }[which];
  return (
    <div>
      <TypedField
        label={LABEL[which]}
        value={written(temperature.value_degc)}
        placeholder="not given"
        width={88}
        align="right"
        showLabel
        commit={(typed) => commit(typed, temperature.source)}
      />
      {sourced && temperature.value_degc !== null ? (
        <div className="mt-1">
          <TypedField
            label={`Source of ${LABEL[which].split(',')[0]?.toLowerCase()}`}
            value={temperature.source}
            placeholder="source"
            width={250}
            align="left"
            tall
            commit={(typed) => commit(written(temperature.value_degc), typed)}
          />
        </div>
      ) : (
        <p className="mt-0.5 text-xs text-ink-2">
          {temperature.value_degc === null ? missing : temperature.source}
        </p>
      )}
    </div>
  );
}
