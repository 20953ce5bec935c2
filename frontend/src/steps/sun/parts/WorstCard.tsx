/** The modules that lose most, worst first, and the chosen one's months. */
import type { Schemas } from '@/api/client';
import { figure, MONTHS } from '@/units/format';
import { lostOf, type Period } from '../periods';
import type { ShadeReport } from '../queries';

interface WorstCardProps {
  shade: ShadeReport;
  period: Period;
  nameOf: (id: string) => string;
  chosenId: string;
  onChoose: (id: string) => void;
}

export function WorstCard({ shade, period, nameOf, chosenId, onChoose }: WorstCardProps) {
  const worst = [...shade.modules].sort((a, b) => lostOf(b, period) - lostOf(a, period));
  const chosen = shade.modules.find((m) => m.module_id === chosenId) ?? worst[0];
  return (
    <div className="flex h-full gap-4">
      <ol className="w-[180px] shrink-0 overflow-y-auto text-sm" aria-label="Worst first">
        {worst.map((m) => (
          <li key={m.module_id}>
            <button
              type="button"
              aria-pressed={m.module_id === chosen?.module_id}
              onClick={() => onChoose(m.module_id)}
              className={`flex min-h-6 w-full justify-between rounded-sm px-1.5 ${m.module_id === chosen?.module_id ? 'bg-copper-wash' : ''}`}
            >
              {nameOf(m.module_id)}
              <span className="font-figure">{figure(lostOf(m, period) * 100, 1)} %</span>
            </button>
          </li>
        ))}
      </ol>
      {chosen && <Months name={nameOf(chosen.module_id)} module={chosen} />}
    </div>
  );
}

function Months({ name, module }: { name: string; module: Schemas['ModuleShade'] }) {
  const most = Math.max(0.05, ...module.monthly_lost_frac);
  return (
    <table className="h-fit text-xs">
      <caption className="pb-0.5 text-left text-ink-2">{name}, by month, %</caption>
      <tbody>
        {[0, 6].map((first) => (
          <tr key={first}>
            {MONTHS.slice(first, first + 6).map((monthName, i) => {
              const lost = module.monthly_lost_frac[first + i] ?? 0;
              return (
                <td key={monthName} className="w-9 pr-1 text-center align-bottom">
                  <span className="flex h-7 items-end justify-center" aria-hidden="true">
                    <span
                      className="block w-5 rounded-t-sm bg-obstruction"
                      style={{ height: `${(lost / most) * 100}%` }}
                    />
                  </span>
                  <b className="block font-figure font-semibold">{figure(lost * 100, 1)}</b>
                  <span className="text-ink-2">{monthName}</span>
                </td>
              );
            })}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
