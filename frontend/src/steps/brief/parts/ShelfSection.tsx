/** The firm's stock list, and what this option would have to buy. */
import { useJob } from '@/plan/JobContext';
import { Button } from '@/ui/Button';
import { FilePick, withText } from '@/ui/FilePick';
import { figure } from '@/units/format';

const EXAMPLE =
  'kind,item,count,name\nmodule,sample-405,18,\ninverter,sample-i7-6,1,\nrail,"Rail 4267 mm, Sample flashed foot, two rails",14,\npart,Mid clamp,60,';

export function ShelfSection() {
  const { job, report, option, act } = useJob();
  const { stock } = job.brief;
  return (
    <div className="flex flex-wrap gap-x-8 gap-y-3">
      <section aria-label="Stock list" className="w-[400px]">
        <div className="mb-1 flex items-center gap-2">
          <h2 className="grow text-sm font-semibold">On the shelf</h2>
          <FilePick
            label="Stock list (CSV)"
            accept=".csv,.tsv,.txt,text/csv"
            onFile={withText((text, file) => act({ kind: 'import-stock', text, file }))}
          />
          {stock.length > 0 && (
            <Button onClick={() => act({ kind: 'import-stock', text: '', file: '' })}>Clear</Button>
          )}
        </div>
        {stock.length === 0 ? (
          <>
            <p className="text-sm text-ink-2">
              Nothing listed. A CSV file headed kind, item, count and name; an item is a datasheet’s
              id or name; rails and parts of racking by their names under Build, Parts.
            </p>
            <pre className="mt-1 rounded-sm bg-bar px-2 py-1.5 font-mono text-xs whitespace-pre-wrap">
              {EXAMPLE}
            </pre>
          </>
        ) : (
          <table className="w-full text-sm">
            <tbody>
              {stock.map((item) => (
                <tr key={`${item.kind} ${item.item_id}`} className="border-b border-rule">
                  <td className="py-0.5 text-ink-2">{item.kind}</td>
                  <td>{item.name}</td>
                  <td className="text-right font-figure">{figure(item.count)}</td>
                </tr>
              ))}
            </tbody>
          </table>
        )}
      </section>
      {report.to_buy.length > 0 && (
        <section aria-label="To buy" className="w-[372px]">
          <h2 className="mb-1 min-h-7 text-sm font-semibold">
            Option {option.id.toUpperCase()} needs
          </h2>
          <table className="w-full text-sm">
            <thead>
              <tr className="text-left text-xs text-ink-2">
                {['Thing', 'Needed', 'On the shelf', 'To buy'].map((title) => (
                  <th key={title} scope="col" className="pr-3 align-bottom font-medium last:pr-0">
                    {title}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {report.to_buy.map((item) => (
                <tr key={item.name} className="border-b border-rule align-top">
                  <td className="py-0.5 pr-2">{item.name}</td>
                  <td className="font-figure">{item.needed}</td>
                  <td className="font-figure">{item.on_shelf}</td>
                  <td className="font-figure font-semibold">
                    {Math.max(0, item.needed - item.on_shelf)}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
          <p className="mt-1 text-xs text-ink-2">Approve before buying.</p>
        </section>
      )}
    </div>
  );
}
