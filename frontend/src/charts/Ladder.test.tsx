import { fireEvent, render, screen } from '@testing-library/react';
import { describe, expect, test, vi } from 'vitest';
import { Ladder, type Lane } from './Ladder';

const lane = (title: string, modules: number | null, change: Partial<Lane> = {}): Lane => ({
  key: title,
  title,
  modules,
  reason: modules === null ? 'busbar not given' : '',
  binds: false,
  ...change,
});

function shown(change: Partial<Parameters<typeof Ladder>[0]> = {}) {
  const onOpen = vi.fn();
  const onTarget = vi.fn();
  render(
    <Ladder
      lanes={[lane('Roof', 28, { binds: true }), lane('Purse', 92), lane('Busbar', null)]}
      target={30}
      now={28}
      widthPx={372}
      openKey=""
      onOpen={onOpen}
      onTarget={onTarget}
      {...change}
    />,
  );
  return { onOpen, onTarget };
}

describe('the ladder of ceilings', () => {
  test('names each ceiling with its modules or what is missing', () => {
    shown();
    expect(screen.getByRole('button', { name: 'Roof 28' })).toBeTruthy();
    expect(screen.getByRole('button', { name: 'Purse 92' })).toBeTruthy();
    expect(screen.getByRole('button', { name: 'Busbar busbar not given' })).toBeTruthy();
  });

  test('opens the sum of a ceiling by pointer and by key', () => {
    const { onOpen } = shown();
    const roof = screen.getByRole('button', { name: /Roof/ });
    fireEvent.click(roof);
    fireEvent.keyDown(roof, { key: 'Enter' });
    expect(onOpen).toHaveBeenCalledTimes(2);
  });

  test.each([
    ['ArrowLeft', false, 29],
    ['ArrowRight', false, 31],
    ['ArrowLeft', true, 25],
  ])('%s with shift %s asks for %d modules', (key, shiftKey, wanted) => {
    const { onTarget } = shown();
    fireEvent.keyDown(screen.getByRole('slider'), { key, shiftKey });
    expect(onTarget).toHaveBeenCalledExactlyOnceWith(wanted);
  });

  test('without a need the target cannot be moved', () => {
    shown({ onTarget: undefined });
    expect(screen.getByRole('slider').getAttribute('tabindex')).toBe('-1');
  });

  test('without a target there is no line', () => {
    shown({ target: null });
    expect(screen.queryByRole('slider')).toBeNull();
  });
});
