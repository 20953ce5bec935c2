/** The routes to a connection, for each inverter in play. */
import type { Schemas } from '@/api/client';
import { useJob } from '@/plan/JobContext';
import { TypedField } from '@/ui/TypedField';
import { figure, money } from '@/units/format';
import { plain, type SectionProps } from '../model';

type Kind = Schemas['RouteKind'];
const TITLE: Record<Kind, string> = { notify: 'Notify afterwards', apply: 'Apply first' };
const KINDS: Kind[] = ['notify', 'apply'];

export function ApprovalSection({ target }: SectionProps) {
  const { job } = useJob();
  const { grid } = job.brief;
  if (!grid) {
    return (
      <p className="text-sm text-ink-2">
        Choose the grid rules first: they say which inverters need consent.
      </p>
    );
  }
  return (
    <>
      <p className="mb-2 max-w-[800px] rounded-sm border border-warn px-2.5 py-1.5 text-sm">
        <b>Approve before buying:</b> nothing is ordered until the operator has said yes to this
        size. Limits and times are the operator’s; an imposed export limit is typed in when it is
        announced, never guessed.
      </p>
      <table className="mb-3 w-full max-w-[820px] text-sm" aria-label="Routes">
        <thead>
          <tr className="border-b border-ink text-left text-xs text-ink-2">
            {[
              'Route',
              'Up to, a phase',
              'Time',
              'Fee',
              'Imposed export limit',
              'Notice to give',
            ].map((title) => (
              <th key={title} scope="col" className="py-0.5 pr-2 font-medium">
                {title}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {KINDS.map((kind) => (
            <RouteRow key={kind} kind={kind} route={grid.routes.find((r) => r.kind === kind)} />
          ))}
        </tbody>
      </table>
      <table className="w-full max-w-[820px] text-sm" aria-label="Inverters against routes">
        <thead>
          <tr className="border-b border-ink text-left text-xs text-ink-2">
            {[
              'Inverter',
              'Notify afterwards',
              'Apply first',
              'Staying small for the quick route',
            ].map((title) => (
              <th key={title} scope="col" className="py-0.5 pr-2 font-medium">
                {title}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {target?.routes.map((inverter) => (
            <InverterRow key={inverter.option_id} inverter={inverter} currency={grid.currency} />
          ))}
        </tbody>
      </table>
    </>
  );
}

function RouteRow({ kind, route }: { kind: Kind; route: Schemas['ApprovalRoute'] | undefined }) {
  const { edit } = useJob();
  const cell = (field: Schemas['RouteField'], label: string, value: string, width: number) => (
    <td className="py-1 pr-2">
      <TypedField
        label={`${TITLE[kind]}: ${label}`}
        value={value}
        placeholder="none"
        width={width}
        align={field === 'notice' ? 'left' : 'right'}
        tall={field === 'notice'}
        commit={(typed) => edit({ kind: 'set-route-field', route: kind, field, typed })}
      />
    </td>
  );
  const kw = (value: number | null | undefined) => (value == null ? '' : `${plain(value)} kW`);
  return (
    <tr className="border-b border-rule">
      <th scope="row" className="pr-2 text-left font-medium whitespace-nowrap">
        {TITLE[kind]}
      </th>
      {cell('most_kw_per_phase', 'up to, a phase', kw(route?.most_kw_per_phase), 84)}
      {cell('weeks', 'time', route?.weeks == null ? '' : `${plain(route.weeks)} weeks`, 84)}
      {cell('fee_cents', 'fee', money(route?.fee_cents ?? null), 72)}
      {cell('imposed_export_kw', 'imposed export limit', kw(route?.imposed_export_kw), 84)}
      {cell('notice', 'notice to give', route?.notice ?? '', 268)}
    </tr>
  );
}

function InverterRow({
  inverter,
  currency,
}: {
  inverter: Schemas['InverterRoutes'];
  currency: string;
}) {
  const by = (kind: Kind) => inverter.routes.find((r) => r.kind === kind);
  const notify = by('notify');
  return (
    <tr className="border-b border-rule align-top">
      <th scope="row" className="py-1 pr-2 text-left font-normal">
        {inverter.inverter}
        <span className="text-xs text-ink-2"> option {inverter.option_id.toUpperCase()}</span>
      </th>
      {KINDS.map((kind) => (
        <td key={kind} className="py-1 pr-2">
          <RouteState route={by(kind)} />
        </td>
      ))}
      <td className="py-1">
        {notify?.open
          ? 'open as it is'
          : notify?.lost_kwh == null
            ? 'told once the array is strung'
            : `−${figure(notify.lost_kwh)} kWh a year${
                notify.lost_cents === null
                  ? ', in money once a use is known'
                  : `, bills ${money(notify.lost_cents, currency)} higher`
              }`}
        {inverter.routes.map(
          (route) =>
            route.export_lost_kwh !== null && (
              <span key={route.kind} className="block text-xs text-ink-2">
                Export limit of {plain(route.imposed_export_kw)} kW: at most{' '}
                {figure(route.export_lost_kwh)} kWh a year, if none is used at home.
              </span>
            ),
        )}
      </td>
    </tr>
  );
}

function RouteState({ route }: { route: Schemas['RouteView'] | undefined }) {
  if (!route) return <span className="text-ink-2">not in these rules</span>;
  const limit = route.limit_kw === null ? '' : ` (${plain(route.limit_kw)} kW)`;
  return (
    <span className={route.open ? '' : 'text-warn'}>
      {route.open ? 'open' : 'closed: too large'}
      {limit}
    </span>
  );
}
