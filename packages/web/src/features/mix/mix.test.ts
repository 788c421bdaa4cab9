import { describe, expect, it } from '@jest/globals';
import { layersOf, type StackLayer } from '@steady-gleam/core/finishes';
import {
  prepareLibrary,
  findGround,
  findMix,
  REFERENCE_LIBRARY as library,
  type OwnMaterial,
} from '@steady-gleam/core/materials';
import {
  areaOf,
  flakeVolumes,
  pieceArea,
  quantityMl,
  hardenerInClears,
  needFor,
  poursOf,
  whyNotOneBatch,
  type MixGroup,
} from '@steady-gleam/core/mixing';
import { STARTING_GUNS, STARTING_PRODUCTS, productFor } from '@steady-gleam/core/products';
import { START_MIXING, START_PLAN } from '@steady-gleam/contracts';
import { START_AREAS, workOfJob, groupsOf } from '@steady-gleam/core/jobs';
import { metricText, shownText, unitsOf } from '../../shared/units';
import { typedBatch, START_SETTINGS, type MixSettings } from './mixModel';

const layers = (groundId: string, mixId: string, coats = 3, controlCoats = 0) =>
  layersOf(findGround(groundId), findMix(mixId), { groundId, coats, strength: 1.2, style: 'wet', controlCoats });
/** Cups of a stack on one area of three square metres. */
const cups = (stack: readonly StackLayer[], of = library) =>
  groupsOf(
    workOfJob({
      job: {
        piece: 'tub',
        mixId: stack.find((l) => l.kind === 'effect')!.materialId!,
        pick: null,
        stacks: [{ id: 'main', name: 'whole piece', layers: [...stack] }],
        objects: null,
        areas: [{ ...START_AREAS[0]!, measures: { area: 3 } }],
        mixing: null,
        plan: { ...START_PLAN, tack: false },
      },
      card: null,
      library: of,
      products: STARTING_PRODUCTS,
      guns: STARTING_GUNS,
    })!.plan,
    of,
  );
const pours = (group: MixGroup, settings: Partial<MixSettings> = {}, more: object = {}) =>
  poursOf({
    group,
    product: productFor(group, library, STARTING_PRODUCTS, START_MIXING.products),
    library,
    settings: { ...START_SETTINGS, ...settings },
    temperatureC: 21,
    areaM2: 3,
    sameHardener: null,
    added: [],
    ...more,
  });

