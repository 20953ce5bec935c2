/** Datasheets side by side, value by value, each with where it is from; what looks wrong; the fit. */
import { useQueries } from '@tanstack/react-query';
import type { Schemas } from '@/api/client';
import { removeSheet, type SheetKind, sheetQuery } from '@/api/shelfQueries';
import { Button } from '@/ui/Button';
import { Mark } from '@/ui/Mark';
import { useNotify } from '@/ui/Notices';
import { figure } from '@/units/format';

interface SheetsComparedProps {
  kind: SheetKind;
  ids: readonly string[];
  onRemoved: (id: string) => void;
}

export function SheetsCompared({ kind, ids, onRemoved }: SheetsComparedProps) {
  const found = useQueries({ queries: ids.map((id) => sheetQuery(kind, id)) });
  const sheets = found.flatMap((f) => (f.data ? [f.data] : []));
  const labels = [...new Set(sheets.flatMap((s) => s.values.map((v) => v.label)))];
  return (
    <aside
      aria-label="Datasheets"
      className="shrink-0 overflow-auto border-l border-rule bg-sheet p-3 text-sm"
      style={{ width: Math.min(160 + sheets.length * 150, 700) }}
    >
      <table className="w-full">
        <thead>
          <tr className="align-top text-left">
            <th className="w-[150px]">
              <span className="sr-only">Value</span>
            </th>
            {sheets.map((s) => (
              <th key={s.id} scope="col" className="pb-2 pl-2">
                {s.name}
                <span className="block text-xs font-normal text-ink-2">{s.provenance}</span>
                {s.own && <Remove kind={kind} sheet={s} onRemoved={onRemoved} />}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {labels.map((label) => {
            const values = sheets.map((s) => s.values.find((v) => v.label === label));
            const differ = new Set(values.map((v) => v?.text)).size > 1;
            return (
              <tr key={label} className="border-t border-rule align-top">
                <th scope="row" className="py-0.5 text-left font-normal text-ink-2">
                  {label}
                </th>
                {values.map((value, i) => (
                  <td
                    key={sheets[i]?.id}
                    className={`py-0.5 pl-2 font-figure ${differ ? 'font-semibold' : ''}`}
                  >
                    {value?.text ?? '?'}
                    {value && value.origin !== 'datasheet' && value.origin !== 'sample' && (
                      <span className="ml-1 text-xs font-normal text-warn">{value.origin}</span>
                    )}
                  </td>
                ))}
              </tr>
            );
          })}
          {kind === 'module' && (
            <tr className="border-t border-rule align-top">
              <th scope="row" className="py-1 text-left font-normal text-ink-2">
                Diode fitted
              </th>
              {sheets.map((s) => (
                <td key={s.id} className="py-1 pl-2 text-xs">
                  <Fit sheet={s} />
                </td>
              ))}
            </tr>
          )}
        </tbody>
      </table>
      {sheets.map((s) => (
        <Doubts key={s.id} sheet={s} many={sheets.length > 1} />
      ))}
      <p className="mt-2 text-xs text-ink-2">
        Where a value is not from the datasheet it says so: computed from others, or estimated.
        Sample values are invented. “?”: the sheet does not say.
      </p>
    </aside>
  );
}

function Fit({ sheet }: { sheet: Schemas['SheetView'] }) {
  const { fit } = sheet;
  if (!fit) return <span className="text-stop">{sheet.fit_problem}</span>;
  const gamma = fit.gamma_error_per_degc;
  return (
    <>
      {figure(fit.worst_point_frac * 100, 3)} % off at worst (Voc, Isc, Vmp, Imp),{' '}
      {figure(fit.beta_error_frac * 100, 1)} % in the Voc coefficient
      {gamma !== null && `, ${figure(gamma * 100, 3)} %/K in that of Pmax`}; {fit.fitted_by}: IL{' '}
      {figure(fit.light_current_a, 2)} A, I0 {fit.saturation_current_a.toExponential(1)} A, Rs{' '}
      {figure(fit.series_ohm, 3)} Ω, Rsh {figure(fit.shunt_ohm)} Ω, gap {figure(fit.gap_ev, 3)} eV
    </>
  );
}

function Doubts({ sheet, many }: { sheet: Schemas['SheetView']; many: boolean }) {
  if (sheet.caveats.length === 0) return null;
  return (
    <div className="mt-2">
      <p className="text-sm font-semibold">Look up again{many && `: ${sheet.name}`}</p>
      <ul>
        {sheet.caveats.map((d) => (
          <li key={d.told} className="flex items-start gap-2 text-xs">
            <span className="mt-0.5">
              <Mark shape="triangle" />
            </span>
            {d.told}
          </li>
        ))}
      </ul>
    </div>
  );
}

interface RemoveProps {
  kind: SheetKind;
  sheet: Schemas['SheetView'];
  onRemoved: (id: string) => void;
}

function Remove({ kind, sheet, onRemoved }: RemoveProps) {
  const notify = useNotify();
  return (
    <Button
      className="mt-1"
      aria-label={`Take ${sheet.name} off the shelf`}
      onClick={() =>
        removeSheet(kind, sheet.id).then(
          () => onRemoved(sheet.id),
          (error: Error) => notify({ text: error.message, tone: 'stop' }),
        )
      }
    >
      Take off the shelf
    </Button>
  );
}
