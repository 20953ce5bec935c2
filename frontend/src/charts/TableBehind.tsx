/** The table behind a chart: shown on request, copied, or saved as CSV. */
import { Button } from '@/ui/Button';
import { Panel } from '@/ui/Panel';

export interface TableData {
  title: string;
  columns: string[];
  rows: (string | number)[][];
}

interface TableBehindProps {
  table: TableData;
  open: boolean;
  onOpenChange: (open: boolean) => void;
}

const asCsv = ({ columns, rows }: TableData) =>
  [columns, ...rows]
    .map((row) => row.map((cell) => `"${String(cell).replaceAll('"', '""')}"`).join(','))
    .join('\r\n');

/** Saves a table as a CSV file named by its title. */
export function saveTable(table: TableData) {
  const address = URL.createObjectURL(new Blob([`${asCsv(table)}\r\n`], { type: 'text/csv' }));
  const link = document.createElement('a');
  link.href = address;
  link.download = `${table.title.toLowerCase().replaceAll(/[^a-z0-9]+/g, '-')}.csv`;
  link.click();
  URL.revokeObjectURL(address);
}

export function TableBehind({ table, open, onOpenChange }: TableBehindProps) {
  return (
    <Panel
      title={table.title}
      description="The figures behind the chart."
      open={open}
      onOpenChange={onOpenChange}
    >
      <div className="mb-2 flex gap-2">
        <Button
          onClick={() =>
            void navigator.clipboard.writeText(
              asCsv(table).replaceAll('","', '\t').replaceAll('"', ''),
            )
          }
        >
          Copy
        </Button>
        <Button onClick={() => saveTable(table)}>Save CSV</Button>
      </div>
      <table className="w-full text-sm">
        <thead>
          <tr>
            {table.columns.map((column) => (
              <th
                key={column}
                scope="col"
                className="border-b border-ink py-1 text-right font-semibold first:text-left"
              >
                {column}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {table.rows.map((row) => (
            <tr key={String(row[0])}>
              {row.map((cell, i) => (
                <td
                  key={table.columns[i]}
                  className="border-b border-rule py-0.5 text-right font-figure first:text-left"
                >
                  {cell}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </Panel>
  );
}
