import { render, screen } from '@testing-library/react';
import { expect, test } from 'vitest';
import { Term } from './Term';

test('a term shows its line of the glossary, other words stay as they are', () => {
  render(
    <p>
      <Term>Clipping</Term> and <Term>To the meter</Term>
    </p>,
  );
  expect(screen.getByText('Clipping').title).toMatch(/AC limit/);
  expect(screen.getByText(/To the meter/).title).toBe('');
});
