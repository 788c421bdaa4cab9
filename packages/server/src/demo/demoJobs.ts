import type { Mixing, Area, JobObjectRow, SprayPlan } from '@steady-gleam/contracts';
import type { DemoTruth } from '@steady-gleam/core/demo';
import { type FinishFamily, type Recipe, type PieceStack, layersOf } from '@steady-gleam/core/finishes';
import { findGround, findMix } from '@steady-gleam/core/materials';

/** One demo job: invented piece, truth its readings are made from, and how far it has come. */
interface DemoJob {
  readonly key: number;
  readonly piece: string;
  readonly matching: string;
  readonly family: FinishFamily;
  readonly truth: DemoTruth;
  /** Coats on the finish to be matched; null when it has not been read. */
  readonly targetCoats: number | null;
  /** Lamp angles the target was read under; 45 degrees alone when left out. */
  readonly lamps?: readonly number[];
  /** Wanted cover of a metal flake, its sizes and how it is buried. */
  readonly flake?: Mixing['flake'];
  /** Coats the target was sprayed with by the first maker's hand. */
  readonly targetHand?: DemoTruth['hand'];
  readonly pick?: Recipe;
  readonly rungs?: readonly number[];
  readonly rungsRead?: number;
  readonly gun?: string;
  /** It was sprayed to the end and finished. */
  readonly finished?: boolean;
  readonly areas: readonly Area[];
  readonly objects?: readonly JobObjectRow[];
  /** Objects read by themselves, by the coats of the card their finish looks like. */
  readonly objectTargets?: Readonly<Record<string, number>>;
  readonly stacks?: readonly PieceStack[];
  readonly plan?: Partial<SprayPlan>;
}

const demoArea = (
  id: string,
  name: string,
  shape: Area['shape'],
  measures: Area['measures'],
  more: Partial<Area> = {},
): Area => ({
  id,
  name,
  shape,
  measures,
  count: 1,
  x: null,
  y: null,
  mounting: 'object',
  clear: 'cleared',
  first: false,
  objectId: 'object-1',
  finishId: null,
  on: null,
  ...more,
});

/** A blend of a layer that starts at the door's edge. */
const blendTo = (areaId: string, layerId: string, endCm: number, fadeCm: number) => ({
  areaId,
  layerId,
  coats: null,
  reach: { kind: 'blend' as const, endCm, fadeCm, stepCm: layerId === 'effect' ? 12 : 3, from: 'the door’s edge' },
});

/** One tone of a piece; its layers have ids of their own. */
const stackOf = (id: string, name: string, mixId: string, groundId: string, coats: number): PieceStack => ({
  id,
  name,
  layers: layersOf(findGround(groundId), findMix(mixId), {
    groundId,
    coats,
    strength: 1,
    style: 'wet',
    controlCoats: 0,
  }).map((l) => (id === 'main' ? l : { ...l, id: `${id}-${l.id}` })),
});

