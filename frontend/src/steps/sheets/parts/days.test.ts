import { describe, expect, it } from 'vitest';
import { daysBetween, daysLater } from './days';

describe('days', () => {
  it('are counted over a leap day and where clocks are put forward', () => {
    expect(daysBetween('2028-02-28', '2028-03-01')).toBe(2);
    expect(daysBetween('2026-03-28', '2026-03-30')).toBe(2);
    expect(daysBetween('2026-12-02', '2026-12-02')).toBe(0);
  });
  it('are moved over the year', () => {
    expect(daysLater('2026-12-31', 1)).toBe('2027-01-01');
    expect(daysLater('2026-03-01', -1)).toBe('2026-02-28');
  });
});
