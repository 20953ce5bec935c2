/** What stands at the modules: nothing, optimizers on some or all, or microinverters. */
import { useQuery } from '@tanstack/react-query';
import type { Schemas } from '@/api/client';
import { shelfQuery } from '@/api/queries';
import { useJob } from '@/plan/JobContext';
import { Choice } from '@/ui/Choice';

type Architecture = Schemas['Architecture'];

export function ElectronicsChoice() {
  const { job, option, act } = useJob();
  const { data: shelf } = useQuery(shelfQuery);
  const { architecture, optimizer_id, microinverter_id } = option.electronics;
  const optimizers = shelf?.optimizers ?? job.equipment.optimizers;
  const micros = shelf?.microinverters ?? job.equipment.microinverters;
  const item = (way: Architecture, id: string, label: string, short: string) => ({
    value: `${way} ${id}`,
    label,
    short,
  });
  return (
    <Choice
      label="At the modules"
      value={`${architecture} ${optimizer_id ?? microinverter_id ?? ''}`}
      items={[
        item('strings', '', 'No module electronics', 'No electronics'),
        ...optimizers.map((o) =>
          o.kind === 'add-on'
            ? item('add-on-optimizers', o.id, `On some: ${o.name}`, 'Optimizers, some')
            : item('system-optimizers', o.id, `On all: ${o.name}`, 'Optimizers, all'),
        ),
        ...micros.map((m) =>
          item('microinverters', m.id, `On all: ${m.name}`, `Micros, ${m.p_ac_w} W`),
        ),
      ]}
      onChange={(picked) => {
        const [way = 'strings', unit_id = ''] = picked.split(' ');
        void act({
          kind: 'choose-electronics',
          option_id: option.id,
          architecture: way as Architecture,
          unit_id,
        });
      }}
      className="w-[132px]"
    />
  );
}
