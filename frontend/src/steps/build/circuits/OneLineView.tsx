/** The one-line diagram sheet by sheet: a part that is pressed shows the checks that hold it. */
import { useQuery } from '@tanstack/react-query';
import { type KeyboardEvent, type MouseEvent, useState } from 'react';
import type { Schemas } from '@/api/client';
import { useJob } from '@/plan/JobContext';
import { Button } from '@/ui/Button';
import { Empty, Failed, Waiting } from '@/ui/States';
import { useScrollStop } from '@/ui/useScrollStop';
import { oneLineFile, oneLineQuery } from '../queries';

export function OneLineView() {
  const { at } = useJob();
  const { data, error } = useQuery(oneLineQuery(at));
  const [sheet, setSheet] = useState(0);
  const [part, setPart] = useState('');
  if (error) return <Failed error={error} />;
  if (!data) return <Waiting shows="The diagram, drawn from the design.">Drawing</Waiting>;
  const { sheets, parts } = data.found;
  const shown = sheets[Math.min(sheet, sheets.length - 1)];
  if (!shown) return <Empty>The diagram follows once modules are in strings: see Strings.</Empty>;
  const number = sheets.indexOf(shown) + 1;
  const press = (target: EventTarget) =>
    setPart((target as Element).closest('[data-part]')?.getAttribute('data-part') ?? '');
  return (
    <div className="flex min-h-0 grow flex-col">
      <div className="for-the-hand flex flex-wrap items-center gap-2 px-3.5 py-1.5 text-sm">
        {sheets.length > 1 &&
          sheets.map((s, i) => (
            <Button
              key={s.title}
              weight={s === shown ? 'pressed' : 'plain'}
              aria-pressed={s === shown}
              onClick={() => setSheet(i)}
            >
              Sheet {i + 1}
            </Button>
          ))}
        {shown.hits.length > 0 ? (
          <span className="text-stop" role="status">
            Not to be issued: {shown.hits.join('; ')}
          </span>
        ) : (
          <span className="text-ink-2">Nothing overlaps, nothing crosses unmarked.</span>
        )}
        <span className="grow" />
        {['svg', 'dxf'].map((kind) => (
          <a key={kind} className="underline" href={oneLineFile(at, number, kind)} download>
            {kind.toUpperCase()}
          </a>
        ))}
      </div>
      <div className="flex min-h-0 grow max-md:flex-col">
        <Drawing svg={shown.svg} title={shown.title} onPress={press} />
        {part && <PartCard part={part} parts={parts} onClose={() => setPart('')} />}
      </div>
    </div>
  );
}

interface DrawingProps {
  svg: string;
  title: string;
  onPress: (target: EventTarget) => void;
}

function Drawing({ svg, title, onPress }: DrawingProps) {
  const scrollStop = useScrollStop();
  const [wide, setWide] = useState(false);
  return (
    <section
      ref={scrollStop}
      aria-label={title}
      className="min-h-0 min-w-0 grow overflow-auto bg-paper p-3"
    >
      <p className="for-the-hand mb-2">
        <Button aria-pressed={wide} onClick={() => setWide(!wide)}>
          {wide ? 'Whole sheet' : 'Larger'}
        </Button>
      </p>
      {/* biome-ignore lint/a11y/noStaticElementInteractions: every part is also reached in the list of circuits */}
      <div
        className={`${wide ? 'w-[1700px]' : 'w-full'} cursor-pointer border border-rule [&>svg]:h-auto [&>svg]:w-full`}
        onClick={(event: MouseEvent) => onPress(event.target)}
        onKeyDown={(event: KeyboardEvent) => event.key === 'Enter' && onPress(event.target)}
        // biome-ignore lint/security/noDangerouslySetInnerHtml: our own drawing, every text in it escaped
        dangerouslySetInnerHTML={{ __html: svg }}
      />
    </section>
  );
}

interface PartCardProps {
  part: string;
  parts: Schemas['DiagramView']['parts'];
  onClose: () => void;
}

const STANDS = { kept: 'kept', broken: 'broken', 'not-checked': 'not checked' };

function PartCard({ part, parts, onClose }: PartCardProps) {
  const { report } = useJob();
  const subjects = parts.find((p) => p.part === part)?.subjects ?? [];
  const checks = report.checks.filter((c) => subjects.includes(c.check.subject));
  return (
    <aside
      aria-label={`Checks of ${part}`}
      className="w-[300px] shrink-0 overflow-y-auto border-l border-rule bg-sheet p-3 text-sm max-md:w-full"
    >
      <div className="mb-2 flex items-baseline justify-between">
        <h2 className="font-semibold">{part}</h2>
        <Button onClick={onClose}>Close</Button>
      </div>
      {checks.length === 0 && <p className="text-ink-2">No check holds this part.</p>}
      <ul className="flex flex-col gap-2">
        {checks.map((c) => (
          <li key={c.key}>
            <p className="font-medium">{c.check.title}</p>
            <p className="text-xs text-ink-2">
              {STANDS[c.check.verdict]}
              {c.check.reason ? `: ${c.check.reason}` : `, ${c.value_text} against ${c.limit_text}`}
            </p>
          </li>
        ))}
      </ul>
    </aside>
  );
}
