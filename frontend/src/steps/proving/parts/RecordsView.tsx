/** What stands: as built beside drawn, stickers in mounting order, the slots of the work's records. */
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useJob } from '@/plan/JobContext';
import { FileLink } from '@/ui/FileLink';
import { Failed, Waiting } from '@/ui/States';
import { recordsQuery, serialsDrawing, serialsFile } from '../queries';
import { BuiltCard } from './BuiltCard';
import { BigField } from './hand';
import { SerialCard } from './SerialCard';
import { Slots } from './Slots';

export function RecordsStepView() {
  const { at } = useJob();
  const [who, setWho] = useState('');
  const { data: found, error } = useQuery(recordsQuery(at));
  if (error) return <Failed error={error} />;
  if (!found) return <Waiting shows="Stickers, torques, tilts, photos.">Reading the log</Waiting>;
  return (
    <div className="min-h-0 grow overflow-y-auto p-3.5">
      <div className="mb-2 flex flex-wrap items-end gap-2">
        <BigField label="Who writes" value={who} onChange={setWho} className="w-40" />
        <p role="status" className="min-w-0 grow basis-40 text-sm font-semibold">
          {found.told}
        </p>
        <FileLink href={serialsFile(at)}>Serial numbers (csv)</FileLink>
        <FileLink href={serialsDrawing(at)}>Where they are (svg)</FileLink>
      </div>
      <div className="flex gap-3 max-lg:flex-col">
        <div className="min-w-0 grow basis-1/2 space-y-3">
          <BuiltCard found={found} who={who} />
          {found.serials.map((map) => (
            <SerialCard key={map.carries} map={map} />
          ))}
        </div>
        <div className="min-w-0 grow basis-1/2">
          <Slots slots={found.slots} who={who} />
        </div>
      </div>
    </div>
  );
}
