import { converter } from 'culori';
import { bankIndex, nearestByScan, nearestFinishes, nearestReadings, type BankReading } from '@steady-gleam/core/bank';
import { reflectanceToLab, reflectanceToXyz, labOf } from '@steady-gleam/core/colour';
import { defaultTolerance, layersOf, STYLES } from '@steady-gleam/core/finishes';
import { START_SETTINGS, eventOf, jobState, laidOf, planJob, type SpraySettings } from '@steady-gleam/core/jobs';
import {
  computeMatchMap,
  effectCoats,
  factorsToLabs,
  ladderLabs,
  mapCounts,
  sweepStrengths,
  sweptRows,
  type TargetAngle,
} from '@steady-gleam/core/matching';
import { prepareLibrary, findGround, findMix, GROUNDS, mixCoat } from '@steady-gleam/core/materials';
import { createRandom } from '@steady-gleam/core/numeric';
import {
  createFastModel,
  createFilm,
  createOptics,
  evaluateReference,
  FIVE_ANGLES,
  prepareCoat,
  strengthenCoat,
  type SlabCache,
} from '@steady-gleam/core/optics';
import { STARTING_GUNS, STARTING_PRODUCTS } from '@steady-gleam/core/products';

/** Ratios measured within one run, so that they hold on a noisy machine; absolute times are for this run only. */
function median(values: number[]): number {
  return values.sort((a, b) => a - b)[values.length >> 1]!;
}

/** Median time of one call in ms. Functions are interleaved, so that a slow spell hits all of them alike. */
function race<K extends string>(runs: number, entries: Record<K, () => unknown>): Record<K, number> {
  const names = Object.keys(entries) as K[];
  const times = Object.fromEntries(names.map((n) => [n, [] as number[]])) as Record<K, number[]>;
  for (let i = 0; i < runs + 3; i++) {
    for (const n of names) {
      const start = performance.now();
      entries[n]();
      if (i >= 3) times[n].push(performance.now() - start);
    }
  }
  return Object.fromEntries(names.map((n) => [n, median(times[n])])) as Record<K, number>;
}

const film = createFilm(1.5);
const optics = createOptics(film, FIVE_ANGLES);
const model = createFastModel(optics);
const shop = prepareLibrary();
const ground = { albedo: shop.ground(findGround('aqua-pastel')).albedo };
const unit = prepareCoat(film, mixCoat(findMix('lagoon-pearl'), shop.library));
const others = Array.from({ length: 4 }, (_, k) => ({ ...unit, a: unit.a.map((v) => v * (1 + k / 50)) }));
const say = (text: string) => console.log(text);

const stack = others;
const perStack = race(15, {
  reference: () => evaluateReference(optics, ground, stack),
  fast: () => model.evaluate(ground, stack),
});
// A coat more on a ladder whose layer operators were built when its first row was worked out, as in a map.
const fourth = { ...unit, factor: 4 };
const built: SlabCache = new Map();
model.pile([fourth], built);
const same = race(25, {
  reference: () => evaluateReference(optics, ground, [fourth]),
  oneMore: () => model.over(ground, model.pile([fourth], built)),
});
say(
  `fast / reference, four unlike coats, five angles: 1/${(perStack.reference / perStack.fast).toFixed(0)} (${perStack.fast.toFixed(2)} ms against ${perStack.reference.toFixed(1)} ms)`,
);
say(
  `one more coat on a ladder / reference of that stack: 1/${(same.reference / same.oneMore).toFixed(0)} (wanted at most 1/20)`,
);

const mapModel = shop.model(FIVE_ANGLES);
const recipe = { coat: shop.coat(findMix('lagoon-pearl'), 1), style: STYLES.wet };
const target: TargetAngle[] = ladderLabs(mapModel, shop.ground(findGround('aqua-pastel')), recipe, [3])[0]!.map(
  (lab, g) => ({
    ...FIVE_ANGLES[g]!,
    lab,
    tolerance: defaultTolerance(FIVE_ANGLES[g]!.aspecular),
  }),
);
const counts = [...mapCounts(), 6.5];
let strength = 1;
const redraw = () => {
  strength = strength > 1.5 ? 0.8 : strength + 0.013;
  computeMatchMap(
    mapModel,
    shop.grounds(),
    { ...recipe, coat: shop.coat(findMix('lagoon-pearl'), strength) },
    counts,
    target,
  );
};
const recipeAt = (at: number) => ({ ...recipe, coat: shop.coat(findMix('lagoon-pearl'), at) });
const prepareSweep = () => {
  const walk = sweepStrengths(mapModel, shop.grounds(), recipeAt, counts);
  let step = walk.next();
  while (!step.done) step = walk.next();
  return step.value;
};
const sweep = prepareSweep();
const moved = () => {
  strength = strength > 1.5 ? 0.8 : strength + 0.013;
  sweptRows(sweep, strength, target);
};
const { alone } = race(80, { alone: redraw });
const moving = race(60, { whole: redraw, moved });
const maps = race(15, {
  map: redraw,
  oneByOne: () => {
    for (const g of shop.grounds()) for (const n of counts) ladderLabs(mapModel, g, recipe, [n]);
  },
});
say(
  `map of ${GROUNDS.length} x ${counts.length} cells at five angles: median ${alone.toFixed(0)} ms (wanted at most 40), ${(maps.oneByOne / maps.map).toFixed(1)} times faster than its cells one by one`,
);