/** Lantern Pier, an invented fairground restoration workshop. */
export const DEMO_JOBS: readonly DemoJob[] = [
  {
    key: 1,
    areas: [demoArea('cloth', 'Saddle cloth', 'area', { area: 0.42 }, { x: 2, y: 1.5, mounting: 'stand' })],
    piece: 'Carousel horse, saddle cloth',
    matching: 'the old cloth under the saddle flap',
    family: 'candy',
    truth: {
      groundId: 'gold',
      mixId: 'cinder-candy',
      strength: 1,
      style: 'light',
      hand: { film: 1, flake: 1, spread: 1 },
      edgeScale: 1,
    },
    targetCoats: null,
  },
  {
    key: 2,
    areas: [
      demoArea(
        'boards',
        'Fascia board',
        'panel',
        { width: 2.4, height: 0.45 },
        { count: 3, x: 2, y: 1.5, mounting: 'stand' },
      ),
    ],
    piece: 'Ticket-booth fascia',
    matching: 'the left-hand board, 1st bay',
    family: 'tinted-clear',
    truth: {
      groundId: 'gold',
      mixId: 'smoke-tea-clear',
      strength: 0.8,
      style: 'wet',
      hand: { film: 1.24, flake: 1, spread: 1.1 },
      edgeScale: 1.3,
    },
    targetCoats: 1.5,
    targetHand: { film: 0.95, flake: 1, spread: 1 },
    pick: { groundId: 'gold', coats: 1.5, strength: 0.8, style: 'wet', controlCoats: 0 },
    rungs: [1, 1.5, 2],
    rungsRead: 3,
    gun: 'Gun 1, 1.3 tip',
    finished: true,
  },
  {
    key: 3,
    areas: [
      demoArea('d11', 'Door 11', 'panel', { width: 0.7, height: 1.1 }, { x: 1.2, y: 1, mounting: 'stand' }),
      demoArea('d12', 'Door 12', 'panel', { width: 0.7, height: 1.1 }, { x: 2.8, y: 1, mounting: 'stand' }),
    ],
    piece: 'Gondola doors 11 and 12',
    matching: 'door 10, hinge side',
    family: 'pearl',
    truth: {
      groundId: 'aqua-pastel',
      mixId: 'moonmilk-pearl',
      strength: 1.2,
      style: 'wet',
      hand: { film: 1.1, flake: 1, spread: 0.92 },
      edgeScale: 1.2,
    },
    targetCoats: 3,
  },
  {
    key: 4,
    areas: [
      demoArea('tub', 'Tub, outside', 'tub', { top: 1.7, bottom: 1.3, height: 0.75 }, { x: 2.2, y: 2 }),
      demoArea('back', 'Backrest', 'panel', { width: 1.5, height: 0.6 }, { x: 4, y: 2, mounting: 'stand' }),
      demoArea('rail', 'Grab rail', 'tube', { diameter: 0.04, length: 3.2 }, { x: 4, y: 0.8, mounting: 'stand' }),
      demoArea('door', 'Tub door, edges', 'area', { area: 0.25 }, { x: 3.1, y: 3.2, first: true }),
    ],
    piece: 'Waltzer tub 3',
    matching: 'tub 5, backrest',
    family: 'candy',
    truth: {
      groundId: 'silver-fine',
      mixId: 'cinder-candy',
      strength: 1,
      style: 'wet',
      hand: { film: 1.12, flake: 1, spread: 1.08 },
      edgeScale: 1.15,
    },
    targetCoats: 3,
    targetHand: { film: 0.92, flake: 1, spread: 1.04 },
    pick: { groundId: 'silver-fine', coats: 3, strength: 1, style: 'wet', controlCoats: 0 },
  },
  {
    key: 5,
    areas: [
      demoArea('shell', 'Shell, outside', 'area', { area: 3.1 }, { x: 2, y: 2 }),
      demoArea('nose', 'Nose lid', 'panel', { width: 0.8, height: 0.7 }, { x: 4, y: 2, mounting: 'stand' }),
      demoArea('edges', 'Seat well edges', 'area', { area: 0.3 }, { x: 2, y: 2, first: true }),
    ],
    piece: 'Dodgem shell 7',
    matching: 'shell 4, left side',
    family: 'pearl',
    truth: {
      groundId: 'aqua-pastel',
      mixId: 'lagoon-pearl',
      strength: 1,
      style: 'wet',
      hand: { film: 1.18, flake: 0.95, spread: 0.93 },
      edgeScale: 1.2,
    },
    targetCoats: 3,
    targetHand: { film: 1.02, flake: 1, spread: 0.97 },
    pick: { groundId: 'aqua-pastel', coats: 3, strength: 1, style: 'wet', controlCoats: 0 },
    rungs: [1, 2, 3, 4],
    rungsRead: 2,
    gun: 'Gun 2, 1.3 tip',
  },
  {
    key: 6,
    objects: [
      { id: 'coach-1', name: 'Coach 1', counts: [{ finishId: 'main', coats: 3, lookAfter: 2 }] },
      { id: 'coach-2', name: 'Coach 2', counts: [{ finishId: 'main', coats: 4, lookAfter: 3 }] },
    ],
    areas: [
      demoArea('side-1', 'Side 1', 'panel', { width: 1.9, height: 1.1 }, { objectId: 'coach-1', x: 1.6, y: 1.2 }),
      demoArea('side-2', 'Side 2', 'panel', { width: 1.9, height: 1.1 }, { objectId: 'coach-2', x: 3.9, y: 1.2 }),
      demoArea(
        'cap-2',
        'Lamp caps 2',
        'dome',
        { diameter: 0.24, height: 0.08 },
        { objectId: 'coach-2', count: 2, x: 4.6, y: 2.8, mounting: 'stand' },
      ),
    ],
    piece: 'Scenic coaches 1 and 2',
    matching: 'their old sides, each its own',
    family: 'pearl',
    truth: {
      groundId: 'white',
      mixId: 'moonmilk-pearl',
      strength: 1,
      style: 'wet',
      hand: { film: 1.04, flake: 1, spread: 0.97 },
      edgeScale: 1.1,
    },
    targetCoats: 3,
    objectTargets: { 'coach-1': 3, 'coach-2': 4 },
    pick: { groundId: 'white', coats: 3, strength: 1, style: 'wet', controlCoats: 0 },
    rungs: [1, 2, 3, 4],
    rungsRead: 4,
    gun: 'Gun 1, 1.3 tip',
  },
  {
    key: 7,
    areas: [
      demoArea('door', 'Door', 'panel', { width: 0.7, height: 1.1 }, { x: 1.4, y: 1.4 }),
      demoArea('wing', 'Wing', 'panel', { width: 1.2, height: 0.9 }, { x: 2.6, y: 1.4 }),
    ],
    piece: 'Gondola 3, door and wing',
    matching: 'the wing itself',
    family: 'pearl',
    truth: {
      groundId: 'aqua-pastel',
      mixId: 'lagoon-pearl',
      strength: 1,
      style: 'wet',
      hand: { film: 1.06, flake: 1, spread: 0.95 },
      edgeScale: 1.2,
    },
    targetCoats: 3,
    pick: { groundId: 'aqua-pastel', coats: 3, strength: 1, style: 'wet', controlCoats: 0 },
    rungs: [2, 3, 4],
    rungsRead: 3,
    gun: 'Gun 2, 1.3 tip',
    plan: {
      cells: [
        { areaId: 'door', layerId: 'sealer', coats: 1, reach: { kind: 'spot', m2: 0.2 } },
        { areaId: 'wing', layerId: 'sealer', coats: 0, reach: { kind: 'none' } },
        blendTo('wing', 'ground', 24, 9),
        blendTo('wing', 'effect', 57, 18),
      ],
    },
  },
  {
    key: 8,
    areas: [
      demoArea('tub', 'Tub, outside', 'tub', { top: 1.5, bottom: 1.2, height: 0.7 }, { x: 2.2, y: 2 }),
      demoArea('lines', 'Lining stripe', 'area', { area: 0.4 }, { x: 2.2, y: 2, finishId: 'lining', on: 'tub' }),
    ],
    piece: 'Waltzer tub 8, lined',
    matching: 'tub 2 and its lining',
    family: 'pearl',
    truth: {
      groundId: 'white',
      mixId: 'moonmilk-pearl',
      strength: 1,
      style: 'wet',
      hand: { film: 1, flake: 1, spread: 1 },
      edgeScale: 1.1,
    },
    targetCoats: 3,
    pick: { groundId: 'white', coats: 3, strength: 1, style: 'wet', controlCoats: 0 },
    stacks: [
      stackOf('main', 'body', 'moonmilk-pearl', 'white', 3),
      stackOf('lining', 'lining', 'cinder-candy', 'gold', 2),
    ],
  },
  {
    // To be found: laid full over the gold once, the bells were half covered; three coats are a coat too many.
    key: 9,
    areas: [
      demoArea(
        'bells',
        'Bells',
        'dome',
        { diameter: 0.16, height: 0.1 },
        { count: 12, x: 2, y: 1.4, mounting: 'stand' },
      ),
      demoArea('yoke', 'Bell yoke', 'tube', { diameter: 0.05, length: 1.4 }, { x: 3.2, y: 1.4, mounting: 'stand' }),
    ],
    piece: 'Saddle bells, second row',
    matching: 'the bells of the first row, gold half over silver',
    family: 'metal-flake',
    truth: {
      groundId: 'silver-fine',
      mixId: 'saddle-bell-flake',
      strength: 1,
      style: 'wet',
      hand: { film: 1.1, flake: 1, spread: 1.05 },
      edgeScale: 1,
    },
    targetCoats: 2,
    targetHand: { film: 1, flake: 1, spread: 1 },
    pick: { groundId: 'silver-fine', coats: 2, strength: 1, style: 'wet', controlCoats: 0 },
    gun: 'Gun 3, 2.0 tip for flake',
    flake: {
      pigmentId: 'gold-flake-200',
      parts: [
        { sizeUm: 200, parts: 3 },
        { sizeUm: 100, parts: 1.6 },
      ],
      ...{ cover: 0.45, filmUm: 28, sandUm: 30, keepUm: 40, buryCoats: 4 },
    },
  },
  {
    // To be found: a second control coat brightens the face, a third would not be told.
    key: 10,
    areas: [demoArea('face', 'Moon face', 'dome', { diameter: 1.2, height: 0.35 }, { x: 2, y: 2 })],
    piece: 'Moon face over the gate',
    matching: 'the old face, left cheek',
    family: 'colour-shift',
    truth: {
      groundId: 'black',
      mixId: 'moon-face-shift',
      strength: 1,
      style: 'medium',
      hand: { film: 0.92, flake: 1, spread: 0.95 },
      edgeScale: 1.1,
    },
    targetCoats: 3,
    targetHand: { film: 1, flake: 1, spread: 1 },
    lamps: [25, 45, 65],
    pick: { groundId: 'black', coats: 1, strength: 1, style: 'medium', controlCoats: 2 },
    rungs: [2, 3, 4],
    rungsRead: 2,
    gun: 'Gun 1, 1.3 tip',
  },
  {
    // To be found: over the red as it was, not over white; the pearl turns the flop bluer with every coat.
    key: 11,
    areas: [
      demoArea('panel', 'Rounding board', 'panel', { width: 1.8, height: 0.6 }, { count: 2, x: 2, y: 1.5 }),
      demoArea('scroll', 'Scrolls', 'area', { area: 0.4 }, { x: 3.4, y: 1.5, mounting: 'stand' }),
    ],
    piece: 'Carousel rounding boards, rose',
    matching: 'the board over the organ',
    family: 'tri-coat',
    truth: {
      groundId: 'ticket-red',
      mixId: 'carousel-rose',
      strength: 1,
      style: 'medium',
      hand: { film: 1.12, flake: 0.97, spread: 0.96 },
      edgeScale: 1.1,
    },
    targetCoats: 2,
    targetHand: { film: 1, flake: 1, spread: 1 },
    pick: { groundId: 'ticket-red', coats: 2, strength: 1, style: 'medium', controlCoats: 0 },
    rungs: [1, 2, 3],
    rungsRead: 3,
    gun: 'Gun 2, 1.3 tip',
  },
  {
    // To be found: sprayed over white it comes out too clean; the old rail lies over a pale grey.
    key: 12,
    areas: [
      demoArea('rail', 'Ice-cart rail', 'tube', { diameter: 0.06, length: 4.2 }, { x: 1.6, y: 1.4, mounting: 'stand' }),
      demoArea('lid', 'Cart lid', 'panel', { width: 1.1, height: 0.7 }, { x: 2.8, y: 1.4, mounting: 'stand' }),
    ],
    piece: 'Ice-cart lid and rail',
    matching: 'the cart’s side, under the handle',
    family: 'weak-hiding',
    truth: {
      groundId: 'grey-84',
      mixId: 'lemon-ice',
      strength: 1,
      style: 'wet',
      hand: { film: 1.05, flake: 1, spread: 1 },
      edgeScale: 1,
    },
    targetCoats: 3,
    targetHand: { film: 1, flake: 1, spread: 1 },
  },
];
