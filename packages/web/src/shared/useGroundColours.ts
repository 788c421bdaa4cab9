import type { Lab } from '@steady-gleam/core/colour';
import { useCompute } from '../worker/useCompute';
import { useLibrary } from './library';

/** Until the model has answered: a neutral grey. */
const WAITING: Lab = [60, 0, 0];

/** What every ground looks like cleared, 45 degrees from the mirror, from the model that draws the map. */
export function useGroundColours(): (groundId: string) => Lab {
  const { own } = useLibrary();
  const key = own.filter((m) => m.material.kind !== 'carrier').map((m) => [m.material.id, m.version]);
  const { value } = useCompute(JSON.stringify(['grounds', key]), (c) => c.groundColours());
  return (groundId) => value?.[groundId] ?? WAITING;
}
