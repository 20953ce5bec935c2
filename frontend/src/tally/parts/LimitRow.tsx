/** One limit: figure, limit, margin bar; opens its working in place, under itself. */
import { useEffect, useRef } from 'react';
import type { CheckView } from '@/api/client';
import { Mark } from '@/ui/Mark';
import { Working } from './Working';

interface LimitRowProps {
  view: CheckView;
  /** In words, where several subjects share the sum. */
  subjects?: string;
  open: boolean;
  onToggle: () => void;
}

/** The four kinds in words. */
export const KIND = { stop: 'Stop', outside: 'Outside', costs: 'Costs', note: 'Note' } as const;

/** How a check looks: by verdict and kind, in words and shape as well as colour. */
export function toneOf({ check }: CheckView): 'good' | 'stop' | 'look' | 'quiet' {
  if (check.verdict === 'kept') return 'good';
  if (check.verdict === 'broken' && check.kind === 'stop') return 'stop';
  return check.kind === 'note' ? 'quiet' : 'look';
}

const TEXT = { good: '', stop: 'text-stop', look: 'text-warn', quiet: '' };
const BAR = { good: 'bg-patina', stop: 'bg-stop', look: 'bg-warn', quiet: 'bg-ink-3' };

export function LimitRow({ view, subjects, open, onToggle }: LimitRowProps) {
  const { check } = view;
  const tone = toneOf(view);
  const button = useRef<HTMLButtonElement>(null);
  // Opened from elsewhere, it is gone to.
  useEffect(() => {
    if (!open || button.current?.closest('aside')?.contains(document.activeElement)) return;
    button.current?.scrollIntoView({ block: 'nearest' });
    button.current?.focus();
  }, [open]);
  const notChecked = check.verdict === 'not-checked';
  return (
    <li className={open ? '-mx-2 rounded-sm bg-paper px-2' : ''}>
      <button
        ref={button}
        type="button"
        aria-expanded={open}
        onClick={onToggle}
        className="block min-h-6 w-full py-[3px] text-left"
      >
        <span className="flex items-baseline justify-between gap-2 text-sm">
          <span className="flex items-baseline gap-1.5">
            {tone !== 'good' && (
              <Mark shape={tone === 'stop' ? 'square' : tone === 'look' ? 'triangle' : 'ring'} />
            )}
            <span>
              {check.title} <span className="text-xs text-ink-2">{subjects ?? check.subject}</span>
            </span>
          </span>{' '}
          <span className={`font-figure text-base font-semibold whitespace-nowrap ${TEXT[tone]}`}>
            {notChecked ? 'not checked' : `${view.value_text} `}
            {!notChecked && (
              <span className="ml-1 text-xs font-medium text-ink-2">
                {check.relation === '<=' ? 'of' : 'over'} {view.limit_text}
              </span>
            )}
          </span>
        </span>
        {!notChecked && check.margin_frac !== null && <MarginBar view={view} colour={BAR[tone]} />}
        {tone !== 'good' && (
          <span className={`text-xs ${TEXT[tone] || 'text-ink-2'}`}>
            {KIND[check.kind]}: {notChecked ? 'not checked' : 'limit passed'}
          </span>
        )}
      </button>
      {open && <Working view={view} />}
    </li>
  );
}

/** Value against limit as a thin bar; the tick is the limit. */
function MarginBar({ view, colour }: { view: CheckView; colour: string }) {
  const value = view.check.value.value ?? 0;
  const limit = view.check.limit.value ?? 1;
  const whole = Math.max(value, limit) * (view.check.relation === '<=' ? 1 : 1.02) || 1;
  const share = (x: number) => `${Math.min(100, Math.max(0, (x / whole) * 100))}%`;
  return (
    <span className="relative mt-0.5 block h-1 rounded-full bg-bar" aria-hidden="true">
      <span
        className={`absolute inset-y-0 left-0 rounded-full ${colour}`}
        style={{ width: share(value) }}
      />
      <span
        className="absolute -top-[3px] h-2.5 w-0.5 -translate-x-full bg-ink"
        style={{ left: share(limit) }}
      />
    </span>
  );
}
