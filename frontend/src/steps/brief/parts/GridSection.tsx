/** The grid's rules: taken from a sample set, typed over with the operator's own. */
import { useQuery } from '@tanstack/react-query';
import type { Schemas } from '@/api/client';
import { shelfQuery } from '@/api/queries';
import { CHARGED_PER, METERING } from '@/plan/gridTerms';
import { useJob } from '@/plan/JobContext';
import { Choice } from '@/ui/Choice';
import { TypedField } from '@/ui/TypedField';
import { money } from '@/units/format';
import { percent, plain, rebateRatio } from '../model';
import { FieldRow, Fields, Warned } from './fields';

type Rules = Schemas['GridRules'];
const NONE = 'none';
const CAP_KINDS = [
  { value: 'none', label: 'no size cap' },
  { value: 'share-of-use', label: 'share of past use' },
  { value: 'dc-kw', label: 'kW DC in all' },
  { value: 'ac-kw', label: 'kW AC in all' },
];
export function GridSection() {
  const { job, brief, act } = useJob();
  const shelf = useQuery(shelfQuery);
  const packs = shelf.data?.grid_packs ?? [];
  const { grid } = job.brief;
  const choose = (
    <Choice
      label="Sample set of grid rules"
      value={grid?.pack_id ?? NONE}
      items={[
        { value: NONE, label: 'choose a sample to start from' },
        ...packs.map((p) => ({
          value: p.pack_id,
          label: p.operator,
          short: p.operator.replace(/^Sample /, ''),
        })),
      ]}
      onChange={(id) => act({ kind: 'take-grid-pack', pack_id: id === NONE ? '' : id })}
      className="w-full"
    />
  );
  if (!grid) {
    return (
      <div className="max-w-[420px]">
        <p className="mb-2 text-sm text-ink-2">
          What the operator allows and pays: start from the sample of the nearest family, then type
          your own over it.
        </p>
        {choose}
      </div>
    );
  }
  return (
    <div className="flex flex-wrap gap-x-6 gap-y-3">
      <Fields title="Operator" width={258}>
        {choose}
        <OperatorFields grid={grid} />
        {grid.sample && (
          <Warned>
            An invented sample. Type the operator’s rules over it and name their source; then this
            mark goes.
          </Warned>
        )}
        {brief.grid_warnings.map((warning) => (
          <Warned key={warning}>{warning}.</Warned>
        ))}
      </Fields>
      <CapFields grid={grid} />
      <TariffFields grid={grid} tiers={brief.tiers_typed} small={brief.small_money} />
    </div>
  );
}

function useSet() {
  const { edit, act } = useJob();
  return {
    typed: (field: Schemas['GridField']) => (typed: string) =>
      edit({ kind: 'set-grid-field', field, typed }),
    chosen: (field: Schemas['GridField']) => (typed: string) =>
      act({ kind: 'set-grid-field', field, typed }),
  };
}

function OperatorFields({ grid }: { grid: Rules }) {
  const { typed } = useSet();
  const text = (field: Schemas['GridField'], label: string, value: string, tall = false) => (
    <FieldRow label={label} value={value} width={182} words tall={tall} commit={typed(field)} />
  );
  return (
    <>
      {text('operator', 'Operator', grid.operator)}
      {text('source', 'Source', grid.source, true)}
      {text('dated', 'As of', grid.dated)}
      {text('disconnect', 'Disconnect', grid.disconnect, true)}
      {text('insurance', 'Insurance', grid.insurance, true)}
    </>
  );
}

const kw = (value: number | null) => (value === null ? '' : `${plain(value)} kW`);

function CapFields({ grid }: { grid: Rules }) {
  const { typed, chosen } = useSet();
  const { size_cap: cap, rebate } = grid;
  return (
    <Fields title="Caps and rebate" width={250}>
      <div className="flex gap-2">
        <Choice
          label="Kind of size cap"
          value={cap.kind}
          items={CAP_KINDS}
          onChange={chosen('size_cap_kind')}
          className="grow"
        />
        {cap.kind !== 'none' && (
          <TypedField
            label="Size cap"
            value={
              cap.value === null
                ? ''
                : cap.kind === 'share-of-use'
                  ? percent(cap.value)
                  : kw(cap.value)
            }
            placeholder="type it"
            width={72}
            align="right"
            commit={typed('size_cap')}
          />
        )}
      </div>
      <FieldRow
        label="Inverters for a phase"
        value={kw(grid.ac_cap_kw_per_phase)}
        commit={typed('ac_cap_kw_per_phase')}
      />
      <FieldRow
        label="Export limit"
        value={kw(grid.export_limit_kw)}
        commit={typed('export_limit_kw')}
      />
      <p className="text-xs text-ink-2">0 kW: nothing may go out. Empty: no limit.</p>
      <FieldRow
        label="Rebate"
        value={rebate?.name ?? ''}
        width={164}
        words
        commit={typed('rebate_name')}
      />
      {rebate && (
        <>
          <FieldRow
            label="pays up to"
            value={kw(rebate.most_dc_kw)}
            commit={typed('rebate_dc_kw')}
          />
          <FieldRow
            label="pays up to DC:AC"
            value={rebate.most_dc_ac_ratio === null ? '' : rebateRatio(rebate.most_dc_ac_ratio)}
            commit={typed('rebate_ratio')}
          />
          <FieldRow
            label="pays for a watt"
            value={money(rebate.pays_cents_per_dc_w)}
            commit={typed('rebate_pays')}
          />
        </>
      )}
    </Fields>
  );
}

interface TariffFieldsProps {
  grid: Rules;
  tiers: string;
  /** Cents, pence. */
  small: string;
}

function TariffFields({ grid, tiers, small }: TariffFieldsProps) {
  const { typed, chosen } = useSet();
  const { tariff } = grid;
  return (
    <Fields title={`Metering and tariff, ${grid.currency}`} width={250}>
      <Choice
        label="Metering"
        value={grid.metering}
        items={METERING}
        onChange={chosen('metering')}
      />
      <FieldRow
        label={`Paid for export, ${small}`}
        value={plain(grid.export_cents_per_kwh)}
        commit={typed('export_cents_per_kwh')}
      />
      <FieldRow
        label={`A kWh, ${small}`}
        value={tiers}
        width={148}
        words
        placeholder="11.2 to 500; 14.8"
        commit={typed('tiers')}
      />
      <Choice
        label="Charges count for each"
        value={tariff.per}
        items={CHARGED_PER}
        onChange={chosen('tariff_per')}
      />
      <FieldRow
        label="Fixed charge"
        value={money(tariff.fixed_cents)}
        commit={typed('fixed_cents')}
      />
      <FieldRow
        label="Minimum charge"
        value={money(tariff.minimum_cents)}
        commit={typed('minimum_cents')}
      />
      <FieldRow label="Tax" value={percent(tariff.tax_frac)} commit={typed('tax_frac')} />
    </Fields>
  );
}
