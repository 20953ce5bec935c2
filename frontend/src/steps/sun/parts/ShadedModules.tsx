/** The modules of a plane, tinted by what shade takes, with the figure in each. */

import type { Schemas } from '@/api/client';
import type { Camera } from '@/drawing/camera';
import { shadeTint } from '@/drawing/shadeTint';
import { TintedModules } from '@/plan/TintedModules';
import { figure } from '@/units/format';
import { lostOf, type Period } from '../periods';
import type { ShadeReport } from '../queries';

interface ShadedModulesProps {
  camera: Camera;
  array: Schemas['PlaneArray'];
  module: Schemas['ModuleSheet'];
  shade: ShadeReport;
  period: Period;
  chosenId: string;
  onChoose: (id: string) => void;
}

export function ShadedModules({ shade, period, chosenId, onChoose, ...on }: ShadedModulesProps) {
  const worst = Math.max(...shade.modules.map((m) => lostOf(m, period)));
  return (
    <TintedModules
      {...on}
      pick="one"
      onPick={onChoose}
      tileOf={(id, i) => {
        const mine = shade.modules.find((s) => s.module_id === id);
        if (!mine) return null;
        const lost = lostOf(mine, period);
        const told = `${figure(lost * 100, 1)} %`;
        return {
          tint: shadeTint(lost, worst),
          told,
          label: `Module ${i + 1}: shade takes ${told}`,
          picked: id === chosenId,
        };
      }}
    />
  );
}
