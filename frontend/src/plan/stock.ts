/** The firm's shelf in a list of choices: what lies there comes first and says so. */
import type { Schemas } from '@/api/client';
import type { ChoiceItem } from '@/ui/Choice';

interface Sheet {
  id: string;
  name: string;
}

export function stockFirst<S extends Sheet>(
  sheets: readonly S[],
  stock: readonly Schemas['StockItem'][],
  kind: Schemas['StockKind'],
  shortOf: (sheet: S) => string = ({ name }) => name.replace(/^Sample /, ''),
): ChoiceItem[] {
  const held = (id: string) =>
    stock.reduce((sum, s) => sum + (s.kind === kind && s.item_id === id ? s.count : 0), 0);
  return sheets
    .map((sheet) => ({ sheet, count: held(sheet.id) }))
    .sort((a, b) => Number(b.count > 0) - Number(a.count > 0))
    .map(({ sheet, count }) => ({
      value: sheet.id,
      short: shortOf(sheet),
      label: count > 0 ? `${sheet.name} (${count} on the shelf)` : sheet.name,
    }));
}
