/** The panel and what goes with it: each board's sum and ways out, gear asked for, labels to print. */
import type { Schemas } from '@/api/client';
import { saveTable } from '@/charts/TableBehind';
import { useJob } from '@/plan/JobContext';
import { Button } from '@/ui/Button';
import { TypedField } from '@/ui/TypedField';
import { useScrollStop } from '@/ui/useScrollStop';

const PAPER: Record<string, string> = {
  red: 'bg-[#b3261e] text-white',
  yellow: 'bg-[#f4c430] text-black',
  orange: 'bg-[#e8871e] text-black',
  green: 'bg-[#1e6b3a] text-white',
  white: 'bg-white text-black',
};

export function PanelView({ found }: { found: Schemas['CircuitsView'] }) {
  const scrollStop = useScrollStop();
  return (
    <section
      ref={scrollStop}
      aria-label="Panel and labels"
      className="breaks min-h-0 grow overflow-y-auto px-4 py-3 text-sm"
    >
      <AtPanel panel={found.panel} />
      <Boards />
      <Gear gear={found.gear} />
      <Labels labels={found.labels} />
    </section>
  );
}

function AtPanel({ panel }: { panel: Schemas['AtPanel'] }) {
  const { act } = useJob();
  return (
    <>
      <h2 className="text-base font-semibold">Joined at the panel</h2>
      <ul className="mb-2">
        {panel.told.map((told) => (
          <li key={told}>{told}</li>
        ))}
      </ul>
      {panel.ways.length > 0 && (
        <table className="mb-4 w-full max-w-[900px] border-collapse">
          <caption className="text-left font-medium">Ways out, the least work first</caption>
          <tbody>
            {panel.ways.map((way) => (
              <tr key={way.title} className="border-b border-rule align-top">
                <th scope="row" className="py-1 pr-3 text-left font-medium">
                  {way.title}
                  <span className="block text-xs font-normal text-ink-2">{way.told}</span>
                </th>
                <td className="pr-3 text-xs">{way.work}</td>
                <td className="pr-3 text-xs">{way.rule}</td>
                <td className="pr-3 text-xs">
                  {way.holds ? 'holds then' : 'not enough by itself'}
                </td>
                <td>
                  {way.edit && way.holds && (
                    <Button onClick={() => way.edit && void act(way.edit)}>Take it</Button>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </>
  );
}

/** What is not typed stays as it is, whatever was typed a moment before. */
const AS_IT_IS = { name: null, main: null, bus: null, feeder: null };

/** Boards between the sources and the main panel; the empty row adds one. */
function Boards() {
  const { job, edit } = useJob();
  const boards = job.survey.service.subpanels;
  const amps = (value: number | null | undefined) => (value == null ? '' : `${value} A`);
  const row = (place: number, board: Schemas['SubPanel'] | undefined) => {
    const now = {
      name: board?.name ?? '',
      main: amps(board?.main_breaker_a),
      bus: amps(board?.busbar_a),
      feeder: amps(board?.feeder_a),
    };
    const field = (part: keyof typeof now, label: string, width: number) => (
      <TypedField
        label={board ? `${board.name}, ${label}` : label}
        value={now[part]}
        placeholder={part === 'name' ? 'add a board' : 'A'}
        width={width}
        align="left"
        commit={(typed) => edit({ kind: 'set-sub-panel', place, ...AS_IT_IS, [part]: typed })}
      />
    );
    return (
      <tr key={place} className="border-b border-rule">
        <td className="py-1 pr-2">{field('name', 'name of the board', 140)}</td>
        {board && (
          <>
            <td className="pr-2">{field('main', 'main breaker', 84)}</td>
            <td className="pr-2">{field('bus', 'busbar', 84)}</td>
            <td className="pr-2">{field('feeder', 'breaker of its feeder', 84)}</td>
          </>
        )}
      </tr>
    );
  };
  return (
    <table className="mb-4 border-collapse">
      <caption className="text-left font-medium whitespace-nowrap">
        Boards between the sources and the main panel, theirs first
      </caption>
      <thead>
        <tr className="text-left text-xs text-ink-2">
          {['Board', 'Main breaker', 'Busbar', 'Its feeder’s breaker'].map((title) => (
            <th key={title} scope="col" className="pr-3 font-normal whitespace-nowrap">
              {title}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {boards.map((board, n) => row(n, board))}
        {row(boards.length, undefined)}
      </tbody>
    </table>
  );
}

function Gear({ gear }: { gear: Schemas['Asked'][] }) {
  if (gear.length === 0) return null;
  return (
    <table className="mb-4 w-full max-w-[980px] border-collapse">
      <caption className="text-left text-base font-semibold">Switches and protection</caption>
      <thead>
        <tr className="border-b border-ink text-left text-xs text-ink-2">
          {['What', 'Where', 'Rating', 'By', 'Confirmed on site by'].map((title) => (
            <th key={title} scope="col" className="pr-3 font-normal">
              {title}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {gear.map((g) => (
          <tr key={g.item} className="border-b border-rule align-top">
            <th scope="row" className="py-1 pr-3 text-left font-medium">
              {g.item}
              <span className="block text-xs font-normal text-ink-2">{g.told}</span>
            </th>
            <td className="pr-3">{g.place}</td>
            <td className="pr-3 whitespace-nowrap">{g.rating}</td>
            <td className="pr-3 text-xs">{g.source.document}, from memory</td>
            <td>{g.confirm}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function Labels({ labels }: { labels: Schemas['Label'][] }) {
  const { job } = useJob();
  if (labels.length === 0) return null;
  return (
    <>
      <h2 className="text-base font-semibold">Labels and placards</h2>
      <p className="mb-2 text-xs text-ink-2">
        Wording from memory: check it against the edition in force. Print this page for the sheet.
      </p>
      <ul className="grid grid-cols-2 gap-3 max-md:grid-cols-1">
        {labels.map((label) => (
          <li key={label.lines.join()} className="break-inside-avoid">
            <p className={`border-2 border-black p-2 text-center ${PAPER[label.colour] ?? ''}`}>
              {label.lines.map((line, i) => (
                <span key={line} className={`block ${i === 0 ? 'font-semibold' : 'text-xs'}`}>
                  {line}
                </span>
              ))}
            </p>
            <p className="mt-0.5 text-xs text-ink-2">
              {label.place}. {label.colour}, letters {label.letters_mm} mm. {label.source.document}
            </p>
          </li>
        ))}
      </ul>
      <p className="for-the-hand mt-2">
        <Button
          onClick={() =>
            saveTable({
              title: `${job.name} labels`,
              columns: ['text', 'place', 'colour', 'letters_mm', 'clause'],
              rows: labels.map((l) => [
                l.lines.join(' / '),
                l.place,
                l.colour,
                l.letters_mm,
                l.source.document,
              ]),
            })
          }
        >
          Labels (CSV)
        </Button>
      </p>
    </>
  );
}
