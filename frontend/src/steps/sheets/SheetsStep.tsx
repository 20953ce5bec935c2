/** Sheets: pages as they will go out, the packet that asks for approval, the days of the work. */
import { useQuery } from '@tanstack/react-query';
import type { Schemas } from '@/api/client';
import { sheetAddress } from '@/api/queries';
import { useYear } from '@/api/useYear';
import { useJob } from '@/plan/JobContext';
import { useView } from '@/plan/useView';
import { Toolbar } from '@/ui/Card';
import { ViewButtons } from '@/ui/ViewButtons';
import { PacketStepView } from './parts/PacketView';
import { SetView } from './parts/SetView';
import { WorkPlanView } from './parts/WorkView';
import { allFiles, sheetQuery } from './queries';
import { VIEWS } from './views';

const LINK = 'inline-flex h-[27px] items-center rounded-md border px-2.5 text-sm font-medium';

export default function SheetsStep() {
  const [view, setView] = useView(VIEWS);
  const { at, job } = useJob();
  return (
    <>
      <Toolbar>
        <ViewButtons views={VIEWS} view={view} onView={setView} />
        <span className="grow" />
        <a
          className={`${LINK} border-rule bg-sheet`}
          href={allFiles(at, job.unit === 'ft' ? 'Letter' : 'A4')}
          download
          title="Drawings as SVG and DXF, tables as CSV, the days as a calendar, the whole set as PDF, the job file"
        >
          Everything (zip)
        </a>
      </Toolbar>
      {view === 'one' && <DesignSheet />}
      {view === 'set' && <SetView />}
      {view === 'packet' && <PacketStepView />}
      {view === 'work' && <WorkPlanView />}
    </>
  );
}

function DesignSheet() {
  const { option, report, at, state } = useJob();
  const strung = report.modules_strung > 0;
  const { behind, query: year } = useYear(at, strung);
  const ready = !strung || year.isError || (!behind && year.isSuccess);
  const sheet = useQuery({ ...sheetQuery(at), enabled: ready });
  const stale = !ready || sheet.isPending || sheet.isPlaceholderData;
  return (
    <>
      <div className="for-the-hand flex flex-wrap items-center gap-2 px-3.5 py-1.5">
        <a
          className={`${LINK} border-patina bg-patina text-sheet`}
          href={sheetAddress(at)}
          target="_blank"
          rel="noreferrer"
        >
          Design sheet (PDF)
        </a>
        <span className="text-sm text-ink-2" role="status">
          {stale && !sheet.error
            ? sheet.data
              ? `Catching up with “${state.undo}”`
              : 'Its year is worked out first'
            : `Option ${option.id.toUpperCase()}, revision ${state.revision}`}
        </span>
      </div>
      <section
        aria-label="Preview of the sheet"
        aria-busy={stale}
        // biome-ignore lint/a11y/noNoninteractiveTabindex: it scrolls, and must scroll by key too
        tabIndex={0}
        className="min-h-0 grow overflow-auto p-4"
      >
        {sheet.error && (
          <p role="alert" className="text-sm text-stop">
            {sheet.error.message}
          </p>
        )}
        {!sheet.data && !sheet.error && (
          <p className="text-sm text-ink-2">The sheet is drawn when its year is worked out.</p>
        )}
        {sheet.data && <Page content={sheet.data} dimmed={stale} />}
      </section>
    </>
  );
}

