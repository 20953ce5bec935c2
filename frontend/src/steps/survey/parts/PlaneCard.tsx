/** What is measured of the plane besides its outline. */
import type { RoofPlane, Schemas } from '@/api/client';
import { useJob } from '@/plan/JobContext';
import { PlaneName } from '@/plan/PlaneTabs';
import { Card } from '@/ui/Card';
import { TypedField } from '@/ui/TypedField';
import { figure } from '@/units/format';
import { echoOf } from '@/units/length';

const FT2_PER_M2 = 10.7639;

const degrees = (value: number) => `${figure(value, 1).replace(/\.0$/, '')}°`;

export function PlaneCard({ plane }: { plane: RoofPlane }) {
  const { job, report, brief, edit } = useJob();
  const areaM2 = report.planes.find((p) => p.plane_id === plane.id)?.area_m2 ?? 0;
  const area = job.unit === 'm' ? `${figure(areaM2, 1)} m²` : `${figure(areaM2 * FT2_PER_M2)} ft²`;
  const field = (
    name: Schemas['PlaneField'],
    label: string,
    value: string,
    echo?: (typed: string) => string,
  ) => (
    <TypedField
      label={label}
      value={value}
      width={name === 'azimuth' ? 112 : 84}
      align="right"
      showLabel
      {...(echo ? { echo } : {})}
      commit={(typed) => edit({ kind: 'set-plane-field', plane_id: plane.id, field: name, typed })}
    />
  );
  const length = (typed: string) => echoOf(typed, job.unit);
  return (
    <Card
      title={plane.name}
      heading={<PlaneName />}
      aside={area}
      className="flex w-[268px] shrink-0 flex-col"
    >
      <div className="flex flex-col gap-[3px]">
        {field('slope', `Slope ${figure(plane.slope_deg, 1)}°`, plane.slope_typed)}
        {field(
          'azimuth',
          plane.compass_deg === null ? 'Azimuth, true' : `Azimuth ${degrees(plane.azimuth_deg)}`,
          plane.compass_deg === null
            ? degrees(plane.azimuth_deg)
            : `${degrees(plane.compass_deg)} compass`,
        )}
        {field('setback_eave', 'Free at eave', plane.setbacks.eave.typed, length)}
        {field('setback_ridge', 'Free at ridge', plane.setbacks.ridge.typed, length)}
        {field('setback_rake', 'Free at rakes', plane.setbacks.rake.typed, length)}
        <p className="text-xs text-ink-2">
          {plane.compass_deg === null || brief.declination_deg === null
            ? 'As a compass read it: type “168.6 compass”.'
            : `Compass ${degrees(plane.compass_deg)} ${brief.declination_deg < 0 ? '−' : '+'} ${degrees(Math.abs(brief.declination_deg))} declination.`}
        </p>
      </div>
    </Card>
  );
}
