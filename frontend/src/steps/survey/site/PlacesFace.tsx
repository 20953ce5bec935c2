/** Each plane's place: eave height, azimuth, slope, position of its left eave corner. */
import type { RoofPlane } from '@/api/client';
import { useJob } from '@/plan/JobContext';
import { TypedField } from '@/ui/TypedField';
import { figure } from '@/units/format';
import { echoOf, formatLength } from '@/units/length';
import { degrees } from '../parts/PlaneFace';
import { typedMetres } from './typedMetres';

interface PlacesFaceProps {
  plane: RoofPlane;
  onChoose: (planeId: string) => void;
}

export function PlacesFace({ plane, onChoose }: PlacesFaceProps) {
  const { job, edit } = useJob();
  const length = (typed: string) => echoOf(typed, job.unit);
  const move = (p: RoofPlane, axis: 'east_m' | 'north_m') => async (typed: string) =>
    edit({
      kind: 'move-plane',
      plane_id: p.id,
      ...p.at,
      [axis]: await typedMetres(typed, job.unit),
    });
  return (
    <table className="w-full max-md:min-w-[600px] text-sm">
      <thead>
        <tr className="text-left text-xs text-ink-2">
          <th className="font-normal">plane</th>
          <th className="font-normal">eave above ground</th>
          <th className="font-normal">azimuth</th>
          <th className="font-normal">slope</th>
          <th className="font-normal">left eave corner, east</th>
          <th className="font-normal">and north</th>
        </tr>
      </thead>
      <tbody>
        {job.survey.planes.map((p) => (
          <tr key={p.id} className={p.id === plane.id ? 'bg-copper-wash' : undefined}>
            <td>
              <button
                type="button"
                className="min-h-7 text-left hover:underline"
                onClick={() => onChoose(p.id)}
              >
                {p.name}
              </button>
            </td>
            <td>
              <TypedField
                label={`${p.name}, eave above ground`}
                value={p.eave_height?.typed ?? ''}
                placeholder="guess"
                width={74}
                align="right"
                echo={length}
                commit={(typed) =>
                  edit({ kind: 'set-plane-field', plane_id: p.id, field: 'eave_height', typed })
                }
              />
            </td>
            <td className="font-figure">
              {degrees(p.azimuth_deg)}
              {!p.azimuth_given && <span className="text-warn"> guess</span>}
            </td>
            <td className="font-figure">
              {figure(p.slope_deg, 1)}°{!p.slope_typed && <span className="text-warn"> guess</span>}
            </td>
            {(['east_m', 'north_m'] as const).map((axis) => (
              <td key={axis}>
                <TypedField
                  label={`${p.name}, left eave corner, ${axis === 'east_m' ? 'east' : 'north'}`}
                  value={formatLength(p.at[axis], job.unit)}
                  width={84}
                  align="right"
                  echo={length}
                  commit={move(p, axis)}
                />
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
