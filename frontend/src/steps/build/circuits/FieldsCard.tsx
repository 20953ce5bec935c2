/** What holds for all circuits: terminals, conduit, insulation, what a fault draws at the panel. */
import type { Schemas } from '@/api/client';
import { useJob } from '@/plan/JobContext';
import { Card } from '@/ui/Card';
import { Choice } from '@/ui/Choice';
import { TypedField } from '@/ui/TypedField';

const USUAL = 'usual';

export function FieldsCard({ found }: { found: Schemas['CircuitsView'] }) {
  const { job, option, act, edit } = useJob();
  const { wiring } = option;
  const change = (field: Schemas['WiringField'], typed: string): Schemas['SetWiringField'] => ({
    kind: 'set-wiring-field',
    option_id: option.id,
    field,
    typed,
  });
  const us = job.site.code_pack === 'us';
  const usual = found.insulations.find((i) => i.value === found.usual_insulation)?.told ?? '';
  const amps = (field: 'fault_a' | 'interrupts_a', label: string) => (
    <TypedField
      label={label}
      value={wiring[field] === null ? '' : `${wiring[field]} A`}
      placeholder="ask"
      showLabel
      width={92}
      align="right"
      commit={(typed) => edit(change(field, typed))}
    />
  );
  return (
    <Card title="For all circuits" className="w-[268px] shrink-0" scrolls>
      <div className="flex flex-col gap-1.5 text-sm">
        {us && (
          <Row label="Terminals marked">
            <Choice
              label="Terminals marked"
              className="w-[112px]"
              value={String(wiring.terminals_degc)}
              items={[
                { value: '60', label: 'nothing: 60 °C', short: '60 °C' },
                { value: '75', label: '75 °C' },
              ]}
              onChange={(t) => void act(change('terminals_degc', t))}
            />
          </Row>
        )}
        <Row label="Conduit">
          <Choice
            label="Conduit"
            className="w-[112px]"
            value={wiring.conduit}
            items={[
              { value: 'metal', label: 'metal' },
              { value: 'plastic', label: 'plastic' },
            ]}
            onChange={(c) => void act(change('conduit', c))}
          />
        </Row>
        <Row label="Insulation">
          <Choice
            label="Insulation"
            className="w-[112px]"
            value={wiring.insulation ?? USUAL}
            items={[
              { value: USUAL, label: `usual: ${usual}`, short: usual },
              ...found.insulations.map((i) => ({ value: i.value, label: i.told })),
            ]}
            onChange={(i) => void act(change('insulation', i === USUAL ? '' : i))}
          />
        </Row>
        <Row label="Production meter">
          <Choice
            label="Production meter"
            className="w-[112px]"
            value={wiring.meter ? 'yes' : 'no'}
            items={[
              { value: 'no', label: 'none' },
              { value: 'yes', label: 'asked for' },
            ]}
            onChange={(m) => void act(change('meter', m))}
          />
        </Row>
        {amps('fault_a', 'Fault current at the panel')}
        {amps('interrupts_a', 'The new breaker breaks')}
      </div>
      <p className="mt-1.5 text-xs text-ink-2">
        Tables are from memory and say so with every check: hold them against the edition in force.
        DC is live in any light; never open a connector under load.
      </p>
    </Card>
  );
}

function Row({ label, children }: { label: string; children: React.ReactNode }) {
  return (
    <div className="flex items-center justify-between gap-2">
      <span className="text-ink-2">{label}</span>
      {children}
    </div>
  );
}