const cells = () => {
  for (const g of shop.grounds())
    for (const n of counts) evaluateReference(mapModel.optics, g, [...g.coats, ...effectCoats(recipe, n)]);
};
const tiers = race(1, { cells, fast: redraw, moved, prepareSweep });
say(
  `the same cells by the reference tier: ${(tiers.cells / moving.moved).toFixed(0)} times a map that follows the slider (wanted at least 400), ${(tiers.cells / tiers.fast).toFixed(0)} times a whole one`,
);
say(
  `map while a slider moves / whole map: ${(moving.moved / moving.whole).toFixed(3)} (wanted at most 0.45), after a preparation of ${(tiers.prepareSweep / tiers.fast).toFixed(1)} whole maps`,
);

const mixed = (flakes: readonly string[]) =>
  shop.coat({ ...findMix('lagoon-pearl'), flakes: flakes.map((pigmentId) => ({ pigmentId, cover: 0.2 })) }, 1);
const kinds = { one: ['blue-pearl-fine'], two: ['blue-pearl-fine', 'aluminium-coarse'] };
const mapOf = (flakes: readonly string[]) => () => {
  strength = strength > 1.5 ? 0.8 : strength + 0.013;
  const coat = strengthenCoat(mixed(flakes), strength);
  computeMatchMap(mapModel, shop.grounds(), { ...recipe, coat }, counts, target);
};
const several = race(40, { one: mapOf(kinds.one), two: mapOf(kinds.two) });
say(
  `map with two kinds of flakes in a coat: ${(several.two / several.one).toFixed(2)} times one kind (wanted at most 1.6)`,
);

const spectra = Array.from({ length: 500 }, (_, k) =>
  Float64Array.from({ length: 31 }, (_v, i) => 0.5 + 0.4 * Math.sin(i / 5 + k)),
);
const toLab = converter('lab65');
const colour = race(30, {
  ours: () => spectra.forEach((s) => reflectanceToLab(s, { illuminant: 'D65', observer: '2' })),
  general: () =>
    spectra.forEach((s) => {
      const [x, y, z] = reflectanceToXyz(s, { illuminant: 'D65', observer: '2' });
      toLab({ mode: 'xyz65', x: x / 100, y: y / 100, z: z / 100 });
    }),
});
say(
  `spectra to Lab: ${(colour.general / colour.ours).toFixed(1)} times the speed of the same through a general colour library`,
);

const areas = Array.from({ length: 12 }, (_, i) => ({
  ...{ id: `a${i}`, name: `area ${i}`, x: i % 4, y: Math.floor(i / 4), areaM2: 1, first: false },
  ...{ objectId: 'it', finishId: 'main', on: null, loose: false, lengthCm: 100 },
}));
const finish = {
  ...{ id: 'main', name: 'main', mixId: 'lagoon-pearl' },
  layers: layersOf(findGround('aqua-pastel'), findMix('lagoon-pearl'), {
    ...{ groundId: 'aqua-pastel', coats: 7, strength: 1, style: 'wet', controlCoats: 0 },
  }),
};
const settings: SpraySettings = START_SETTINGS;
const planned = () =>
  planJob({
    finishes: [finish],
    objects: [{ id: 'it', name: 'it', counts: [] }],
    areas,
    library: shop.library,
    products: STARTING_PRODUCTS,
    named: {},
    gun: STARTING_GUNS[0]!,
    temperatureC: 20,
    humidity: 0.5,
    settings,
  });
const plan = planned();
const log = Array.from({ length: 2000 }, (_, i) => {
  const cell = plan.cells[i];
  const about = { id: String(i), at: i };
  return cell
    ? eventOf({ ...about, kind: 'sprayed', cells: [laidOf(cell)] })
    : eventOf({ ...about, kind: 'note', text: 'a nib' });
});
const fold = race(15, { plan: () => jobState(planned(), log), map: redraw });
say(
  `planning ${areas.length} areas x ${plan.rows.length} coats and folding ${log.length} events: ${fold.plan.toFixed(1)} ms (wanted at most 30), ${(fold.plan / fold.map).toFixed(2)} of one map`,
);

// The bank: cards of five rungs anywhere in the colours of the library, and an object near one of them.
const random = createRandom(11);
const views = FIVE_ANGLES.map((g) => ({ incidence: g.incidence, aspecular: g.aspecular }));
const bank = Array.from({ length: 50_000 }, (_, i): BankReading => {
  const base = [20 + 70 * random(), 100 * random() - 50, 100 * random() - 50];
  const angles = views.map((g, k) => ({
    ...g,
    lab: labOf(base.map((v) => v * (0.5 + 0.5 * 0.8 ** k) + random())),
  }));
  return {
    id: String(i),
    finishId: `f${Math.floor(i / 10)}`,
    cardId: `c${Math.floor(i / 5)}`,
    coats: 1 + (i % 5),
    angles,
  };
});
const index = bankIndex(bank);
const askedOf = (i: number) =>
  bank[i * 7919]!.angles.map((g) => ({ ...g, lab: [g.lab[0] + 1.5, g.lab[1] - 1, g.lab[2] + 1] as const }));
let turn = 0;
const near = race(7, {
  search: () => nearestReadings(index, askedOf(turn % 6), 20),
  finishes: () => nearestFinishes(index, askedOf(turn % 6), 20),
  scan: () => nearestByScan(bank, askedOf(turn++ % 6), 20),
});
say(
  `nearest 20 of ${bank.length} readings: ${near.search.toFixed(1)} ms, 1/${(near.scan / near.search).toFixed(0)} of the plain exact scan (wanted at most 1/10); with counts between rungs ${near.finishes.toFixed(0)} ms`,
);

const layers = factorsToLabs(model.evaluate(ground, stack)).length;
say(
  `memory after ${layers * GROUNDS.length * counts.length} colours: ${(process.memoryUsage().heapUsed / 1e6).toFixed(0)} MB of heap`,
);
