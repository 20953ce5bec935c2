import { expect, test } from 'vitest';
import type { CheckView } from '@/api/client';
import { alike } from './alike';

function view(subject: string, numbers: string, verdict = 'kept', fixes: string[] = []): CheckView {
  return {
    key: subject + numbers,
    check: { rule_id: 'strings.cold-voltage', subject, verdict, fixes },
    lines: { numbers },
    limit_text: '600 V',
  } as unknown as CheckView;
}

test('the same sum on two strings is one row', () => {
  const rows = alike([view('string A', '14'), view('tracker 1', '9'), view('string B', '14')]);
  expect(rows.map((r) => r.subjects)).toEqual(['string A, B', 'tracker 1']);
});

test('another sum, and anything with a way out of its own, keeps its own row', () => {
  expect(alike([view('string A', '14'), view('string B', '13')])).toHaveLength(2);
  const broken = (subject: string, fixes: string[]) => view(subject, '15', 'broken', fixes);
  expect(alike([broken('string A', ['x']), broken('string B', ['x'])])).toHaveLength(2);
  expect(alike([broken('string A', []), broken('string B', [])])).toHaveLength(1);
});

test('roofs that begin alike are named in full', () => {
  const rows = alike([view('South roof', '0'), view('South roof, other side', '0')]);
  expect(rows[0]?.subjects).toBe('South roof, South roof, other side');
});

test('subjects of different kinds are named in full', () => {
  expect(alike([view('inverter', '1'), view('module', '1')])[0]?.subjects).toBe('inverter, module');
});
