/** One thing that is done about a fault, in the order it is done. */
export type FaultStep =
  | {
      readonly is: 'work';
      readonly kind: 'dry' | 'clean' | 'sand' | 'polish' | 'strip' | 'set';
      readonly text: string;
      readonly minutes: number;
    }
  | {
      readonly is: 'coat';
      /** `same`: what was being laid when the fault was found. */
      readonly of: 'ground' | 'effect' | 'clear' | 'same';
      readonly style: 'wet' | 'light' | 'control';
      /** `planned`: as many as the plan lays of it. */
      readonly coats: number | 'planned';
      readonly on: 'spot' | 'area';
      /** What lies below counts no more. */
      readonly anew?: boolean;
    };

/** A way out of a fault: its name, and what is done. */
export interface FaultWay {
  readonly name: string;
  readonly steps: readonly FaultStep[];
}

/** Minutes, ours: a coat that is to be sanded, one laid too heavy, one that lifted. The sheet rules. */
const [TOUCH_DRY, HARD_DRY, THROUGH] = [20, 60, 480] as const;

const work = (
  kind: Extract<FaultStep, { is: 'work' }>['kind'],
  text: string,
  minutes = 0,
): Extract<FaultStep, { is: 'work' }> => ({
  is: 'work',
  kind,
  text,
  minutes,
});
const coat = (
  of: Extract<FaultStep, { is: 'coat' }>['of'],
  style: Extract<FaultStep, { is: 'coat' }>['style'],
  on: 'spot' | 'area',
  coats: number | 'planned' = 1,
  anew = false,
): FaultStep => ({ is: 'coat', of, style, coats, on, ...(anew ? { anew } : {}) });

/** Works that several ways share. */
export const CURED = work('dry', 'Until it is cured as the sheet says.', THROUGH);
export const SAND_CLEAR = work(
  'sand',
  'The clear P800 to P1000, wet, only as far as it is mended and cleared again; tack.',
);
export const SAND_TO_BREAK = work('sand', 'P600 to P800 to the nearest break, edges by hand; tack.');
export const SAND_FOR_POLISH = work('sand', 'P1500, then P2500, wet, only until it is as flat as what lies beside it.');

const control = coat('effect', 'control', 'area');
/** Ground, effect and, where it was on, clear of the whole area anew. */
const reGround = (isCleared: boolean): FaultWay => ({
  name: 'Re-ground to a break',
  steps: [
    work('dry', 'Until it can be sanded, as the sheet says.', HARD_DRY),
    SAND_TO_BREAK,
    coat('ground', 'wet', 'area', 'planned', true),
    coat('effect', 'wet', 'area', 'planned'),
    ...(isCleared ? [coat('clear', 'wet', 'area', 'planned')] : []),
  ],
});
/** Thin ground over the place, the effect fanned out over it, a control coat over all. */
const groundThere = (first: readonly FaultStep[], isCleared: boolean): FaultWay => ({
  name: 'Back to the ground there',
  steps: [
    ...first,
    coat('ground', 'light', 'spot', 2, true),
    coat('effect', 'light', 'spot', 'planned'),
    control,
    ...(isCleared ? [coat('clear', 'wet', 'area', 'planned')] : []),
  ],
});
const polish = (text: string): FaultWay => ({
  name: 'Sand and polish',
  steps: [CURED, SAND_FOR_POLISH, work('polish', text)],
});

/** What can be done about every fault of the table, before clear and after; common practice (no source), amounts ours. */
export const FAULT_WAYS: Readonly<
  Record<string, { readonly before: readonly FaultWay[]; readonly after: readonly FaultWay[] }>
