/** What strings are held to: the family's figures, this job's own, safety and the hands on site. */
import type { Schemas } from '@/api/client';
import { useJob } from '@/plan/JobContext';
import { Choice } from '@/ui/Choice';
import { Toggle } from '@/ui/Toggle';
import { TypedField } from '@/ui/TypedField';

const SHUTDOWNS: { value: Schemas['Shutdown']; label: string }[] = [
  { value: 'not-said', label: 'not said yet' },
  { value: 'module-switches', label: 'a listed switch at every module' },
  { value: 'hazard-control', label: 'a listed hazard control system' },
];
const METHODS = [
  { value: 'coefficient', label: 'coefficient' },
  { value: 'table', label: 'table' },
];

export function RulesView() {
  return (
    <div className="beside min-h-0 grow overflow-y-auto">
      <FamilyRules />
      <SafetyRules />
    </div>
  );
}

function FamilyRules() {
  const { report, edit, act } = useJob();
  const { rules } = report;
  const set = (field: Schemas['CodeRuleField'], typed: string) =>
    ({ kind: 'set-code-rule', field, typed, source: rules.own_source }) as const;
  const some = rules.rules.find((r) => r.own);
  return (
    <section aria-label={rules.family} className="min-w-0 grow basis-0 px-4 py-3">
      <h2 className="mb-1 text-sm font-semibold">{rules.family}, as this job holds to them</h2>
      <table className="w-full text-sm">
        <thead>
          <tr className="text-left text-xs text-ink-2">
            <th className="font-normal">Figure</th>
            <th className="w-[132px] font-normal">In force</th>
            <th className="font-normal">From</th>
          </tr>
        </thead>
        <tbody>
          {rules.rules.map((rule) => (
            <tr key={rule.field} className="border-t border-rule align-top">
              <th scope="row" className="py-2 pr-3 text-left font-medium">
                {rule.name}
              </th>
              <td className="py-1.5">
                {rule.field === 'voltage_method' ? (
                  <Choice
                    label={rule.name}
                    value={rule.value}
                    items={METHODS}
                    onChange={(value) =>
                      void act(set(rule.field, value === rule.family ? '' : value))
                    }
                  />
                ) : (
                  <TypedField
                    label={rule.name}
                    value={rule.value}
                    placeholder="none"
                    width={92}
                    align="right"
                    tone={rule.own ? 'plain' : 'derived'}
                    commit={(typed) =>
                      edit(set(rule.field, typed.trim() === rule.family ? '' : typed))
                    }
                  />
                )}
              </td>
              <td className="py-2 text-xs text-ink-2">
                {rule.own
                  ? `${rules.own_source || 'typed for this job'}; the family has ${rule.family || 'none'}`
                  : rule.value
                    ? `${rule.source.document}${rule.source.clause && `, ${rule.source.clause}`} (${rule.source.status.replaceAll('-', ' ')})`
                    : 'no cap: the usual ratio stands in the Tally as a note'}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {some && (
        <div className="mt-2">
          <TypedField
            label="Who says so"
            value={rules.own_source}
            placeholder="whose rule, which sheet"
            width={300}
            align="left"
            showLabel
            commit={(source) =>
              edit({
                kind: 'set-code-rule',
                field: some.field,
                typed: some.value,
                source,
              })
            }
          />
        </div>
      )}
      <p className="mt-2 text-xs text-ink-2">
        Empty a field to take the family’s figure again. Family, building and which coldest air
        counts stand under Brief, Place. Figures from memory: check them against the code in force;
        the authority and a licensed electrician decide.
      </p>
    </section>
  );
}

function SafetyRules() {
  const { option, report, act, edit } = useJob();
  const { shutdown, confirmed, string_fuse_a } = option.safety;
  const checks = report.checks.filter(({ check }) => check.family === 'safety');
  return (
    <section
      aria-label="Safety"
      className="w-[400px] shrink-0 border-l border-rule px-3.5 py-3 text-sm"
    >
      <h2 className="mb-1 font-semibold">Shutdown</h2>
      <Choice
        label="How the roof is shut down"
        value={shutdown}
        items={SHUTDOWNS}
        onChange={(way) =>
          void act({
            kind: 'set-shutdown',
            option_id: option.id,
            way: way as Schemas['Shutdown'],
          })
        }
      />
      <ul className="mt-1 text-xs text-ink-2">
        {checks
          .filter(({ check }) => check.rule_id !== 'safety.on-site')
          .map(({ key, check, value_text, limit_text }) => (
            <li key={key} className={check.verdict === 'kept' ? '' : 'text-warn'}>
              {check.title}:{' '}
              {check.reason ||
                `${value_text} of ${limit_text}, ${check.verdict === 'kept' ? 'holds' : 'broken'}`}
            </li>
          ))}
      </ul>
      <TypedField
        label="Fuse of every paralleled string"
        value={string_fuse_a == null ? '' : `${string_fuse_a} A`}
        placeholder="none said"
        width={84}
        showLabel
        commit={(typed) => edit({ kind: 'set-string-fuse', option_id: option.id, typed })}
      />
      <h2 className="mt-3 mb-1 font-semibold">Confirmed on site</h2>
      <div className="flex flex-col gap-1">
        {report.rules.points.map(({ point, told }) => (
          <Toggle
            key={point}
            on={confirmed.includes(point)}
            onChange={(on) =>
              void act({ kind: 'confirm-on-site', option_id: option.id, point, on })
            }
          >
            {told}
          </Toggle>
        ))}
      </div>
      <h2 className="mt-3 mb-1 font-semibold">Where the hands go</h2>
      <ul className="list-disc pl-4 text-xs">
        <li>Daylight keeps strings live; they cannot be switched off.</li>
        <li>
          A DC arc does not go out by itself: never open a connector or a fuse under load. AC off
          first, then DC; clamp, and prove no current.
        </li>
        <li>
          Prove each string’s polarity before two are joined; with an earth fault join nothing.
        </li>
        <li>At height: fall protection, and nobody on a wet or hot roof alone.</li>
        <li>This helps a licensed person; it replaces no inspection.</li>
      </ul>
    </section>
  );
}
