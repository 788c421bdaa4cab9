import { useEffect, useState } from 'react';

/** A value as it was when it last stood still for some milliseconds: for work that should not follow every step of a slider. */
export function useRested<T>(value: T, ms: number): T {
  const [rested, setRested] = useState(value);
  useEffect(() => {
    const later = setTimeout(() => setRested(() => value), ms);
    return () => clearTimeout(later);
  }, [value, ms]);
  return rested;
}
