import { useEffect } from 'react';
import { useNavigation } from 'react-router';

/**
 * Writes something to the address a rest after it was last another, so that it does not follow every step of a slider. Never while
 * another page is on its way: what is written to the address would call it off, and whoever asked for that page would stay here.
 * @param value what is written; null for nothing
 * @param ms how long it rests
 */
export function useWrittenLater<T>(value: T | null, ms: number, write: (value: T) => void): void {
  const leaving = useNavigation().state !== 'idle';
  useEffect(() => {
    if (value === null || leaving) return;
    const later = setTimeout(() => write(value), ms);
    return () => clearTimeout(later);
  }, [value, ms, write, leaving]);
}
