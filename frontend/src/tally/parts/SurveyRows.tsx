/** The survey's own rows: what closes, how large it is, and what is still to measure. */
import { useJob } from '@/plan/JobContext';
import { areaText } from '@/units/area';
import { Row } from './Row';

/** More than these would push the counts off a low screen. */
const SHOWN = 4;

export function SurveyRows() {
  const { job, survey, plane, showPlane } = useJob();
  const closed = survey.planes.filter((p) => p.closing !== 'open');
  const area = closed.reduce((sum, p) => sum + p.area_m2, 0);
  const here = survey.planes.find((p) => p.plane_id === plane?.id);
  const todo = survey.to_measure;
  return (
    <>
      <Row label="Planes closed" value={`${closed.length} of ${survey.planes.length}`} />
      {here && here.closing !== 'open' && plane && (
        <Row label={plane.name} value={areaText(here.area_m2, here.area_sd_m2, job.unit)} />
      )}
      {closed.length > 1 && <Row label="All planes" value={areaText(area, null, job.unit)} />}
      {todo.length > 0 && (
        <div className="py-1">
          <h4 className="text-xs font-semibold text-ink-2">Still to measure</h4>
          <ul className="text-xs">
            {todo.slice(0, SHOWN).map((item) => (
              <li key={item.text}>
                <button
                  type="button"
                  className={`min-h-6 w-full rounded-sm text-left hover:bg-paper ${item.doubt ? 'text-warn' : ''}`}
                  onClick={() => item.plane_id && showPlane(item.plane_id)}
                >
                  {item.text}
                </button>
              </li>
            ))}
            {todo.length > SHOWN && (
              <li className="text-ink-2">
                and {todo.length - SHOWN} more, on{' '}
                {new Set(todo.slice(SHOWN).map((t) => t.plane_id)).size} planes
              </li>
            )}
          </ul>
        </div>
      )}
    </>
  );
}
