/** Loads to come: a car, a heat pump, anything else; each says what it adds and what it spares. */
import type { Edit, Schemas } from '@/api/client';
import { useJob } from '@/plan/JobContext';
import { Button } from '@/ui/Button';
import { Choice } from '@/ui/Choice';
import { InlineName } from '@/ui/InlineName';
import { figure, MONTHS, yearlyKwh } from '@/units/format';
import { percent, plain } from '../model';
import { FieldRow } from './fields';

type Load = Schemas['CarLoad'] | Schemas['HeatPumpLoad'] | Schemas['OtherLoad'];
type Set = (field: Schemas['LoadField']) => (typed: string) => Promise<unknown>;
const KM_PER_MI = 1.609344;

const FUELS: { value: Schemas['Fuel']; label: string }[] = [
  { value: 'gas-kwh', label: 'gas, kWh' },
  { value: 'gas-m3', label: 'gas, m³' },
  { value: 'gas-therm', label: 'gas, therms' },
  { value: 'oil-l', label: 'oil, litres' },
  { value: 'oil-gallon', label: 'oil, US gallons' },
  { value: 'propane-l', label: 'propane, litres' },
  { value: 'propane-gallon', label: 'propane, US gallons' },
  { value: 'pellets-kg', label: 'pellets, kg' },
  { value: 'electric-kwh', label: 'resistance heat, kWh' },
];
const ADD: { kind: Schemas['LoadKind']; label: string }[] = [
  { kind: 'car', label: 'Electric car' },
  { kind: 'heat-pump', label: 'Heat pump' },
  { kind: 'other', label: 'Other load' },
];

export function LoadsSection() {
  const { job, brief, act } = useJob();
  return (
    <>
      <div className="mb-2 flex items-center gap-2">
        <span className="text-sm text-ink-2">Add</span>
        {ADD.map(({ kind, label }) => (
          <Button key={kind} onClick={() => act({ kind: 'add-load', load_kind: kind })}>
            {label}
          </Button>
        ))}
        {job.brief.loads.length === 0 && (
          <span className="text-sm text-ink-2">Nothing to come: the target is today’s use.</span>
        )}
      </div>
      <div className="flex flex-wrap gap-3">
        {job.brief.loads.map((load) => (
          <LoadCard key={load.id} load={load} view={brief.loads.find((v) => v.id === load.id)} />
        ))}
      </div>
    </>
  );
}

function LoadCard({ load, view }: { load: Load; view: Schemas['LoadView'] | undefined }) {
  const { edit, act } = useJob();
  const change = (field: Schemas['LoadField'], typed: string): Edit => ({
    kind: 'set-load-field',
    load_id: load.id,
    field,
    typed,
  });
  const set: Set = (field) => (typed) => edit(change(field, typed));
  return (
    <section
      aria-label={load.name}
      className="w-[262px] rounded-lg border border-rule bg-sheet px-3 py-2"
    >
      <div className="mb-1 flex items-center justify-between gap-2">
        <InlineName
          label="Name of the load"
          hint="Click to rename"
          value={load.name}
          onName={(name) => act(change('name', name))}
          className="text-sm font-semibold"
        />
        <button
          type="button"
          aria-label={`Remove ${load.name}`}
          className="min-h-6 min-w-6 rounded-sm text-ink-2 hover:bg-paper"
          onClick={() => act({ kind: 'remove-load', load_id: load.id })}
        >
          ×
        </button>
      </div>
      <div className="flex flex-col gap-1">
        {load.kind === 'car' && <CarFields load={load} set={set} />}
        {load.kind === 'heat-pump' && (
          <HeatPumpFields load={load} set={set} onFuel={(fuel) => act(change('fuel', fuel))} />
        )}
        {load.kind === 'other' && (
          <OtherFields load={load} set={set} onMonth={(field, m) => act(change(field, m))} />
        )}
      </div>
      {view && (
        <p className="mt-1.5 border-t border-rule pt-1 text-sm">
          <span className="font-semibold">
            {view.energy_kwh >= 0 ? '+' : ''}
            {yearlyKwh(view.energy_kwh)}
          </span>{' '}
          a year{view.displaced && `, instead of ${view.displaced}`}
        </p>
      )}
    </section>
  );
}

function CarFields({ load, set }: { load: Schemas['CarLoad']; set: Set }) {
  const { job } = useJob();
  const miles = job.unit === 'ft';
  return (
    <>
      <FieldRow
        label="Distance a year"
        value={
          miles
            ? `${figure(load.distance_km_per_year / KM_PER_MI)} mi`
            : `${figure(load.distance_km_per_year)} km`
        }
        commit={set('distance_km_per_year')}
        width={100}
      />
      <FieldRow
        label="Use"
        value={
          miles
            ? `${plain(load.use_kwh_per_km * KM_PER_MI)} kWh/mi`
            : `${plain(load.use_kwh_per_km)} kWh/km`
        }
        commit={set('use_kwh_per_km')}
        width={100}
      />
      <FieldRow
        label="Charging loss"
        value={percent(load.charging_loss_frac)}
        commit={set('charging_loss_frac')}
      />
      <FieldRow
        label="Charged at home"
        value={percent(load.charged_at_home_frac)}
        commit={set('charged_at_home_frac')}
      />
      <FieldRow
        label="Fuel it displaces"
        value={
          miles && load.displaced_l_per_100km > 0
            ? `${figure(235.214583 / load.displaced_l_per_100km)} mpg`
            : `${plain(load.displaced_l_per_100km, 1)} l/100km`
        }
        commit={set('displaced_l_per_100km')}
        width={100}
      />
    </>
  );
}

function HeatPumpFields({
  load,
  set,
  onFuel,
}: {
  load: Schemas['HeatPumpLoad'];
  set: Set;
  onFuel: (fuel: string) => void;
}) {
  return (
    <>
      <Choice label="Fuel it replaces" value={load.fuel} items={FUELS} onChange={onFuel} />
      <FieldRow
        label="Bought a year"
        value={figure(load.fuel_per_year)}
        commit={set('fuel_per_year')}
      />
      <FieldRow
        label="Burner efficiency"
        value={percent(load.burner_efficiency_frac)}
        commit={set('burner_efficiency_frac')}
      />
      <FieldRow
        label="Seasonal COP"
        value={plain(load.seasonal_cop)}
        commit={set('seasonal_cop')}
      />
      <p className="text-xs text-ink-2">
        Spread by the stand-in climate’s cold; heats of fuels from memory.
      </p>
    </>
  );
}

function OtherFields({
  load,
  set,
  onMonth,
}: {
  load: Schemas['OtherLoad'];
  set: Set;
  onMonth: (field: 'first_month' | 'last_month', month: string) => void;
}) {
  const months = MONTHS.map((label, i) => ({ value: String(i + 1), label }));
  return (
    <>
      <FieldRow
        label="Energy a year"
        value={`${figure(load.energy_kwh_per_year)} kWh`}
        commit={set('energy_kwh_per_year')}
        width={100}
      />
      <div className="flex items-center gap-2 text-sm">
        from
        <Choice
          label="First month"
          value={String(load.first_month)}
          items={months}
          onChange={(m) => onMonth('first_month', m)}
        />
        to
        <Choice
          label="Last month"
          value={String(load.last_month)}
          items={months}
          onChange={(m) => onMonth('last_month', m)}
        />
      </div>
    </>
  );
}
