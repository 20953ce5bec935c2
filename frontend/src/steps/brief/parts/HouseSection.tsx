/** What is there already, the connection, and what the household wishes. */
import type { Schemas } from '@/api/client';
import { useJob } from '@/plan/JobContext';
import { SourceBreakerChoice } from '@/plan/SourceBreakerChoice';
import { Button } from '@/ui/Button';
import { Toggle } from '@/ui/Toggle';
import { plain } from '../model';
import { FieldRow, Fields } from './fields';

const WISHES: { wish: Schemas['WishFlag']; words: string }[] = [
  { wish: 'battery_later', words: 'A battery later' },
  { wish: 'backup', words: 'Backup when the grid is down' },
  { wish: 'symmetric', words: 'Symmetric on the roof' },
  { wish: 'all_black', words: 'All black' },
];

export function HouseSection() {
  const { job, act } = useJob();
  const { arrays } = job.brief.already;
  return (
    <div className="flex flex-wrap gap-x-6 gap-y-3">
      <Fields
        title="Arrays already there"
        width={278}
        aside={<Button onClick={() => act({ kind: 'add-existing' })}>Add</Button>}
      >
        {arrays.length === 0 && (
          <p className="text-sm text-ink-2">
            None. An old array counts in size caps, busbar and bills.
          </p>
        )}
        {arrays.map((array) => (
          <ExistingFields key={array.id} array={array} />
        ))}
      </Fields>
      <ConnectionFields />
      <WishFields />
    </div>
  );
}

function ExistingFields({ array }: { array: Schemas['ExistingArray'] }) {
  const { job, edit, act } = useJob();
  const set = (field: Schemas['ExistingField']) => (typed: string) =>
    edit({ kind: 'set-existing-field', existing_id: array.id, field, typed });
  return (
    <div className="flex flex-col gap-1 border-b border-rule pb-1.5">
      <FieldRow label="Name" value={array.name} width={170} words commit={set('name')} />
      <FieldRow label="DC" value={`${plain(array.p_dc_kw)} kW`} commit={set('p_dc_kw')} />
      <FieldRow label="AC" value={`${plain(array.p_ac_kw)} kW`} commit={set('p_ac_kw')} />
      <FieldRow label="Built in" value={String(array.built_year)} commit={set('built_year')} />
      <FieldRow
        label="kWh a year"
        value={plain(array.energy_kwh_per_year, 0)}
        placeholder="by yield"
        commit={set('energy_kwh_per_year')}
      />
      <FieldRow
        label="Paid"
        value={array.paid}
        placeholder="how, in words"
        width={170}
        words
        commit={set('paid')}
      />
      {job.survey.planes.map((plane) => (
        <Toggle
          key={plane.id}
          on={array.plane_ids.includes(plane.id)}
          onChange={(on) =>
            act({ kind: 'set-existing-plane', existing_id: array.id, plane_id: plane.id, on })
          }
        >
          takes {plane.name}
        </Toggle>
      ))}
      <Button
        className="self-start"
        onClick={() => act({ kind: 'remove-existing', existing_id: array.id })}
      >
        Remove {array.name}
      </Button>
    </div>
  );
}

function ConnectionFields() {
  const { job, edit } = useJob();
  const { service } = job.survey;
  const { already } = job.brief;
  const service_ = (field: Schemas['ServiceField']) => (typed: string) =>
    edit({ kind: 'set-service-field', field, typed });
  const already_ = (field: Schemas['AlreadyField']) => (typed: string) =>
    edit({ kind: 'set-already-field', field, typed });
  const amps = (value: number | null) => (value === null ? '' : `${plain(value)} A`);
  return (
    <Fields title="Connection and storage" width={230}>
      <FieldRow label="Phases" value={String(service.phases)} commit={service_('phases')} />
      <FieldRow
        label="Main breaker"
        value={amps(service.main_breaker_a)}
        placeholder="not given"
        commit={service_('main_breaker_a')}
      />
      <FieldRow
        label="Busbar of the panel"
        value={amps(service.busbar_a)}
        placeholder="not given"
        commit={service_('busbar_a')}
      />
      <SourceBreakerChoice />
      {service.source_breaker === 'feeder' ? (
        <FieldRow
          label="Feeder carries"
          value={amps(service.feeder_a ?? null)}
          placeholder="not given"
          commit={service_('feeder_a')}
        />
      ) : (
        service.source_breaker !== 'line-side' && (
          <FieldRow
            label="Load breakers, sum"
            value={amps(service.load_breakers_a ?? null)}
            placeholder="not given"
            commit={service_('load_breakers_a')}
          />
        )
      )}
      <p className="text-xs text-ink-2">
        Read off the panel’s label; its parts stay live with the main breaker off.
      </p>
      <FieldRow
        label="Battery"
        value={already.battery_kwh === null ? '' : `${plain(already.battery_kwh)} kWh`}
        commit={already_('battery_kwh')}
      />
      <FieldRow
        label="Battery power"
        value={already.battery_kw === null ? '' : `${plain(already.battery_kw)} kW`}
        commit={already_('battery_kw')}
      />
      <FieldRow
        label="Generator"
        value={already.generator_kw === null ? '' : `${plain(already.generator_kw)} kW`}
        commit={already_('generator_kw')}
      />
    </Fields>
  );
}

function WishFields() {
  const { job, edit, act } = useJob();
  const { wishes } = job.brief;
  return (
    <Fields title="Wishes" width={246}>
      <FieldRow
        label="Modules to come later"
        value={String(wishes.growth_modules)}
        width={56}
        commit={(typed) => edit({ kind: 'set-growth', typed })}
      />
      {WISHES.map(({ wish, words }) => (
        <Toggle key={wish} on={wishes[wish]} onChange={(on) => act({ kind: 'set-wish', wish, on })}>
          {words}
        </Toggle>
      ))}
      {job.survey.planes.map((plane) => (
        <Toggle
          key={plane.id}
          on={wishes.no_go_planes.includes(plane.id)}
          onChange={(on) => act({ kind: 'set-no-go', plane_id: plane.id, on })}
        >
          Leave {plane.name} free
        </Toggle>
      ))}
      <p className="text-xs text-ink-2">
        Later steps honour each wish, or say in the Tally why not.
      </p>
    </Fields>
  );
}
