import { CoreError } from '../errors';

/** What carries colour or flake, or closes the film. Figures are common practice (no source); the product's sheet rules. */
export interface Carrier {
  readonly id: string;
  readonly name: string;
  readonly chemistry: 'solvent' | 'waterborne' | 'two-pack';
  /** Volume solids ready to spray, fraction. */
  readonly volumeSolids: number;
  /** Dry film of one nominal full coat, um. */
  readonly filmUm: number;
  /** Density ready to spray, g/ml. */
  readonly densityGPerMl: number;
  /** Flash at 20 C, minutes. */
  readonly flashMinutes: number;
}

export const CARRIERS: readonly Carrier[] = [
  {
    id: 'binder',
    name: 'Mid coat binder',
    chemistry: 'solvent',
    volumeSolids: 0.18,
    filmUm: 9,
    densityGPerMl: 0.94,
    flashMinutes: 10,
  },
  {
    id: 'intercoat',
    name: 'Intercoat clear',
    chemistry: 'solvent',
    volumeSolids: 0.22,
    filmUm: 12,
    densityGPerMl: 0.93,
    flashMinutes: 12,
  },
  {
    id: 'two-pack-clear',
    name: 'Two-pack clear',
    chemistry: 'two-pack',
    volumeSolids: 0.45,
    filmUm: 23,
    densityGPerMl: 1.0,
    flashMinutes: 12,
  },
];

/** @throws CoreError `notFound` */
export function findCarrier(id: string, carriers: readonly Carrier[] = CARRIERS): Carrier {
  const found = carriers.find((c) => c.id === id);
  if (!found) throw new CoreError('notFound', `There is no carrier called ${id}.`);
  return found;
}
