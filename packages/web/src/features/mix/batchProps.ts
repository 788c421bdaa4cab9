import type { Batch, Mixing } from '@steady-gleam/contracts';
import type { Need, BatchPlan, MixGroup, Pours } from '@steady-gleam/core/mixing';
import type { Product } from '@steady-gleam/core/products';
import type { ReactNode } from 'react';
import type { MixSettings } from './mixModel';

/** What is typed beside a batch before it is mixed. */
export interface BatchNotes {
  /** By layer and part. */
  readonly lots: Readonly<Record<string, string>>;
  readonly note: string;
  readonly onCard: boolean;
}

export interface BatchPanelProps {
  readonly jobId: string;
  /** Of a try-out: its scale is simulated. */
  readonly simulated: boolean;
  readonly group: MixGroup;
  readonly work: {
    readonly product: Product | null;
    readonly pours: Pours;
    readonly need: Need;
    readonly plan: BatchPlan | null;
    readonly faults: Readonly<Record<string, string>>;
  };
  readonly settings: MixSettings;
  readonly onSettings: (more: Partial<MixSettings>) => void;
  readonly mixing: Mixing;
  readonly onMixing: (more: (now: Mixing) => Partial<Mixing>) => void;
  readonly shelf: readonly Product[];
  /** How much of the spray lands, as a sentence without its stop. */
  readonly lands: string;
  /** What the card says this hand lays of a nominal coat of this mix; null when it says nothing of it. */
  readonly hand: string | null;
  /** Cups of this layer that were mixed for the job, newest first. */
  readonly mixed: readonly Batch[];
  /** Takes out what a nudge or a flake dose put in. */
  readonly onDropNudge: () => void;
  readonly notes: BatchNotes;
  readonly onNotes: (more: Partial<BatchNotes>) => void;
  readonly tabs: ReactNode;
  readonly weatherFields: ReactNode;
  /** It is in the cup. */
  readonly onMixed: () => void;
  readonly keeping: boolean;
  readonly keepFault: string | null;
  readonly failure: string | null;
}
