/** Other firms' offers, typed from their papers, beside ours. */
import type { Schemas } from '@/api/client';
import { useJob } from '@/plan/JobContext';
import { Button } from '@/ui/Button';
import { TypedField } from '@/ui/TypedField';
import { cash, figure, money } from '@/units/format';

type Offer = Schemas['OfferView'];

export function Offers({ found }: { found: Schemas['MoneyView'] }) {
  const { act, brief } = useJob();
  const { currency } = found;
  return (
    <section aria-label="Offers" className="mt-4">
      <h2 className="text-sm font-semibold">Offer against offer</h2>
      {found.offers.length === 0 ? (
        <p className="text-sm text-ink-2">Once our own is whole, others stand beside it here.</p>
      ) : (
        <table className="w-full max-w-[980px] border-collapse text-sm">
          <thead>
            <tr className="border-b border-ink text-ink-2">
              {[
                'Whose',
                'kW DC',
                'Price',
                'Modules',
                'Of them free',
                'kWh it claims',
                'Warranty, years',
                'A watt',
                `A kWh, ${brief.small_money}`,
                'Remove',
              ].map((title, i) => (
                <th
                  key={title}
                  scope="col"
                  className={
                    title === 'Remove'
                      ? 'sr-only'
                      : `font-normal ${i === 0 ? 'text-left' : 'pl-2 text-right'}`
                  }
                >
                  {title}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {found.offers.map((offer) => (
              <Row key={offer.id ?? 'ours'} offer={offer} currency={currency} />
            ))}
          </tbody>
        </table>
      )}
      <p className="mt-1">
        <Button
          onClick={() =>
            void act({ kind: 'add-offer', name: 'Another firm', kw: '8', price: '20000' })
          }
        >
          Add an offer
        </Button>
      </p>
      <p className="mt-1 text-xs text-ink-2">
        A kWh: the price over all kWh of the warranty by this roof’s year, ageing as ours; not
        discounted, incentives left out.
      </p>
    </section>
  );
}

function Row({ offer, currency }: { offer: Offer; currency: string }) {
  const { edit, act } = useJob();
  const { id } = offer;
  const cell = (
    field: Schemas['OfferField'],
    label: string,
    value: string,
    width: number,
    placeholder = 'none',
  ) =>
    id === null ? (
      <td className="pl-2 text-right font-figure">{value}</td>
    ) : (
      <td className="py-0.5 pl-2 text-right">
        <TypedField
          label={`${label}, ${offer.name}`}
          value={value}
          placeholder={placeholder}
          width={width}
          align="right"
          commit={(typed) => edit({ kind: 'set-offer-field', offer_id: id, field, typed })}
        />
      </td>
    );
  const whole = (value: number | null) => (value === null ? '' : String(Math.round(value)));
  return (
    <>
      <tr>
        <th scope="row" className="py-0.5 text-left font-medium">
          {id === null ? (
            offer.name
          ) : (
            <TypedField
              label={`Name of ${offer.name}`}
              value={offer.name}
              width={130}
              align="left"
              commit={(typed) =>
                edit({ kind: 'set-offer-field', offer_id: id, field: 'name', typed })
              }
            />
          )}
        </th>
        {cell('p_dc_kw', 'kW', figure(offer.p_dc_kw, 2), 64)}
        {cell('price_cents', 'Price', (offer.price_cents / 100).toFixed(2), 92)}
        {cell('modules', 'Modules', whole(offer.modules), 52)}
        {cell(
          'free_modules',
          'Free modules',
          offer.free_modules ? String(offer.free_modules) : '',
          48,
        )}
        {cell('claimed_kwh', 'kWh claimed', whole(offer.claimed_kwh), 74)}
        {cell('warranty_years', 'Warranty', whole(offer.warranty_years), 48)}
        <td className="pl-2 text-right font-figure">{cash(offer.w_cents, currency)}</td>
        <td className="pl-2 text-right font-figure">
          {offer.kwh_cents === null ? '' : figure(offer.kwh_cents, 1)}
        </td>
        <td className="pl-2">
          {id !== null && (
            <Button
              aria-label={`Remove the offer of ${offer.name}`}
              onClick={() => void act({ kind: 'remove-offer', offer_id: id })}
            >
              Remove
            </Button>
          )}
        </td>
      </tr>
      <tr className="border-b border-rule">
        <td colSpan={10} className="pb-1 text-xs text-ink-2">
          {offer.told.length > 0
            ? `${offer.told.join('. ')}.`
            : `Asked: ${money(offer.price_cents, currency)}.`}
        </td>
      </tr>
    </>
  );
}