> = {
  mottling: {
    before: [
      { name: 'Control coat from twice as far', steps: [control] },
      groundThere([work('dry', 'Until it is evenly dull.', TOUCH_DRY)], false),
    ],
    after: [reGround(true)],
  },
  stripes: {
    before: [
      {
        name: 'A crossed light coat',
        steps: [
          work(
            'set',
            'Passes at right angles to the last ones, or shifted by half a pitch; three quarters of overlap.',
          ),
          coat('effect', 'light', 'area'),
        ],
      },
    ],
    after: [reGround(true)],
  },
  'dark-edges': { before: [reGround(false)], after: [reGround(true)] },
  'light-zone': {
    before: [{ name: 'A faded coat there', steps: [coat('effect', 'light', 'spot')] }],
    after: [
      {
        name: 'Sand, fade it in, clear again',
        steps: [CURED, SAND_CLEAR, coat('effect', 'light', 'spot'), coat('clear', 'wet', 'area', 'planned')],
      },
    ],
  },
  halo: {
    before: [{ name: 'Extend the upper layers past it', steps: [coat('effect', 'light', 'spot', 2)] }],
    after: [
      {
        name: 'Sand and re-blend further out',
        steps: [CURED, SAND_CLEAR, coat('effect', 'light', 'spot', 2), coat('clear', 'wet', 'area', 'planned')],
      },
    ],
  },
  bleeding: {
    before: [
      {
        name: 'Wait, then more of it',
        steps: [work('dry', 'Until it is dry, not only dull.', HARD_DRY), coat('same', 'light', 'area', 2)],
      },
    ],
    after: [],
  },
  swimming: { before: [], after: [reGround(true)] },
  'dry-spray': {
    before: [
      {
        name: 'Smooth it and dust a coat',
        steps: [work('sand', 'Tack, P1000 to P2000 by hand, tack.'), coat('same', 'light', 'area')],
      },
    ],
    after: [],
  },
  'orange-peel': {
    before: [
      {
        name: 'Set the gun for the next coat',
        steps: [work('set', 'Back away a little, a quarter turn less, or a fifth of a bar more; try it on paper.')],
      },
    ],
    after: [polish('To the peel of its neighbour, not flatter.')],
  },
  run: {
    before: [
      {
        name: 'Dry, flat, coat again',
        steps: [
          work('dry', 'Until the run is hard at its thick end.', HARD_DRY),
          work('sand', 'The run flat with a hard block, P1000, and nothing beside it.'),
          coat('same', 'light', 'spot'),
        ],
      },
    ],
    after: [polish('In tinted clear the dark spot stays: then it is the ground again.')],
  },
  fisheyes: {
    before: [
      {
        name: 'Stop, clean, thin coats',
        steps: [
          work('dry', 'Nothing more on it until it is dry to the touch.', TOUCH_DRY),
          work('clean', 'With degreaser for silicone, two clean cloths, then tack.'),
          coat('same', 'light', 'area', 2),
        ],
      },
    ],
    after: [groundThere([CURED, SAND_CLEAR, work('clean', 'With degreaser for silicone, two clean cloths.')], true)],
  },
  wrinkling: {
    before: [
      {
        name: 'Dry it through, sand, thin coats',
        steps: [
          work('dry', 'Until it is dry all through, as the sheet says.', THROUGH),
          work('sand', 'P600 until it is flat.'),
          coat('same', 'light', 'area', 2),
        ],
      },
    ],
    after: [
      {
        name: 'Dry it through, sand, clear again',
        steps: [CURED, work('sand', 'P800 until it is flat.'), coat('clear', 'light', 'area', 2)],
      },
    ],
  },
  peeling: {
    before: [
      {
        name: 'Let it stand before clear',
        steps: [work('dry', 'Bake it or wait, as the sheet says, and keep to the window.', HARD_DRY)],
      },
    ],
    after: [
      {
        name: 'Strip it, then all anew',
        steps: [
          work('strip', 'All that comes off, then to a sound edge; P400, feathered.'),
          coat('ground', 'wet', 'area', 'planned', true),
          coat('effect', 'wet', 'area', 'planned'),
          coat('clear', 'wet', 'area', 'planned'),
        ],
      },
    ],
  },
  'solvent-pop': {
    before: [
      { name: 'Longer standing before heat', steps: [work('dry', 'Twice as long as the sheet asks.', HARD_DRY)] },
    ],
    after: [
      {
        name: 'Stand longer, sand, clear again',
        steps: [CURED, work('sand', 'P800 until no pinhole is left.'), coat('clear', 'wet', 'area', 'planned')],
      },
    ],
  },
  scratches: {
    before: [
      {
        name: 'Fill with ground, sand finer',
        steps: [
          work('sand', 'P800 or finer, until the old lines are gone.'),
          coat('ground', 'wet', 'area', 'planned', true),
          coat('effect', 'wet', 'area', 'planned'),
        ],
      },
    ],
    after: [],
  },
  'repair-edge': {
    before: [
      {
        name: 'Feather it wider',
        steps: [
          work('sand', 'P800 from outside in, a hand wider all round.'),
          coat('ground', 'light', 'spot', 2, true),
          coat('effect', 'light', 'spot', 'planned'),
        ],
      },
    ],
    after: [],
  },
  splatter: {
    before: [
      groundThere(
        [
          work('set', 'Wipe the air cap dry, blow the gun off on paper until it is even.'),
          work('dry', 'Until the spot is dry to the touch.', TOUCH_DRY),
        ],
        false,
      ),
    ],
    after: [groundThere([CURED, SAND_CLEAR], true)],
  },
  nibs: {
    before: [
      {
        name: 'Nib off, tack, dust a coat',
        steps: [work('sand', 'The nibs alone, P1500 on a block; tack.'), coat('same', 'light', 'area')],
      },
    ],
    after: [polish('The nibs alone.')],
  },
  dieback: {
    before: [{ name: 'A longer flash before clear', steps: [work('dry', 'Twice what the sheet asks.', HARD_DRY)] }],
    after: [
      {
        name: 'Polish again later',
        steps: [work('dry', 'Until it sinks no more: some weeks.', 0), work('polish', 'Only when it has stopped.')],
      },
    ],
  },
  'ground-shows': {
    before: [
      {
        name: 'Another ground coat',
        steps: [
          coat('ground', 'wet', 'area', 1, true),
          work('set', 'Lights off: nothing of what lies below may show.'),
        ],
      },
    ],
    after: [reGround(true)],
  },
  blushing: {
    before: [
      {
        name: 'Warm, flash out, a slower coat',
        steps: [
          work('dry', 'Booth warm and dry, until the veil is gone.', HARD_DRY),
          work('set', 'A slower reducer in the cup.'),
          coat('same', 'light', 'area'),
        ],
      },
    ],
    after: [
      {
        name: 'Sand and clear again',
        steps: [CURED, work('sand', 'P1000 until the veil is out.'), coat('clear', 'wet', 'area', 'planned')],
      },
      polish('Where the veil lies only on the top.'),
    ],
  },
  'flakes-standing': {
    before: [
      {
        name: 'Bury them and sand flat',
        steps: [coat('clear', 'wet', 'area', 2), CURED, work('sand', 'P400 to P600 flat, never into the flakes.')],
      },
    ],
    after: [
      {
        name: 'More clear, then sand flat',
        steps: [
          work('sand', 'P600, only to give it tooth, never into the flakes.'),
          coat('clear', 'wet', 'area', 2),
          CURED,
          work('sand', 'P400 to P600 flat, never into the flakes.'),
        ],
      },
    ],
  },
};
