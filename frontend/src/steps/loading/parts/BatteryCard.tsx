/** The option's battery: typed, joined on either side, and what it changes; export events with it. */
import type { Schemas } from '@/api/client';
import { useJob } from '@/plan/JobContext';
import { Button } from '@/ui/Button';
import { Card } from '@/ui/Card';
import { Choice } from '@/ui/Choice';
import { TypedField } from '@/ui/TypedField';
import { figure, signed } from '@/units/format';

type Coupling = Schemas['Coupling'];

const JOINS: { value: Coupling; label: string }[] = [
  { value: 'dc', label: 'on the DC side' },
  { value: 'ac', label: 'beside it, on AC' },
];

interface BatteryCardProps {
  battery: Schemas['BatteryTold'] | null;
  eventsTold: string;
}

export function BatteryCard({ battery, eventsTold }: BatteryCardProps) {
  const { option, act, job } = useJob();
  const { battery: there } = option;
  if (!there) {
    // One that stands in the house already joins beside the inverter, with its own converter.
    const { battery_kwh: old, battery_kw: oldKw } = job.brief.already;
    const micro = option.electronics.architecture === 'microinverters';
    const coupling: Coupling = micro || old ? 'ac' : 'dc';
    return (
      <Card title="Battery" aside="none">
        <Button
          onClick={() =>
            void act({
              kind: 'set-battery',
              option_id: option.id,
              coupling,
              usable: String(old ?? 10),
              power: String(oldKw ?? 5),
              price: '',
            })
          }
        >
          {old
            ? `Take the battery that is there, ${figure(old, 1)} kWh`
            : 'Add a battery of 10 kWh'}
        </Button>
        <Events told={eventsTold} />
      </Card>
    );
  }
  return (
    <Card
      title="Battery"
      aside={
        <button
          type="button"
          className="min-h-6 underline"
          onClick={() => void act({ kind: 'remove-battery', option_id: option.id })}
        >
          take it away
        </button>
      }
    >
      <BatteryFields there={there} />
      {battery && <Changed battery={battery} />}
      <Events told={eventsTold} />
    </Card>
  );
}

function BatteryFields({ there }: { there: Schemas['Battery'] }) {
  const { option, edit, act } = useJob();
  const typed = {
    kind: 'set-battery' as const,
    option_id: option.id,
    coupling: there.coupling,
    usable: String(there.usable_kwh),
    power: String(there.power_kw),
    price: there.price_cents == null ? '' : String(there.price_cents / 100),
  };
  return (
    <div className="flex flex-col gap-1">
      <Choice
        label="How the battery joins"
        value={there.coupling}
        items={JOINS}
        className="w-full"
        onChange={(coupling) => void act({ ...typed, coupling: coupling as Coupling })}
      />
      <TypedField
        label="Usable kWh"
        showLabel
        value={figure(there.usable_kwh, 1)}
        commit={(usable) => edit({ ...typed, usable })}
      />
      <TypedField
        label="Power, kW"
        showLabel
        value={figure(there.power_kw, 1)}
        commit={(power) => edit({ ...typed, power })}
      />
      <TypedField
        label="Price"
        showLabel
        value={typed.price}
        placeholder="not known"
        commit={(price) => edit({ ...typed, price })}
      />
    </div>
  );
}

function Changed({ battery }: { battery: Schemas['BatteryTold'] }) {
  const worth = battery.more_worth_cents;
  return (
    <div className="mt-1 text-xs">
      <p>
        {battery.conversions} conversions from module to socket, {figure(battery.kept_frac * 100)} %
        kept; {figure(battery.cycles)} fillings a year.
      </p>
      <p>
        The house takes <b className="font-figure">{signed(battery.more_own_kwh) || '0'} kWh</b>
        {worth != null && (
          <>
            , worth <b className="font-figure">{signed(worth / 100) || '0'}</b> a year
          </>
        )}
        {battery.years_to_pay != null && <>: {figure(battery.years_to_pay)} years to pay back</>}.
      </p>
      {battery.caveats.map((caveat) => (
        <p key={caveat} className="text-warn">
          {caveat}.
        </p>
      ))}
    </div>
  );
}

/** A few days a year on which energy sent out is paid well. */
function Events({ told }: { told: string }) {
  const { job, brief, edit } = useJob();
  const small = brief.small_money;
  const events = job.brief.household.events ?? null;
  const typed = {
    kind: 'set-paid-events' as const,
    days: events ? String(events.days) : '',
    hours: events ? `${events.from_h}-${events.to_h}` : '17-20',
    cents: events ? String(events.cents_per_kwh) : '100',
  };
  return (
    <div className="mt-2 border-t border-rule pt-1.5">
      <TypedField
        label="Paid export events a year"
        showLabel
        width={52}
        value={typed.days}
        placeholder="none"
        commit={(days) => edit({ ...typed, days })}
      />
      {events && (
        <span className="mt-1 flex items-center gap-2 text-sm">
          <TypedField
            label="Hours of the events"
            width={64}
            value={typed.hours}
            commit={(hours) => edit({ ...typed, hours })}
          />
          h at
          <TypedField
            label={`Paid at events, ${small} a kWh`}
            width={56}
            value={typed.cents}
            commit={(cents) => edit({ ...typed, cents })}
          />
          {small}
        </span>
      )}
      {told && <p className="mt-1 text-xs text-ink-2">{told}.</p>}
    </div>
  );
}
