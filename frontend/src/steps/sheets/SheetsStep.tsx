/** Sheets: the page as it will go out, then PDF or job file. */
import type { RoofPlane } from '@/api/client';
import { jobFileAddress, sheetAddress } from '@/api/queries';
import { useYear } from '@/api/useYear';
import type { Camera } from '@/drawing/camera';
import { ModuleShape } from '@/drawing/ModuleShape';
import { PlaneCanvas } from '@/drawing/PlaneCanvas';
import { useJob } from '@/plan/JobContext';
import { moduleOn, sizeOf } from '@/plan/modules';
import { sceneOf } from '@/plan/scene';
import { alike } from '@/tally/parts/alike';
import { Toolbar } from '@/ui/Card';
import { figure, yearlyKwh } from '@/units/format';

const LINK = 'inline-flex h-[27px] items-center rounded-md border px-2.5 text-sm font-medium';

export default function SheetsStep() {
  const { job, option, report, at, state } = useJob();
  const { year, behind, finerFrac } = useYear(at, report.modules_strung > 0);
  const { planes } = job.survey;
  const filled = planes.filter((p) => option.arrays.some((a) => a.plane_id === p.id));
  const used = filled.length > 0 ? filled : planes.slice(0, 1);
  const shown = report.checks.filter((v) => v.on_sheet);
  const off = shown.filter((v) => v.check.verdict !== 'kept');
  return (
    <>
      <Toolbar>
        <a
          className={`${LINK} border-patina bg-patina text-sheet`}
          href={sheetAddress(at)}
          target="_blank"
          rel="noreferrer"
        >
          Design sheet (PDF)
        </a>
        <a className={`${LINK} border-rule bg-sheet`} href={jobFileAddress(at.jobId)} download>
          Job file
        </a>
        <span className="grow" />
        <span className="text-sm text-ink-2">
          Option {option.id.toUpperCase()}, revision {state.revision}
        </span>
      </Toolbar>
      <section
        aria-label="Preview of the sheet"
        // biome-ignore lint/a11y/noNoninteractiveTabindex: it scrolls, and must scroll by key too
        tabIndex={0}
        className="min-h-0 grow overflow-auto p-4"
      >
        <article
          aria-label="The sheet before it goes out"
          className="mx-auto flex min-h-full max-w-[780px] flex-col border border-rule bg-sheet px-6 py-4"
        >
          <header className="border-b border-ink pb-2">
            <h2 className="text-lg font-semibold">{job.name}</h2>
            <p className="text-sm text-ink-2">
              Option {option.id.toUpperCase()}: {option.name}. {job.site.place || 'Place not given'}
              . Not for construction until reviewed.
            </p>
          </header>
          <div className="mt-2 flex gap-4">
            {used.map((plane) => (
              <div key={plane.id} className="flex h-[196px] min-w-0 grow basis-0">
                <PlaneCanvas
                  scene={sceneOf(plane, state, report)}
                  label={`${plane.name} on the sheet`}
                  padPx={used.length > 1 ? 34 : 42}
                >
                  {(camera) => <PlaneModules camera={camera} plane={plane} />}
                </PlaneCanvas>
              </div>
            ))}
            <div className="w-[250px] shrink-0 text-sm">
              <h3 className="font-semibold">Equipment</h3>
              {report.modules_told.map((told) => (
                <p key={told}>{told}</p>
              ))}
              <p>{report.inverters.join(' + ')}</p>
              <p>
                {figure(report.p_dc_w / 1000, 2)} kW DC on {figure(report.p_ac_w / 1000, 2)} kW AC,
                ratio {figure(report.dc_ac_ratio, 2)}
              </p>
              {job.brief.already.arrays.map((a) => (
                <p key={a.id}>
                  Already there: {a.name} of {a.built_year}, {figure(a.p_dc_kw, 2)} kW DC
                </p>
              ))}
              <h3 className="mt-2 font-semibold">Year</h3>
              {year && !behind && finerFrac === null ? (
                <>
                  <p className="text-lg font-semibold">{yearlyKwh(year.energy_kwh)} at the meter</p>
                  {year.stand_in_weather && (
                    <p className="mt-1 rounded-sm border border-warn px-2 py-1 text-xs text-warn">
                      Stand-in weather: drawn from monthly normals, not measured.
                    </p>
                  )}
                </>
              ) : (
                <p className="text-ink-2">
                  {report.modules_strung === 0
                    ? 'No module is in a string yet.'
                    : 'Working out the year'}
                </p>
              )}
            </div>
          </div>
          {report.planes
            .filter((p) => p.ground && used.some((u) => u.id === p.plane_id))
            .map((p) => (
              <p key={p.plane_id} className="mt-1 text-xs text-ink-2">
                {p.ground?.on_sheet}
              </p>
            ))}
          <h3 className="mt-3 text-sm font-semibold">Strings</h3>
          <table className="w-full text-sm">
            <thead>
              <tr className="text-left text-xs text-ink-2">
                <th scope="col">String</th>
                <th scope="col">Tracker</th>
                <th scope="col">Modules in series</th>
              </tr>
            </thead>
            <tbody>
              {option.strings.map((s) => (
                <tr key={s.tag} className="border-t border-rule">
                  <td>{s.tag}</td>
                  <td>{s.tracker_number}</td>
                  <td>{s.module_ids.length}</td>
                </tr>
              ))}
            </tbody>
          </table>
          <h3 className="mt-3 text-sm font-semibold">Checks</h3>
          <p className="text-sm">
            {shown.length} checks with their sums are on the sheet;{' '}
            {off.length === 0 ? 'all hold.' : `${off.length} do not hold or are not checked.`}
          </p>
          <ul className="mb-3 columns-2 gap-6 text-xs">
            {alike(shown).map(({ view: v, subjects }) => (
              <li
                key={v.key}
                className={`flex justify-between gap-2 border-b border-rule py-0.5 ${v.check.verdict === 'kept' ? '' : v.check.kind === 'stop' && v.check.verdict === 'broken' ? 'font-semibold text-stop' : 'font-semibold text-warn'}`}
              >
                <span>
                  {v.check.title}, {subjects}
                </span>
                <span className="font-figure">
                  {v.check.verdict === 'kept' && v.check.margin_frac === null
                    ? 'holds'
                    : v.check.verdict === 'not-checked'
                      ? 'not checked'
                      : `${v.value_text}, limit ${v.lines.limit}`}
                </span>
              </li>
            ))}
          </ul>
          <p className="mt-auto rounded-sm border border-stop px-3 py-2 text-xs">
            <b>Caution.</b> Daylight keeps module wiring live; never open a connector under load.
            Work at height needs fall protection. Structure, conductors, disconnects and labels are
            not on this sheet. Local code, the authority having jurisdiction, the utility and
            licensed people decide.
          </p>
        </article>
      </section>
    </>
  );
}

/** The modules of a plane as they go on paper; on tables the bays left for later too. */
function PlaneModules({ camera, plane }: { camera: Camera; plane: RoofPlane }) {
  const { job, option } = useJob();
  const module = moduleOn(job, option, plane.id);
  const array = option.arrays.find((a) => a.plane_id === plane.id);
  if (!module) return null;
  return array?.modules
    .filter((m) => m.present || array.table !== null)
    .map((m) => (
      <ModuleShape
        key={m.id}
        camera={camera}
        xM={m.x_m}
        yM={m.y_m}
        {...sizeOf(module, m.orientation, array.leg_tilt_deg)}
        substrings={1}
        halfCut={false}
        state={m.present ? (m.kept_because ? 'kept' : 'on') : 'off'}
      />
    ));
}
