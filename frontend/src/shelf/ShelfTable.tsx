/** The datasheets of a kind: found by words, narrowed and sorted by a column, page by page. */
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { emptyTableAddress, type SheetKind, shelfPageQuery } from '@/api/shelfQueries';
import { Button } from '@/ui/Button';
import { Mark } from '@/ui/Mark';
import { SortHead } from '@/ui/SortHead';
import { Failed, Waiting } from '@/ui/States';
import { figure } from '@/units/format';
import { LeftOut } from './LeftOut';

interface ShelfTableProps {
  kind: SheetKind;
  chosen: readonly string[];
  onChoose: (id: string) => void;
  onRemoved: () => void;
}

const number = (text: string) => {
  const value = Number.parseFloat(text.replace(',', '.'));
  return Number.isFinite(value) ? value : null;
};

export function ShelfTable({ kind, chosen, onChoose, onRemoved }: ShelfTableProps) {
  const [words, setWords] = useState('');
  const [sort, setSort] = useState('');
  const [down, setDown] = useState(true);
  const [least, setLeast] = useState('');
  const [most, setMost] = useState('');
  const [start, setStart] = useState(0);
  const { data, error } = useQuery(
    shelfPageQuery({ kind, words, sort, down, least: number(least), most: number(most), start }),
  );
  if (error) return <Failed error={error} />;
  if (!data) return <Waiting>Reading the shelf</Waiting>;
  const sorted = data.columns.find((c) => c.id === sort);
  const last = data.start + data.rows.length;
  const field = (label: string, value: string, change: (text: string) => void, px: number) => (
    <label className="flex items-center gap-1.5 text-sm">
      {label}
      <input
        value={value}
        aria-label={label}
        onChange={(event) => {
          change(event.target.value);
          setStart(0);
        }}
        className="h-[27px] rounded-md border border-field bg-sheet px-1.5"
        style={{ width: px }}
      />
    </label>
  );
  return (
    <section aria-label="On the shelf" className="flex min-h-0 grow flex-col">
      <LeftOut sheets={data.left_out} onRemoved={onRemoved} />
      <div className="flex min-h-10 shrink-0 flex-wrap items-center gap-y-1 py-1 gap-3 px-4">
        {field('Find', words, setWords, 190)}
        {sorted ? (
          <span className="flex items-center gap-2 text-sm">
            {sorted.label}
            {sorted.unit && `, ${sorted.unit}`}
            {field('from', least, setLeast, 62)}
            {field('to', most, setMost, 62)}
          </span>
        ) : (
          <span className="text-xs text-ink-2">press a heading to sort and narrow by it</span>
        )}
        <span className="grow" />
        <span role="status" className="text-sm whitespace-nowrap text-ink-2">
          {figure(data.found)} of {figure(data.of)}
        </span>
      </div>
      <div className="min-h-0 grow overflow-auto px-4">
        <table className="w-full text-sm">
          <thead className="sticky top-0 bg-paper">
            <tr className="text-left align-bottom text-xs text-ink-2">
              <th className="font-normal">Name</th>
              {data.columns.map((c) => (
                <SortHead
                  key={c.id}
                  title={c.unit ? `${c.label}, ${c.unit}` : c.label}
                  sorted={sort === c.id ? (down ? 'descending' : 'ascending') : 'none'}
                  onSort={() => {
                    setDown(sort === c.id ? !down : true);
                    if (sort !== c.id) {
                      setLeast('');
                      setMost('');
                    }
                    setSort(c.id);
                    setStart(0);
                  }}
                />
              ))}
            </tr>
          </thead>
          <tbody>
            {data.rows.map((row) => (
              <tr key={row.id} className="border-t border-rule">
                <th scope="row" className="py-1 text-left font-normal">
                  <label className="flex items-center gap-2">
                    <input
                      type="checkbox"
                      aria-label={`Look at ${row.name}`}
                      checked={chosen.includes(row.id)}
                      onChange={() => onChoose(row.id)}
                    />
                    <span className={row.own ? 'font-medium' : ''}>{row.name}</span>
                    {row.own && <span className="text-xs text-patina-dark">own</span>}
                    {row.caveats > 0 && <Mark shape="triangle" />}
                  </label>
                </th>
                {row.cells.map((cell, i) => (
                  <td
                    // biome-ignore lint/suspicious/noArrayIndexKey: cells follow the columns
                    key={i}
                    className="py-1 pl-2 text-right font-figure whitespace-nowrap"
                  >
                    {typeof cell === 'number'
                      ? figure(cell, data.columns[i]?.digits ?? 0)
                      : (cell ?? '?')}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <div className="flex min-h-10 shrink-0 flex-wrap items-center gap-y-1 py-1 gap-2 border-t border-rule px-4 text-sm">
        <Button
          disabled={data.start === 0}
          onClick={() => setStart(Math.max(0, start - data.rows.length))}
        >
          Back
        </Button>
        <Button disabled={last >= data.found} onClick={() => setStart(last)}>
          On
        </Button>
        <span className="text-ink-2">
          {data.rows.length > 0 && `${data.start + 1} to ${last}`}
          {data.rows.length === 0 && 'none passes'}
        </span>
        <span className="grow" />
        <a className="underline" href={emptyTableAddress(kind)} download>
          Empty table (CSV)
        </a>
        <span className="text-xs text-ink-2">
          Samples are invented, their prices too. Tick up to four to compare.
        </span>
      </div>
    </section>
  );
}
