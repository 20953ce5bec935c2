import { expect, test } from 'vitest';
import type { CheckView } from '@/api/client';
import { alike } from './alike';

function view(subject: string, numbers: string, verdict = 'kept'): CheckView {
  return {
    key: subject + numbers,
    check: { rule_id: 'strings.cold-voltage', subject, verdict },
    lines: { numbers },
    limit_text: '600 V',
  } as unknown as CheckView;
}

test('the same sum on two strings is one row', () => {
  const rows = alike([view('string A', '14'), view('tracker 1', '9'), view('string B', '14')]);
  expect(rows.map((r) => r.subjects)).toEqual(['string A, B', 'tracker 1']);
});

test('another sum, and anything broken, keeps its own row', () => {
  expect(alike([view('string A', '14'), view('string B', '13')])).toHaveLength(2);
  expect(alike([view('string A', '15', 'broken'), view('string B', '15', 'broken')])).toHaveLength(
    2,
  );
});

test('roofs that begin alike are named in full', () => {
  const rows = alike([view('South roof', '0'), view('South roof, other side', '0')]);
  expect(rows[0]?.subjects).toBe('South roof, South roof, other side');
});

test('subjects of different kinds are named in full', () => {
  expect(alike([view('inverter', '1'), view('module', '1')])[0]?.subjects).toBe('inverter, module');
});
