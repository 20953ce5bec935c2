/** Meter, panel, disconnect and inverter: where they hang, and what the panel can take. */
import type { Schemas } from '@/api/client';
import { useJob } from '@/plan/JobContext';
import { SourceBreakerChoice } from '@/plan/SourceBreakerChoice';
import { GEAR } from '@/plan/site/GearMark';
import { TypedField } from '@/ui/TypedField';
import { echoOf, formatLength } from '@/units/length';

const amperes = (value: number | null) => (value === null ? '' : `${value} A`);

export function ServiceFace() {
  const { job, report, edit } = useJob();
  const { service } = job.survey;
  const field = (
    name: Schemas['ServiceField'],
    label: string,
    value: string,
    echo?: (typed: string) => string,
  ) => (
    <TypedField
      label={label}
      value={value}
      placeholder="not read"
      width={84}
      align="right"
      showLabel
      {...(echo ? { echo } : {})}
      commit={(typed) => edit({ kind: 'set-service-field', field: name, typed })}
    />
  );
  const reach = report.checks.find((c) => c.check.rule_id === 'survey.disconnect-reach');
  const apart =
    service.meter && service.disconnect
      ? Math.hypot(
          service.meter.east_m - service.disconnect.east_m,
          service.meter.north_m - service.disconnect.north_m,
        )
      : null;
  return (
    <div className="flex gap-6">
      <div className="flex w-[230px] flex-col gap-[3px]">
        {field('main_breaker_a', 'Main breaker', amperes(service.main_breaker_a))}
        {field('busbar_a', 'Busbar', amperes(service.busbar_a))}
        <SourceBreakerChoice />
        {service.source_breaker === 'feeder'
          ? field('feeder_a', 'Feeder carries', amperes(service.feeder_a ?? null))
          : service.source_breaker !== 'line-side' &&
            field(
              'load_breakers_a',
              'Load breakers, sum',
              amperes(service.load_breakers_a ?? null),
            )}
      </div>
      <div className="flex w-[210px] flex-col gap-[3px]">
        {field('spaces', 'Free spaces', service.spaces === null ? '' : `${service.spaces}`)}
        {field('phases', 'Phases', `${service.phases}`)}
        {field(
          'disconnect_within',
          'Disconnect within',
          service.disconnect_within?.typed ?? '',
          (typed) => echoOf(typed, job.unit),
        )}
      </div>
      <div className="max-w-[330px] text-sm">
        <p>
          {GEAR.map(([gear, title, letter]) => (
            <span key={gear} className="mr-3 whitespace-nowrap">
              <b>{letter}</b> {title.toLowerCase()}
              {service[gear] ? '' : ' (not placed)'}
            </span>
          ))}
        </p>
        {apart !== null && (
          <p className="mt-1">
            Disconnect {formatLength(apart, job.unit)} from the meter
            {reach ? `, the utility allows ${service.disconnect_within?.typed}.` : '.'}
            {reach?.check.verdict === 'broken' && (
              <b className="text-warn"> Too far for the utility.</b>
            )}
          </p>
        )}
        <p className="mt-1 text-xs text-ink-2">
          In sight and within reach of the meter is for you to look at: the plan knows no walls
          between. Only qualified people open the panel; the supply side stays live with the main
          breaker off.
        </p>
      </div>
    </div>
  );
}
