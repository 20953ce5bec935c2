/** The plan set sheet by sheet as it is printed: what is pressed leads to the step that made it. */
import { useQuery } from '@tanstack/react-query';
import { type MouseEvent, useState } from 'react';
import { useNavigate } from 'react-router';
import type { Schemas } from '@/api/client';
import { useJob } from '@/plan/JobContext';
import { Board } from '@/ui/Board';
import { Button } from '@/ui/Button';
import { Choice } from '@/ui/Choice';
import { FileLink } from '@/ui/FileLink';
import { Failed, Waiting } from '@/ui/States';
import { useScrollStop } from '@/ui/useScrollStop';
import { planSetQuery, type SetAsked, setFile, setSheetQuery } from '../queries';
import { IssueCard, TitleCard } from './Issued';
import { OwnSets } from './OwnSets';

export const SETS: Record<Schemas['SetName'], string> = {
  whole: 'Whole set',
  permit: 'Permit set',
  utility: 'Utility set',
  crew: 'Crew set',
  owner: 'Owner’s page',
};
const PAPERS: Record<Schemas['SheetPaper'], string> = {
  Letter: 'Letter',
  Tabloid: 'Tabloid',
  A4: 'A4',
  A3: 'A3',
};
/** Where the first word of a part leads to. */
const LEADS: Record<string, string> = {
  array: 'array',
  plane: 'array',
  module: 'array',
  modules: 'array',
  obstruction: 'survey',
  lot: 'survey?view=site',
  gear: 'survey?view=site',
  ways: 'build?view=circuits',
  string: 'strings',
  inverter: 'strings',
  check: 'strings?view=rules',
  running: 'array',
  strip: 'survey',
  mounting: 'build',
  labels: 'build?view=panel',
  panel: 'build?view=panel',
  shelf: 'strings?view=equipment',
};

const itemsOf = <Id extends string>(names: Record<Id, string>) =>
  (Object.keys(names) as Id[]).map((value) => ({ value, label: names[value] }));

const titleOf = (name: string) => (name in SETS ? SETS[name as Schemas['SetName']] : name);

export function SetView() {
  const { at, job } = useJob();
  const feet = job.unit === 'ft';
  const own = job.paperwork.sets ?? [];
  const [asked, setAsked] = useState<SetAsked>({ name: 'permit', paper: feet ? 'Letter' : 'A4' });
  const [number, setNumber] = useState('');
  const { data: drawing, error: failed, isPlaceholderData } = useQuery(planSetQuery(at, asked));
  const error = failed ?? (drawing?.problem ? new Error(drawing.problem) : null);
  const soFar = drawing?.running ? drawing.found : null;
  const sheets = drawing?.running ? undefined : drawing?.found;
  const back = () => setAsked({ ...asked, name: 'permit' });
  if (error)
    return (
      <>
        <Failed error={error} />
        <Button className="m-4 self-start" onClick={back}>
          Permit set
        </Button>
      </>
    );
  const shown = sheets?.find((s) => s.number === number) ?? sheets?.[0];
  const faults = sheets?.filter((s) => s.hits > 0).length ?? 0;
  return (
    <div className="flex min-h-0 grow flex-col overflow-y-auto">
      <div className="for-the-hand flex flex-wrap items-center gap-2 px-3.5 py-1.5 text-sm">
        <Choice
          label="Set"
          value={asked.name}
          items={[...itemsOf(SETS), ...own.map(({ name }) => ({ value: name, label: name }))]}
          onChange={(name) => setAsked({ ...asked, name })}
        />
        <Choice
          label="Paper"
          value={asked.paper}
          items={itemsOf(PAPERS)}
          onChange={(paper) => setAsked({ ...asked, paper: paper as SetAsked['paper'] })}
        />
        <OwnSets
          key={asked.name}
          shown={own.find(({ name }) => name === asked.name)}
          onShown={(name) => setAsked({ ...asked, name })}
        />
        <FileLink href={setFile(at, 'plan-set.pdf', asked)} shown>
          {titleOf(asked.name)} (PDF)
        </FileLink>
        {sheets && (
          <span role="status" className={faults > 0 ? 'text-stop' : 'text-ink-2'}>
            {faults > 0
              ? `${faults} of ${sheets.length} sheets have a drawing fault`
              : `${sheets.length} sheets, nothing overlaps or falls off one`}
          </span>
        )}
      </div>
      {!sheets || !shown ? (
        <div className="min-h-0 grow">
          <Waiting shows="Every sheet of the set as it will be printed.">
            {soFar?.length
              ? `Drawing the sheets: ${soFar.length} drawn, ${soFar.at(-1)?.number} last`
              : 'Drawing the sheets'}
          </Waiting>
        </div>
      ) : (
        <div
          aria-busy={isPlaceholderData}
          className={`flex min-h-40 grow basis-0 max-md:min-h-72 max-md:flex-col ${isPlaceholderData ? 'opacity-50' : ''}`}
        >
          <SheetList sheets={sheets} shown={shown} onChoose={setNumber} />
          <SheetPage asked={asked} number={shown.number} listed={!isPlaceholderData} />
        </div>
      )}
      <Board heightPx={216}>
        <TitleCard />
        <IssueCard asked={asked} faults={faults} />
      </Board>
    </div>
  );
}

