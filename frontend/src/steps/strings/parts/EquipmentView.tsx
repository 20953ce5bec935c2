/** What the shelf has for this array: inverters, modules, microinverters; and a bare DC input. */
import { useState } from 'react';
import { Link } from 'react-router';
import { Button } from '@/ui/Button';
import { DcInputForm } from './DcInputForm';
import { InvertersView } from './InvertersView';
import { ModulesView } from './ModulesView';
import { PairingView } from './PairingView';

const FACES = [
  { id: 'inverters', title: 'Which inverter?' },
  { id: 'modules', title: 'Which module?' },
  { id: 'pairing', title: 'Microinverters' },
  { id: 'input', title: 'Generic DC input' },
] as const;

type FaceId = (typeof FACES)[number]['id'];

export function EquipmentView() {
  const [face, setFace] = useState<FaceId>('inverters');
  return (
    <>
      <fieldset
        aria-label="Equipment"
        className="flex min-h-10 shrink-0 flex-wrap items-center gap-y-1 py-1 gap-1.5 border-b border-rule px-3.5"
      >
        {FACES.map(({ id, title }) => (
          <Button
            key={id}
            weight={face === id ? 'pressed' : 'plain'}
            aria-pressed={face === id}
            onClick={() => setFace(id)}
          >
            {title}
          </Button>
        ))}
        <span className="grow" />
        <Link to="/shelf" className="text-sm underline">
          The whole shelf, your own equipment
        </Link>
      </fieldset>
      {face === 'inverters' && <InvertersView />}
      {face === 'modules' && <ModulesView />}
      {face === 'pairing' && <PairingView />}
      {face === 'input' && <DcInputForm />}
    </>
  );
}
