/** A value once it has rested for a moment: what is asked of the server while somebody types. */
import { useEffect, useState } from 'react';

const RESTS_MS = 180;

export function useRested<T>(value: T, restsMs = RESTS_MS): T {
  const [rested, setRested] = useState(value);
  useEffect(() => {
    const timer = setTimeout(() => setRested(value), restsMs);
    return () => clearTimeout(timer);
  }, [value, restsMs]);
  return rested;
}