interface SheetListProps {
  sheets: readonly Schemas['SheetListed'][];
  shown: Schemas['SheetListed'];
  onChoose: (number: string) => void;
}

function SheetList({ sheets, shown, onChoose }: SheetListProps) {
  const scrollStop = useScrollStop();
  return (
    <nav
      ref={scrollStop}
      aria-label="Sheets of the set"
      className="for-the-hand w-[190px] shrink-0 overflow-y-auto border-r border-rule p-2 max-md:max-h-32 max-md:w-full"
    >
      <ul>
        {sheets.map((s) => (
          <li key={s.number}>
            <button
              type="button"
              aria-current={s === shown ? 'page' : undefined}
              onClick={() => onChoose(s.number)}
              className={`min-h-[26px] w-full rounded-sm px-2 py-0.5 text-left text-sm ${s === shown ? 'bg-copper-wash font-medium' : 'hover:bg-paper'}`}
            >
              <span className="font-figure font-semibold">{s.number}</span> {s.title}
              {s.changed && <span className="block text-xs text-warn">changed since issued</span>}
              {s.hits > 0 && <span className="block text-xs text-stop">drawing fault</span>}
            </button>
          </li>
        ))}
      </ul>
    </nav>
  );
}

interface SheetPageProps {
  asked: SetAsked;
  number: string;
  /** Whether the set asked for has that sheet: until its list is there nobody knows. */
  listed: boolean;
}

function SheetPage({ asked, number, listed }: SheetPageProps) {
  const { at } = useJob();
  const navigate = useNavigate();
  const scrollStop = useScrollStop();
  const [wide, setWide] = useState(false);
  const query = useQuery({ ...setSheetQuery(at, asked, number), enabled: listed });
  const { data: sheet, error, isPlaceholderData } = query;
  if (error) return <Failed error={error} />;
  if (!sheet) return <Waiting shows="The sheet as it will be printed.">Drawing</Waiting>;
  const follow = (event: MouseEvent) => {
    const part = (event.target as Element).closest('[data-part]')?.getAttribute('data-part');
    const step = LEADS[part?.split(' ')[0] ?? ''];
    if (step) navigate(`/jobs/${at.jobId}/${at.optionId}/${step}`);
  };
  return (
    <section
      ref={scrollStop}
      aria-label={`Sheet ${sheet.number}, ${sheet.title}`}
      aria-busy={isPlaceholderData}
      className="flex min-h-0 min-w-0 grow flex-col overflow-auto bg-paper p-3"
    >
      <div className="for-the-hand mb-2 flex flex-wrap items-center gap-2 text-sm">
        <Button aria-pressed={wide} onClick={() => setWide(!wide)}>
          {wide ? 'Whole sheet' : 'Larger'}
        </Button>
        {['svg', 'dxf'].map((kind) => (
          <a
            key={kind}
            className="inline-flex min-h-6 items-center underline"
            href={setFile(at, `plan-set/sheet.${kind}`, asked, sheet.number)}
            download
          >
            {kind.toUpperCase()}
          </a>
        ))}
        <span className="text-ink-2">Press what is drawn to go where it was made.</span>
      </div>
      {sheet.hits.length > 0 && (
        <p role="status" className="mb-2 text-sm text-stop">
          Not to be issued: {sheet.hits.join('; ')}
        </p>
      )}
      {/* biome-ignore lint/a11y/noStaticElementInteractions lint/a11y/useKeyWithClickEvents: every step is also reached by the list of steps */}
      <div
        className={`cursor-pointer ${wide ? 'w-[1700px] shrink-0 border border-rule bg-sheet [&>svg]:h-auto' : 'min-h-[260px] grow basis-0 [&>svg]:h-full'} [&>svg]:w-full`}
        onClick={follow}
        // biome-ignore lint/security/noDangerouslySetInnerHtml: our own drawing, every text in it escaped
        dangerouslySetInnerHTML={{ __html: sheet.svg }}
      />
    </section>
  );
}
