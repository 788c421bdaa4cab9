import type { OwnMaterial } from '@steady-gleam/core/materials';

type Told = (materials: readonly OwnMaterial[]) => void;

let latest: readonly OwnMaterial[] | null = null;
const listening = new Set<Told>();

/** The shop's own materials for all workers: those that run are told at once, those to come when they begin. */
export function tellMaterials(materials: readonly OwnMaterial[]): void {
  latest = materials;
  for (const tell of listening) tell(materials);
}

/** A worker began. It answers in order: whatever it is asked after this knows the materials. */
export function onMaterials(tell: Told): void {
  listening.add(tell);
  if (latest) tell(latest);
}
