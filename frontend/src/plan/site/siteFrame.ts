/** The site plan's frame: east is right, north is up; and the picture under it. */
import type { Schemas, WorkedOut } from '@/api/client';
import type { PointM } from '@/drawing/camera';

type SitePoint = Schemas['SitePoint'];
type Trace = Schemas['Trace'];

export const pointOf = (at: SitePoint): PointM => ({ xM: at.east_m, yM: at.north_m });
export const siteOf = (p: PointM): SitePoint => ({ east_m: p.xM, north_m: p.yM });

/** Metres of the site for each pixel of the picture. */
export const metresPerPx = (trace: Trace) =>
  trace.distance.value_m /
  (Math.hypot(trace.second.x_px - trace.first.x_px, trace.second.y_px - trace.first.y_px) || 1);

/** The point of the picture under a point of the site. */
export function pictureAt(trace: Trace, at: SitePoint): Schemas['PicturePoint'] {
  const turn = (trace.turned_deg * Math.PI) / 180;
  const [east, north] = [at.east_m - trace.at.east_m, at.north_m - trace.at.north_m];
  const scale = metresPerPx(trace);
  const right = east * Math.cos(turn) - north * Math.sin(turn);
  const up = east * Math.sin(turn) + north * Math.cos(turn);
  return { x_px: trace.first.x_px + right / scale, y_px: trace.first.y_px - up / scale };
}

/** The site under a point of the picture. */
export function siteAt(trace: Trace, at: Schemas['PicturePoint']): SitePoint {
  const turn = (trace.turned_deg * Math.PI) / 180;
  const scale = metresPerPx(trace);
  const right = (at.x_px - trace.first.x_px) * scale;
  const up = (trace.first.y_px - at.y_px) * scale;
  return {
    east_m: trace.at.east_m + right * Math.cos(turn) + up * Math.sin(turn),
    north_m: trace.at.north_m + up * Math.cos(turn) - right * Math.sin(turn),
  };
}

/** Everything the plan should show at first sight. */
export function extentOf({ job, survey }: WorkedOut): PointM[] {
  const { trace, lot_lines, service, shade_sources } = job.survey;
  const points: PointM[] = survey.planes.flatMap((p) =>
    p.site.map((c) => ({ xM: c.east_m, yM: c.north_m })),
  );
  for (const line of lot_lines) points.push(...line.points.map(pointOf));
  survey.shade.forEach((view, i) => {
    const reach = (shade_sources[i]?.width.value_m ?? 2) / 2;
    points.push(
      { xM: view.at.east_m - reach, yM: view.at.north_m - reach },
      { xM: view.at.east_m + reach, yM: view.at.north_m + reach },
    );
  });
  for (const at of [service.meter, service.panel, service.disconnect, service.inverter])
    if (at) points.push(pointOf(at));
  if (trace && points.length === 0) {
    const { width_px: x_px, height_px: y_px } = trace.picture;
    points.push(
      pointOf(siteAt(trace, { x_px: 0, y_px })),
      pointOf(siteAt(trace, { x_px, y_px: 0 })),
    );
  }
  return points;
}
