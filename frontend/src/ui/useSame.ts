/** A value worked out anew at each look: the very one of before while it says the same. */
import { replaceEqualDeep } from '@tanstack/react-query';
import { useRef } from 'react';

export function useSame<T>(value: T): T {
  const kept = useRef(value);
  kept.current = replaceEqualDeep(kept.current, value) as T;
  return kept.current;
}