function Page({ content, dimmed }: { content: Schemas['SheetContent']; dimmed: boolean }) {
  const { circuits } = content;
  return (
    <article
      aria-label="The sheet before it goes out"
      className={`mx-auto flex min-h-full max-w-[780px] flex-col border border-rule bg-sheet px-6 py-4 ${dimmed ? 'opacity-60' : ''}`}
    >
      <header className="border-b border-ink pb-2">
        <h2 className="text-lg font-semibold">{content.job}</h2>
        <p className="text-sm text-ink-2">
          {content.option}. {content.place}. Revision {content.revision}, {content.paper}. Not for
          construction until reviewed.
        </p>
      </header>
      <div className="beside mt-2 items-start gap-5">
        <div className="flex min-w-0 grow flex-wrap">
          {content.plans.map((plan) => (
            <figure
              key={plan.caption}
              style={{ width: plan.width_mm > 60 ? '100%' : '50%' }}
              className="mb-2"
            >
              <div
                role="img"
                aria-label={plan.caption}
                className="[&>svg]:h-auto [&>svg]:w-full"
                // biome-ignore lint/security/noDangerouslySetInnerHtml: the very drawing that is printed; the server escapes names
                dangerouslySetInnerHTML={{ __html: plan.svg }}
              />
              <figcaption className="px-2 text-xs text-ink-2">{plan.caption}</figcaption>
            </figure>
          ))}
          <Doubts caveats={content.caveats} />
        </div>
        <Side content={content} />
      </div>
      <h3 className="mt-3 text-sm font-semibold">{circuits.title}</h3>
      <table className="w-full text-sm">
        <thead>
          <tr className="text-left text-xs text-ink-2">
            {circuits.headings.map((heading) => (
              <th key={heading} scope="col" className="font-normal">
                {heading}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {circuits.rows.map((row) => (
            <tr key={row[0]} className="border-t border-rule">
              {row.map((cell, i) => (
                <td key={circuits.headings[i]} className="py-0.5">
                  {cell}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
      {circuits.rows.length === 0 && <p className="text-sm text-ink-2">None yet.</p>}
      {circuits.note && <p className="text-xs text-ink-2">{circuits.note}</p>}
      <Checks rows={content.checks} />
      <p className="mt-auto rounded-sm border border-stop px-3 py-2 text-xs">
        <b>Caution.</b> Daylight keeps module wiring live; never open a connector under load. Work
        at height needs fall protection. Structure, conductors, disconnects and labels are not on
        this sheet. Local code, the authority having jurisdiction, the utility and licensed people
        decide.
      </p>
    </article>
  );
}

function Doubts({ caveats }: { caveats: readonly string[] }) {
  return (
    <ul className="w-full list-disc pl-4 text-xs text-ink-2">
      {caveats.map((caveat) => (
        <li key={caveat}>{caveat}.</li>
      ))}
    </ul>
  );
}

function Side({ content }: { content: Schemas['SheetContent'] }) {
  const [energy, ...more] = content.year;
  return (
    <div className="w-[250px] shrink-0 text-sm">
      <h3 className="font-semibold">Equipment</h3>
      {content.equipment.map((line) => (
        <p key={line}>{line}</p>
      ))}
      <h3 className="mt-2 font-semibold">Year</h3>
      <p className="text-lg leading-tight font-semibold">{energy}</p>
      {more.map((line) => (
        <p key={line} className="mt-0.5">
          {line}
        </p>
      ))}
      {content.stand_in_weather && (
        <p className="mt-1 rounded-sm border border-warn px-2 py-1 text-xs text-warn">
          Stand-in weather: drawn from monthly normals, not measured.
        </p>
      )}
    </div>
  );
}

function lookOf({ kind, verdict }: Schemas['CheckRow']): string {
  if (verdict === 'broken' && kind === 'Stop') return 'font-semibold text-stop';
  return verdict === 'broken' || verdict === 'not checked' ? 'font-semibold text-warn' : '';
}

function Checks({ rows }: { rows: readonly Schemas['CheckRow'][] }) {
  const off = rows.filter((row) => row.verdict === 'broken' || row.verdict === 'not checked');
  return (
    <>
      <h3 className="mt-3 text-sm font-semibold">Checks with their sums</h3>
      <p className="text-sm">
        {rows.length === 0 && 'None yet: no module is laid.'}
        {rows.length > 0 &&
          (off.length === 0
            ? 'None is broken and none is left unchecked.'
            : `${off.length} of ${rows.length} are broken or not checked.`)}
      </p>
      <ul className="mb-3 columns-2 gap-6 text-xs">
        {rows.map((row) => (
          <li
            key={`${row.title} ${row.subjects}`}
            title={`${row.numbers}. ${row.source}`}
            className={`flex break-inside-avoid justify-between gap-2 border-b border-rule py-0.5 ${lookOf(row)}`}
          >
            <span>
              {row.title}, {row.subjects}{' '}
              {row.remark && <span className="font-normal text-ink-2">{row.remark}</span>}
            </span>
            <span className="text-right font-figure whitespace-nowrap">
              {row.verdict === 'not checked' ? row.verdict : `${row.result} ${row.limit}`}
            </span>
          </li>
        ))}
      </ul>
    </>
  );
}
