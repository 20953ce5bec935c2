/** Loads to come: what each adds to the bills, with an array and without, and the fuel it displaces. */
import type { Schemas } from '@/api/client';
import { useJob } from '@/plan/JobContext';
import { Card } from '@/ui/Card';
import { TypedField } from '@/ui/TypedField';
import { figure, money } from '@/units/format';

export function LoadsCard({ found }: { found: Schemas['MoneyView'] }) {
  const { edit } = useJob();
  const { loads, currency } = found;
  if (loads.length === 0) return null;
  return (
    <Card title="Loads to come" aside="a year" className="w-[330px] shrink-0" scrolls>
      {loads.map((load) => (
        <section key={load.load_id} aria-label={load.name} className="mb-1.5 text-sm">
          <h3 className="font-medium">
            {load.name}: {figure(load.energy_kwh)} kWh
          </h3>
          <p>
            Bills {money(load.bill_alone_cents, currency)} more without an array,{' '}
            {money(load.bill_with_sun_cents, currency)} with it.
          </p>
          {load.displaced > 0 && (
            <>
              <TypedField
                label={`Price of one ${load.unit}`}
                value={
                  load.fuel_price_cents === null ? '' : (load.fuel_price_cents / 100).toFixed(2)
                }
                tone={load.fuel_price_cents === null ? 'wanted' : 'plain'}
                placeholder="price"
                showLabel
                width={80}
                align="right"
                commit={(typed) => edit({ kind: 'set-fuel-price', load_id: load.load_id, typed })}
              />
              <p>
                {figure(load.displaced)} {load.unit} spared
                {load.fuel_cents !== null &&
                  `: ${money(load.fuel_cents, currency)}; with its power ${money(load.fuel_cents - load.bill_with_sun_cents, currency)} with the array, ${money(load.fuel_cents - load.bill_alone_cents, currency)} without`}
                . It is the load’s gain, not the array’s.
              </p>
            </>
          )}
        </section>
      ))}
    </Card>
  );
}
