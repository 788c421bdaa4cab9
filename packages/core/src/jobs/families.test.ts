import { describe, expect, it } from '@jest/globals';
import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { FAMILIES, FAMILY_IDS, type FinishFamily } from '../finishes/families';
import { layersOf, recipeOf, withRecipe } from '../finishes/layers';
import { countOf, thenLaid, withCount, type Recipe } from '../finishes/recipe';
import { STYLES } from '../finishes/styles';
import { answerCard } from '../letdown/answer';
import { adviseFirst, nominalTable } from '../letdown';
import { noiseOf } from '../letdown/readings';
import { viewsOf } from '../letdown/eyeWords';
import { layerLooks } from '../looks/layerLooks';
import { ladderLabs } from '../matching/ladder';
import { bestCell, computeMapRows, mapCounts } from '../matching/matchMap';
import { createSearch } from '../matching/search';
import { coverAfter } from '../mixing/coverCount';
import { D65_10 } from '../colour/tristimulus';
import { findGround } from '../materials/grounds';
import { prepareLibrary } from '../materials/shop';
import { productKindOf } from '../products/productOf';
import { STARTING_GUNS } from '../products/guns';
import { STARTING_PRODUCTS } from '../products/products';
import { FIVE_ANGLES } from '../optics/geometry';
import { eventOf, type JobEvent } from './events';
import { groupsOf } from './amounts';
import { jobState } from './state';
import { laidOf } from './whatIsOn';
import { doneOf, workOfCard, workOfJob, type CardRow, type JobRow } from './work';
import { START_SETTINGS } from './job';
import { sayCheckOf } from './say';

const shop = prepareLibrary();
const { library } = shop;

/** Where a job of a family stands before anything was picked. */
const startOf = (family: FinishFamily): Recipe => {
  const { coats, ...start } = FAMILIES[family].start;
  return withCount(family, { ...start, coats, strength: 1, controlCoats: 0 }, coats);
};
const jobOf = (mixId: string, pick: Recipe): JobRow => ({
  ...{ piece: 'Tub', mixId, pick, stacks: null, objects: null, areas: null, mixing: null },
  plan: START_SETTINGS,
});

