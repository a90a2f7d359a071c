import { useEffect, useState } from 'react';

/** A value once it has rested: what is typed or dragged is not asked about letter by letter. */
export function useSettled<T>(value: T, restMs = 400): T {
  const [settled, setSettled] = useState(value);
  useEffect(() => {
    const timer = setTimeout(() => setSettled(value), restMs);
    return () => clearTimeout(timer);
  }, [value, restMs]);
  return settled;
}
