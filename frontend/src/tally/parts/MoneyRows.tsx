/** Money beside every step: price, what it spares, when it is paid back. */
import { moneyQuery } from '@/api/money';
import { useSettled } from '@/api/useYear';
import { useJob } from '@/plan/JobContext';
import { useStudy } from '@/plan/useStudy';
import { figure, money, signed } from '@/units/format';
import { Row } from './Row';

export function MoneyRows({ otherId }: { otherId?: string }) {
  const { at } = useJob();
  const settled = useSettled(at);
  const { found, behind, error } = useStudy(moneyQuery(settled));
  const other = useStudy(moneyQuery({ ...settled, optionId: otherId ?? settled.optionId })).found;
  if (error) return <p className="py-1 text-sm text-ink-2">{error.message}</p>;
  if (!found)
    return (
      <p role="status" className="py-1 text-sm text-ink-2">
        Price and payback stand here in a moment.
      </p>
    );
  const { worth, currency, whole } = found;
  const savedCents = found.rows[1]?.saved_cents;
  const against = otherId ? other : null;
  const difference = (cents: number, its: number | undefined) =>
    its === undefined ? '' : signed((cents - its) / 100);
  const stale = behind || settled.revision !== at.revision;
  return (
    <div aria-busy={stale} className={stale ? 'opacity-50' : ''}>
      {found.gross_cents > 0 && (
        <>
          <Row
            label={whole ? 'Price, gross' : 'Price so far'}
            value={money(found.gross_cents, currency)}
            aside={difference(found.gross_cents, against?.gross_cents)}
          />
          <Row
            label={whole ? 'Net of incentives' : 'Net so far'}
            value={money(found.net_cents, currency)}
            aside={difference(found.net_cents, against?.net_cents)}
          />
        </>
      )}
      {worth && savedCents !== undefined && (
        <>
          <Row
            label="Saved in year 1"
            value={money(savedCents, currency)}
            aside={difference(savedCents, against?.rows[1]?.saved_cents)}
          />
          <Row
            label="Paid back"
            value={worth.paid.lasting === null ? 'never' : `${figure(worth.paid.lasting, 1)} years`}
            aside="estimate"
          />
        </>
      )}
      {found.asked && <p className="py-1 text-xs text-ink-2">{found.asked}</p>}
    </div>
  );
}