describe.each(FAMILY_IDS)('every row walks the whole way: %s', (family) => {
  const row = FAMILIES[family];
  const mix = library.systems.find((s) => s.family === family)!;
  const pick = startOf(family);
  const count = countOf(family, pick);
  const ground = shop.ground(findGround(pick.groundId));
  const recipe = { coat: shop.coat(mix, 1), style: STYLES[pick.style], then: thenLaid(family) };
  const model = shop.model(FIVE_ANGLES);
  const labs = ladderLabs(model, ground, recipe, [count])[0]!;
  const target = FIVE_ANGLES.map((g, k) => ({ ...g, lab: labs[k]!, tolerance: row.limits[g.aspecular]! }));

  it('begins: a mix of its own, a ground that is there, limits at every angle, words to say', () => {
    expect(mix).toBeDefined();
    expect(row.rungs.length).toBeGreaterThanOrEqual(2);
    for (const t of target) expect(t.tolerance).toBeGreaterThan(0);
    for (const said of [row.name, row.what, row.matched, row.keeps, row.prep, row.gun.led])
      expect(said.length).toBeGreaterThan(8);
    expect(row.byEye.less).not.toBe(row.byEye.more);
    expect(viewsOf(family).includes('low light')).toBe(row.lowLight);
  });

  it('layers: what is picked is what they say, and another count goes into them', () => {
    const layers = layersOf(findGround(pick.groundId), mix, pick);
    expect(new Set(layers.map((l) => l.id)).size).toBe(layers.length);
    expect(recipeOf(layers, mix.id)).toEqual(pick);
    const more = withCount(family, pick, count + 1);
    expect(recipeOf(withRecipe(layers, mix.id, more), mix.id)).toEqual(more);
    // The look of the layers is that of the map's place: one model.
    const seen = layerLooks(shop, model, layers).at(-1)!;
    seen.forEach((lab, g) => lab.forEach((v, k) => expect(v).toBeCloseTo(labs[g]![k]!, 6)));
    expect(
      productKindOf(
        layers.find((l) => l.kind === 'effect')!,
        library,
      ),
    ).toBe(row.productKind);
  });

  it('map and recipes: the place it was made with is found again', () => {
    const rows = computeMapRows(model, [ground, ...shop.grounds().slice(0, 3)], recipe, mapCounts(), target);
    const best = bestCell(rows[0]!);
    expect(best.coats).toBe(count);
    expect(best.score.toleranceRatio).toBeLessThan(0.05);
    const search = createSearch({
      model,
      grounds: [ground],
      coat: recipe.coat,
      style: recipe.style,
      then: recipe.then,
      target,
    });
    const found = search(ground).reduce((a, b) => (b.rmsDe < a.rmsDe ? b : a));
    expect(found.rmsDe).toBeLessThan(0.4);
    if (row.controlAfter !== null) expect(countOf(family, found)).toBeGreaterThan(found.coats - 1e-9);
  });

  it('let-down: its first rungs, read, come to the count; and by eye too', () => {
    const believed = { film: { mean: 0, sd: 0.12 }, variations: {} };
    const rungs = row.rungs.map((coats) => ({ coats, labs: ladderLabs(model, ground, recipe, [coats])[0]! }));
    const of = { model, ground, recipe, viewing: D65_10 };
    const noise = noiseOf(
      null,
      labs.map((l) => l[0]),
    );
    const ask = { bare: null, verdicts: [], handHeld: false, believed };
    const table = nominalTable(of, believed);
    const read = answerCard(
      of,
      { ...ask, target: { angles: target, spots: 3, sameInstrument: true, noise }, rungs },
      table,
    )!;
    expect(Math.abs(read.card.best - count)).toBeLessThan(0.3);
    expect(adviseFirst(read.card).spray).toBeLessThanOrEqual(count + 0.25);
    const verdicts = [
      { coats: Math.max(0.5, count - 1.5), view: 'shade' as const, verdict: 'much lighter' as const },
      { coats: count, view: 'shade' as const, verdict: 'match' as const },
      { coats: count + 2, view: 'shade' as const, verdict: 'much darker' as const },
    ];
    const cover = row.byEye.of === 'cover' ? { cover: -Math.log(1 - coverAfter(mix, 1, 1)) } : {};
    const eye = answerCard(of, { ...ask, ...cover, target: null, rungs: [], verdicts }, table)!;
    // Where coats hardly move a finish from the shade the words say little of the count, and say so; else they find it.
    const { best, interval } = eye.eye!;
    expect(interval[0]).toBeLessThanOrEqual(count);
    expect(interval[1]).toBeGreaterThanOrEqual(count);
    if (interval[1] - interval[0] < 2.5) expect(Math.abs(best - count)).toBeLessThan(0.5);
    else expect(family).toBe('colour-shift');
    expect(eye.card.best).toBe(best);
  });

  const job = jobOf(mix.id, pick);
  const work = workOfJob({ job, card: null, library, products: STARTING_PRODUCTS, guns: STARTING_GUNS })!;

  it('plan and cups: the count is in its cells, every layer has a cup', () => {
    const counted = work.plan.layers.filter((l) => l.counted).map((l) => l.id);
    const laid = work.plan.cells.filter((c) => counted.includes(c.layerId)).reduce((sum, c) => sum + c.coats, 0);
    expect(laid).toBeCloseTo(count, 9);
    expect(groupsOf(work.plan, library).length).toBeGreaterThanOrEqual(3);
    const settings = { distanceCm: 15, tipMm: null, overlap: null, turns: null };
    const card: CardRow = { gun: 'Gun', pressureBar: 1.4, settings, rungs: row.rungs };
    const run = workOfCard({
      ...{ job, library, products: STARTING_PRODUCTS, guns: STARTING_GUNS },
      card,
    })!;
    for (const n of row.rungs) {
      const cells = run.plan.cells.filter((c) => c.areaId === `rung-${n}` && counted.includes(c.layerId));
      expect(cells.reduce((sum, c) => sum + c.coats, 0)).toBeCloseTo(n, 9);
    }
    const effect = work.plan.cells.find((c) => c.coat.kind === 'effect' && c.coat.style !== 'control')!.coat;
    expect(effect.led).toBe(row.gun.led);
    if (row.controlAfter !== null) {
      const control = work.plan.cells.find((c) => c.coat.style === 'control')!.coat;
      expect(control.distanceCm).toBe(2 * effect.distanceCm);
    }
    const prep = work.plan.checks.find((c) => c.kind === 'prep')!;
    expect(sayCheckOf(work.plan, prep).text).toContain(row.prep);
  });

  it('booth, look and finish: sprayed step by step, looked at before the last coat, finished with its count', () => {
    const events: JobEvent[] = [];
    const seen: string[] = [];
    for (let i = 0; i < 200; i++) {
      const { next } = jobState(work.plan, events);
      if (!next) break;
      const about = { id: `e${i}`, at: i * 1_800_000 };
      if (next.is === 'cell') events.push(eventOf({ ...about, kind: 'sprayed', cells: [laidOf(next.state.cell)] }));
      else {
        seen.push(next.state.check.kind);
        events.push(eventOf({ ...about, kind: 'check', checkId: next.state.check.id }));
      }
    }
    const state = jobState(work.plan, events);
    expect(state.next).toBeNull();
    expect(seen).toContain('look');
    expect(seen.includes('flat')).toBe(row.layers.some((l) => l.kind === 'lock'));
    const done = doneOf(work.plan, state, mix.id, '2026-01-01T00:00:00.000Z');
    expect(done.counts).toEqual([{ objectId: 'object-1', name: 'Tub', coats: count }]);
  });
});

describe('the table of families', () => {
  it('is the only file that names one, but for demo and tests', () => {
    const root = join(import.meta.dirname, '../../../..');
    const files = execFileSync('git', ['ls-files', 'packages'], { cwd: root, encoding: 'utf8' })
      .split('\n')
      .filter((f) => /\.tsx?$/.test(f) && !/\.(test|spec)\.tsx?$|\/testdata\/|[dD]emo|finishes\/families\.ts$/.test(f));
    expect(files.length).toBeGreaterThan(200);
    const named = new RegExp(`['"\`](${FAMILY_IDS.join('|')})['"\`]`);
    expect(files.filter((f) => named.test(readFileSync(join(root, f), 'utf8')))).toEqual([]);
  });
});
