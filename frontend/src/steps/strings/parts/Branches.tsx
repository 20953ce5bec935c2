/** Microinverters on the plan: modules of a unit together, units along their branch. */
import type { Schemas } from '@/api/client';
import { type Camera, toScreen } from '@/drawing/camera';
import { ModuleShape } from '@/drawing/ModuleShape';
import { threadOf } from '@/drawing/threads';
import { sizeOf } from '@/plan/modules';

interface BranchesProps {
  camera: Camera;
  array: Schemas['PlaneArray'];
  module: Schemas['ModuleSheet'];
  branches: readonly Schemas['Branch'][];
}

export function Branches({ camera, array, module, branches }: BranchesProps) {
  const present = array.modules.filter((m) => m.present);
  const centre = new Map(
    present.map((m) => {
      const { widthM, heightM } = sizeOf(module, m.orientation, array.leg_tilt_deg);
      return [m.id, toScreen(camera, { xM: m.x_m + widthM / 2, yM: m.y_m + heightM / 2 })];
    }),
  );
  const at = (unit: readonly string[]) => {
    const points = unit.flatMap((id) => centre.get(id) ?? []);
    if (points.length === 0) return null;
    const mean = (of: (p: (typeof points)[number]) => number) =>
      points.reduce((sum, p) => sum + of(p), 0) / points.length;
    return { xPx: mean((p) => p.xPx), yPx: mean((p) => p.yPx) };
  };
  return (
    <g>
      {present.map((m) => (
        <ModuleShape
          key={m.id}
          camera={camera}
          xM={m.x_m}
          yM={m.y_m}
          {...sizeOf(module, m.orientation, array.leg_tilt_deg)}
          substrings={module.bypass_diodes}
          halfCut={module.half_cut}
          state="on"
        />
      ))}
      {branches.map((branch) => {
        const { colour, dash } = threadOf(branch.number - 1);
        const spots = branch.units.flatMap((unit) => at(unit) ?? []);
        // A branch of another plane.
        if (spots.length === 0) return null;
        return (
          <g
            key={branch.number}
            role="img"
            aria-label={`Branch ${branch.number}, ${branch.units.length} microinverters`}
          >
            <polyline
              points={spots.map((p) => `${p.xPx},${p.yPx}`).join(' ')}
              fill="none"
              stroke={colour}
              strokeWidth="3"
              strokeDasharray={dash || undefined}
            />
            {branch.units.map((unit, i) => {
              const spot = at(unit);
              if (!spot) return null;
              return (
                <g key={unit.join(' ')}>
                  {unit.flatMap((id) => {
                    const to = centre.get(id);
                    return to ? (
                      <line
                        key={id}
                        x1={spot.xPx}
                        y1={spot.yPx}
                        x2={to.xPx}
                        y2={to.yPx}
                        stroke={colour}
                        strokeWidth="6"
                        opacity="0.35"
                      />
                    ) : (
                      []
                    );
                  })}
                  <rect
                    x={spot.xPx - 17}
                    y={spot.yPx - 10}
                    width="34"
                    height="20"
                    rx="4"
                    fill="var(--color-sheet)"
                    stroke={colour}
                    strokeWidth="2"
                  />
                  <text
                    x={spot.xPx}
                    y={spot.yPx + 4.5}
                    fontSize="12.5"
                    fontWeight="600"
                    textAnchor="middle"
                    fill={colour}
                  >
                    {branch.number}.{i + 1}
                  </text>
                </g>
              );
            })}
          </g>
        );
      })}
    </g>
  );
}
