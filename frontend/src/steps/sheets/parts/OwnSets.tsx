/** A set of one's own: which sheets go into it, under which name; kept with the job. */
import { useState } from 'react';
import type { Schemas } from '@/api/client';
import { useJob } from '@/plan/JobContext';
import { Button } from '@/ui/Button';
import { Panel } from '@/ui/Panel';
import { Toggle } from '@/ui/Toggle';
import { useTried } from '@/ui/useTried';

const SHEETS: Record<string, string> = {
  'G-1': 'Cover',
  'G-2': 'Site plan',
  'A-1': 'Layout',
  'A-2': 'Strings',
  'E-1': 'One-line',
  'E-3': 'Calculations',
  'S-1': 'Mounting',
  'S-2': 'Load screens',
  'E-4': 'Labels',
  'E-5': 'Equipment values',
  'M-1': 'Parts',
  'C-1': 'Cautions',
  'Q-1': 'Inspection',
  'H-1': 'Household',
  'W-1': 'Crew: chalk and cut',
  'T-1': 'Tests',
};

interface OwnSetsProps {
  /** The set of one's own that is shown, if one is. */
  shown: Schemas['OwnSet'] | undefined;
  onShown: (name: string) => void;
}

export function OwnSets({ shown, onShown }: OwnSetsProps) {
  const { edit } = useJob();
  const [open, setOpen] = useState(false);
  const [name, setName] = useState(shown?.name ?? '');
  const [sheets, setSheets] = useState<readonly string[]>(shown?.sheets ?? ['G-1']);
  const { tried, problem } = useTried('It was not kept.');
  const turn = (number: string, on: boolean) =>
    setSheets(on ? [...sheets, number] : sheets.filter((n) => n !== number));
  const send = async (change: () => Promise<unknown>, then: string) => {
    if (!(await tried(change))) return;
    setOpen(false);
    onShown(then);
  };
  const trimmed = name.trim();
  return (
    <>
      <Button onClick={() => setOpen(true)}>{shown ? 'Change set' : 'Own set'}</Button>
      <Panel
        open={open}
        onOpenChange={setOpen}
        title="A set of your own"
        description="Which sheets go into it; kept with the job, for every paper."
      >
        <label className="flex items-center gap-2 text-sm">
          Name
          <input
            value={name}
            onChange={(event) => setName(event.target.value)}
            placeholder="such as roofer"
            className="h-[27px] grow rounded-md border border-field bg-sheet px-2"
          />
        </label>
        <div className="mt-2 grid grid-cols-2 gap-x-4">
          {Object.entries(SHEETS).map(([number, title]) => (
            <Toggle key={number} on={sheets.includes(number)} onChange={(on) => turn(number, on)}>
              <b className="font-figure">{number}</b> {title}
            </Toggle>
          ))}
        </div>
        {problem && (
          <p role="alert" className="mt-2 text-sm text-stop">
            {problem}
          </p>
        )}
        <div className="mt-3 flex gap-2">
          <Button
            weight="main"
            disabled={!trimmed || sheets.length === 0}
            onClick={() =>
              void send(
                () => edit({ kind: 'keep-set', name: trimmed, sheets: [...sheets] }),
                trimmed,
              )
            }
          >
            Keep set
          </Button>
          {shown && (
            <Button
              onClick={() =>
                void send(() => edit({ kind: 'drop-set', name: shown.name }), 'permit')
              }
            >
              Delete set
            </Button>
          )}
        </div>
      </Panel>
    </>
  );
}
