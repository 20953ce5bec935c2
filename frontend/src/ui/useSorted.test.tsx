import { fireEvent, render, screen } from '@testing-library/react';
import { expect, test } from 'vitest';
import { useSorted } from './useSorted';

interface Row {
  name: string;
  kwh: number | null;
  price: number;
}

const ROWS: Row[] = [
  { name: 'a', kwh: 5, price: 30 },
  { name: 'b', kwh: null, price: 10 },
  { name: 'c', kwh: 9, price: 20 },
];
const COLUMNS = [
  { id: 'kwh', title: 'kWh', of: (r: Row) => r.kwh },
  { id: 'price', title: 'Price', of: (r: Row) => r.price, rising: true },
] as const;

function Table() {
  const { sorted, heads } = useSorted(ROWS, COLUMNS);
  return (
    <table>
      <thead>
        <tr>{heads}</tr>
      </thead>
      <tbody>
        {sorted.map((r) => (
          <tr key={r.name}>
            <td>{r.name}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

test('rows follow the head that is pressed, what is not known last either way', () => {
  render(<Table />);
  const order = () => screen.getAllByRole('cell').map((cell) => cell.textContent);
  const press = (name: string) => fireEvent.click(screen.getByRole('button', { name }));
  expect(order()).toEqual(['a', 'b', 'c']);
  press('kWh');
  expect(order()).toEqual(['c', 'a', 'b']);
  press('kWh ↓');
  expect(order()).toEqual(['a', 'c', 'b']);
  press('Price');
  expect(order()).toEqual(['b', 'c', 'a']);
});
