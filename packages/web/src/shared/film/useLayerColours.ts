import type { ToldColours } from '@steady-gleam/contracts';
import type { Lab } from '@steady-gleam/core/colour';
import type { StackLayer } from '@steady-gleam/core/finishes';
import { looksKey } from '@steady-gleam/core/looks';
import { useCompute } from '../../worker/useCompute';

/** The look after each layer; worked out here where the server has not told it. @param told of the job's stacks */
export function useLayerColours(layers: readonly StackLayer[], told: ToldColours = []): readonly Lab[] | null {
  const key = looksKey(layers);
  const known = told.find((t) => t.of === key);
  const { value } = useCompute(known ? null : `layers ${key}`, (c) => c.layerColours(layers));
  return known?.labs ?? value;
}
