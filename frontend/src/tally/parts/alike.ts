/** Checks with the very same sum share a row: “Cold Voc, string A, B”. */
import type { CheckView } from '@/api/client';

export interface AlikeRow {
  view: CheckView;
  subjects: string;
  /** Of all the checks that share it. */
  keys: string[];
}

/** Rows in the order of their first check; each keeps the working of that one. */
export function alike(checks: readonly CheckView[]): AlikeRow[] {
  const rows = new Map<string, { view: CheckView; subjects: string[]; keys: string[] }>();
  for (const view of checks) {
    const { check, lines, limit_text } = view;
    // A fix may belong to one subject alone, so what has one keeps its own row.
    const own = check.verdict === 'kept' || check.fixes.length === 0 ? '' : check.subject;
    const key = [check.rule_id, check.verdict, lines.numbers, limit_text, own].join('|');
    const row = rows.get(key);
    if (row) {
      row.subjects.push(check.subject);
      row.keys.push(view.key);
    } else rows.set(key, { view, subjects: [check.subject], keys: [view.key] });
  }
  return [...rows.values()].map((row) => ({ ...row, subjects: joined(row.subjects) }));
}

/** `string A`, `string B` becomes `string A, B`; names of roofs are never cut. */
function joined(subjects: string[]): string {
  const [first = '', ...rest] = subjects;
  const kind = /^(string|tracker) /.exec(first)?.[0] ?? '';
  return [first, ...rest.map((s) => (kind && s.startsWith(kind) ? s.slice(kind.length) : s))].join(
    ', ',
  );
}