describe('what a job is mixed from', () => {
  it('is one cup for each stuff, the control coat in the cup of its mix', () => {
    const groups = cups(layers('silver-fine', 'cinder-candy', 3, 1));
    expect(groups.map((g) => [g.name, g.productKind, g.coats])).toEqual([
      ['sealer', 'sealer', 1],
      ['Fine silver', 'ground', 2],
      ['Cinder candy', 'intercoat', 4],
      ['clear', 'clear', 2],
    ]);
    expect(groups[2]!.solidMl).toBeCloseTo(3 * 10 * (3 + 0.35), 9);
  });

  it('pours no part that nobody entered: the whole by the painter’s formula, reduced as the sheet says', () => {
    const own: OwnMaterial = {
      kind: 'system',
      id: 'own',
      name: 'Our candy',
      family: 'candy',
      carrierId: 'intercoat',
      carrierParts: null,
      colours: [{ kind: 'dye', id: 'cinder-red', parts: null, strength: 1 }],
      strengthFrom: 'typed',
      drawdown: null,
      filmUm: 10,
      flashMinutes: 12,
      pricePerLitre: 60,
    };
    const mine = prepareLibrary([own]).library;
    const stack = layersOf(findGround('gold'), findMix('own', mine.systems), {
      groundId: 'gold',
      coats: 2,
      strength: 1,
      style: 'wet',
      controlCoats: 0,
    });
    const group = cups(stack, mine).find((g) => g.materialId === 'own')!;
    expect(
      pours(
        group,
        {},
        { library: mine, product: productFor(group, mine, STARTING_PRODUCTS, START_MIXING.products) },
      ).pours.map((p) => [p.name, p.parts]),
    ).toEqual([
      ['Our candy, by your formula', 1],
      ['Breakwater reducer, medium', 0.5],
    ]);
  });

  it('pours what a nudge adds with the rest, in one where it is in the cup anyway', () => {
    const candy = cups(layers('silver-fine', 'cinder-candy'))[2]!;
    const added = [
      { name: 'cinder red', ratio: 0.05, density: 0.96 },
      { name: 'plum violet', ratio: 0.01, density: 0.97 },
    ];
    expect(
      pours(candy, {}, { added })
        .pours.slice(0, 3)
        .map((p) => [p.name, Number(p.parts.toFixed(6)), !!p.added]),
    ).toEqual([
      ['intercoat clear', 8, false],
      ['cinder red', 1.6, true],
      ['plum violet', 0.08, true],
    ]);
  });

  it('weighs dry flake in last: a litre holds the dose, and the ratio is of what it goes into', () => {
    const candy = cups(layers('silver-fine', 'cinder-candy'))[2]!;
    const before = pours(candy).pours;
    const litre = before.reduce((sum, p) => sum + p.parts, 0) / before[0]!.parts;
    const sizes = [
      { sizeUm: 100, parts: 3, thicknessUm: 12.5, density: 1.4 },
      { sizeUm: 200, parts: 2, thicknessUm: 12.5, density: 2.7 },
    ];
    const added = flakeVolumes(sizes, 88).map((v, i) => ({
      name: `flake ${i}`,
      ratio: v * litre,
      density: sizes[i]!.density,
      dry: true,
    }));
    const after = pours(candy, {}, { added }).pours;
    expect(after.slice(0, -2)).toEqual(before);
    const ml = after.reduce((sum, p) => sum + p.parts, 0);
    const grams = after.slice(-2).map((p) => p.parts * p.density!);
    expect((1000 * (grams[0]! + grams[1]!)) / ml).toBeCloseTo(88, 9);
    expect(grams[0]! / grams[1]!).toBeCloseTo(3 / 2, 9);
    expect(after.at(-1)!.vocGPerL).toBe(0);
  });

  it('pours the mix at its strength, reduced as the product’s sheet says', () => {
    const candy = cups(layers('silver-fine', 'cinder-candy'))[2]!;
    // 8 parts carrier and 1.2 of candy, two to one with reducer.
    expect(pours(candy).pours.map((p) => [p.name, Number(p.parts.toFixed(6))])).toEqual([
      ['intercoat clear', 8],
      ['cinder red', 1.2],
      ['Breakwater reducer, medium', 4.6],
    ]);
    expect(pours(candy, { ratio: '1' }).pours).toHaveLength(2);
    expect(pours(candy, { ratio: '2:nought' }).ratioFault).toContain('as on the sheet');
    const far = pours(candy, { reducer: 'Breakwater reducer, slow' }, { temperatureC: 10 });
    expect(far.warnings.join()).toContain('22 °C to 36 °C, and it is 10 °C');
  });

  it('takes what the area, film and gun say, as a range, and says what stands in the way', () => {
    const [sealer, , candy] = cups(layers('silver-fine', 'cinder-candy'));
    const need = needFor(candy!, 0.22, STARTING_GUNS[0]!, { mean: 0.65, sd: 0.15 });
    // Worked by hand: 3 m2 x 30 um / 0.22 / 0.65 + 40 ml = 669.4 ml.
    expect(need.ml).toBeCloseTo(669.4, 1);
    expect(need.ml).toBeCloseTo(
      quantityMl({ area: 3, coats: 3, dryFilm: 10, volumeSolids: 0.22, transferEfficiency: 0.65, loss: 40 }),
      9,
    );
    const product = productFor(candy!, library, STARTING_PRODUCTS, START_MIXING.products);
    const plan = (settings: Partial<MixSettings>) =>
      typedBatch(pours(candy!).pours, need, { ...START_SETTINGS, ...settings }, product, 21);
    const usual = plan({}).plan!;
    expect(usual.ml).toBe(675);
    expect(usual.parts.at(-1)!.mark).toBeCloseTo(675, 9);
    // Worked by hand: (9.2 parts at 690 + 4.6 at 870) / 13.8 = 750 g/l.
    expect(usual.voc!.actual).toBeCloseTo(750, 9);
    expect(usual.cost).toBeCloseTo((675 / 1000) * ((9.2 * 78 + 4.6 * 14) / 13.8), 6);
    expect(usual.potMinutes).toBeNull();
    expect(plan({ amount: '-3' }).faults['amount']).toContain('More than zero');
    expect(plan({ cup: '400' }).faults['cup']).toContain('675 ml do not go into 400 ml');
    expect(plan({ cup: '400' }).plan).toBeNull();
    // A sealer sets: 90 min at 20 C are 45 at 30 C.
    const two = typedBatch(
      pours(sealer!).pours,
      need,
      START_SETTINGS,
      productFor(sealer!, library, STARTING_PRODUCTS, START_MIXING.products),
      30,
    );
    expect(two.plan!.potMinutes).toBeCloseTo(45, 9);
    expect(whyNotOneBatch(5000, 2, 3, null, 10)).toContain('more than a cup');
    expect(whyNotOneBatch(500, 3, 30, 90, 12)).toContain('sets after 90 min');
    expect(whyNotOneBatch(500, 2, 3, 90, 12)).toBeNull();
  });

  it('keeps one hardener in clears that melt together', () => {
    const groups = cups(layers('gold', 'smoke-tea-clear', 2));
    const [, , tinted, clear] = groups;
    const plain = (g: MixGroup) => pours(g, {}, { temperatureC: 23 }).pours;
    const name = (g: MixGroup, mixed: Parameters<typeof hardenerInClears>[2] = []) =>
      hardenerInClears(g, groups, mixed, plain);
    expect(name(tinted!)).toBeNull();
    expect(name(clear!)).toBe('Harbour hardener, medium');
    const slow = [{ layerId: tinted!.id, parts: [{ role: 'hardener', name: 'Harbour hardener, slow' }] }];
    expect(name(clear!, slow)).toBe('Harbour hardener, slow');
    const followed = pours(clear!, {}, { sameHardener: 'Harbour hardener, slow', temperatureC: 23 });
    expect(followed.pours.find((p) => p.role === 'hardener')!.name).toBe('Harbour hardener, slow');
    const apart = pours(clear!, { hardener: 'Harbour hardener, fast' }, { sameHardener: 'Harbour hardener, slow' });
    expect(apart.warnings.join()).toContain('want the same hardener');
  });

  it('adds pieces up, and one that is not measured counts nothing', () => {
    const [piece] = START_AREAS;
    expect(areaOf([piece!, { ...piece!, shape: 'panel', measures: { width: 2, height: 0.5 }, count: 3 }])).toBe(5);
    expect(pieceArea({ ...piece!, shape: 'tub', measures: { top: 1 } })).toBeNull();
  });
});

describe('units at the edge', () => {
  it('show metric texts in ounces and mils and take them back; what is no number stays', () => {
    expect(shownText('film', '25.4', 'us')).toBe('1');
    expect(shownText('distance', '15', 'us')).toBe('5.91');
    expect(shownText('volume', '36000', 'us')).toBe('1217');
    expect(shownText('film', 'thick', 'us')).toBe('thick');
    expect(metricText('film', '1,5', 'us')).toBe('38.1');
    expect(metricText('film', 'thick', 'us')).toBe('thick');
    expect(metricText('film', '1,5', 'metric')).toBe('1,5');
    expect(unitsOf('us').sentence('At most 2 bar, or 25.4 µm at 10 °C.')).toBe('At most 29 psi, or 1.00 mil at 50 °F.');
    expect(unitsOf('metric').sentence('At most 2 bar.')).toBe('At most 2 bar.');
  });
});
