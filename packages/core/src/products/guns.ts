/** How a gun is set up and what it lays; starting figures are common practice (no source). */
export interface Gun {
  readonly id: string;
  readonly name: string;
  readonly kind: 'HVLP' | 'conventional' | 'airbrush' | 'aerosol';
  readonly tipMm: number;
  /** At the gun, bar. */
  readonly pressureBar: number;
  /** Fan at the distance, cm. */
  readonly fanCm: number;
  readonly distanceCm: number;
  readonly speedCmS: number;
  /** With the trigger full, ml a minute. */
  readonly flowMlMin: number;
  /** Fluid needle from closed, turns. */
  readonly turns: number;
  /** Share that lands, fraction. */
  readonly transfer: number;
  /** Left in cup, strainer and gun, ml. */
  readonly lossMl: number;
}

export const GUN_KINDS: readonly Gun['kind'][] = ['HVLP', 'conventional', 'airbrush', 'aerosol'];

/** Guns of the demo shop; names are invented. */
export const STARTING_GUNS: readonly Gun[] = [
  {
    id: '47000000-0000-4000-8000-000000000001',
    name: 'Gun 1, 1.3 tip',
    kind: 'HVLP',
    tipMm: 1.3,
    pressureBar: 1.6,
    fanCm: 25,
    distanceCm: 15,
    speedCmS: 45,
    flowMlMin: 180,
    turns: 2.5,
    transfer: 0.65,
    lossMl: 40,
  },
  {
    id: '47000000-0000-4000-8000-000000000002',
    name: 'Gun 2, 1.3 tip',
    kind: 'HVLP',
    tipMm: 1.3,
    pressureBar: 1.4,
    fanCm: 25,
    distanceCm: 15,
    speedCmS: 50,
    flowMlMin: 160,
    turns: 2,
    transfer: 0.65,
    lossMl: 35,
  },
  {
    id: '47000000-0000-4000-8000-000000000003',
    name: 'Gun 3, 2.0 tip for flake',
    kind: 'HVLP',
    tipMm: 2,
    pressureBar: 1.4,
    fanCm: 15,
    distanceCm: 15,
    speedCmS: 40,
    flowMlMin: 260,
    turns: 3,
    transfer: 0.6,
    lossMl: 60,
  },
  {
    id: '47000000-0000-4000-8000-000000000004',
    name: 'Airbrush, 0.5 tip',
    kind: 'airbrush',
    tipMm: 0.5,
    pressureBar: 2,
    fanCm: 4,
    distanceCm: 12,
    speedCmS: 20,
    flowMlMin: 12,
    turns: 1,
    transfer: 0.5,
    lossMl: 5,
  },
  {
    id: '47000000-0000-4000-8000-000000000005',
    name: 'Aerosol cans',
    kind: 'aerosol',
    tipMm: 0.5,
    pressureBar: 4,
    fanCm: 14,
    distanceCm: 28,
    speedCmS: 40,
    flowMlMin: 60,
    turns: 1,
    transfer: 0.45,
    lossMl: 20,
  },
];
