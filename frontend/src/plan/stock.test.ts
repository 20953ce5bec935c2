import { expect, test } from 'vitest';
import { stockFirst } from './stock';

const sheets = [
  { id: 'm390', name: 'Module 390' },
  { id: 'm405', name: 'Module 405' },
  { id: 'm450', name: 'Module 450' },
];
const item = (kind: 'module' | 'inverter', item_id: string, count: number) => ({
  kind,
  item_id,
  name: item_id,
  count,
});

test('what lies on the shelf comes first and says how many; lines of one thing add up', () => {
  const stock = [
    item('module', 'm405', 18),
    item('module', 'm405', 6),
    item('inverter', 'm390', 2),
  ];
  expect(stockFirst(sheets, stock, 'module').map((c) => c.label)).toEqual([
    'Module 405 (24 on the shelf)',
    'Module 390',
    'Module 450',
  ]);
});

test('without a stock list the order is that of the catalogue', () => {
  expect(stockFirst(sheets, [], 'module').map((c) => c.value)).toEqual(['m390', 'm405', 'm450']);
});
