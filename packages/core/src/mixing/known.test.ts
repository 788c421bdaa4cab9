import { describe, expect, it } from '@jest/globals';
import { findGround, GROUNDS } from '../materials/grounds';
import { findMix, MIXES } from '../materials/mixes';
import { prepareLibrary, REFERENCE_LIBRARY } from '../materials/shop';
import { createRandom } from '../numeric/random';
import { layersOf } from '../finishes/layers';
import { startRecipe } from '../finishes/recipe';
import { groupsOf } from '../jobs/amounts';
import { STARTING_GUNS } from '../products/guns';
import { STARTING_PRODUCTS } from '../products/products';
import { markOf, recorded } from '../testdata/known';
import { plainPlan } from '../testdata/jobs';
import { randomJob } from '../testdata/runs';
import { bodyArea, cupFor, pieceArea, rescueOverpour, roundUpBatch, type BodyShape } from './batch';
import { planBatch } from './batchPlan';
import { coatsForCover, coverAfter, flakeDepthOf, flakeSizesOf } from './coverCount';
import {
  clearToBury,
  flakeAreaPerGram,
  flakeDose,
  flakeVolumes,
  groundShows,
  scatterFlakes,
  wantedCover,
} from './flake';
import { flakeLayerOf, withFlakeDose } from './flakeLayer';
import { needFor, solidsOf, whyNotOneBatch } from './groups';
import { mixByParts } from './mix';
import { learnTransfer, leftoverAsGround, needOf } from './needs';
import { hardenerInClears, poursOf } from './pours';
import { parseRatio } from './ratio';
import { learnTint, sealerForShade, sealerLook, SEALER_TONES } from './sealerShade';
import { potLifeAt, potState, vocOfMix } from './voc';

/*
 * What was to be mixed for jobs by chance when it was recorded. A change that is not meant shows here; one that is meant is recorded anew
 * (`npm run unit -- -u known`) and told in CHANGELOG.md as one that changes figures.
 */
const { film } = prepareLibrary();
const plans = Array.from({ length: 12 }, (_, i) => plainPlan(randomJob(300 + i)));
const groups = plans.flatMap((plan) => groupsOf(plan, REFERENCE_LIBRARY));

describe('what is to be mixed for known jobs', () => {
  it('comes to the pours, the batch and the cup it came to', () => {
    const random = createRandom(77);
    const said = groups.map((group, i) => {
      const fits = STARTING_PRODUCTS.filter((p) => p.kind === group.productKind);
      const product = fits[i % Math.max(1, fits.length)] ?? null;
      const solids = solidsOf(group, i % 4 === 3 ? null : product, REFERENCE_LIBRARY);
      const gun = STARTING_GUNS[i % STARTING_GUNS.length]!;
      const need = needFor(group, solids, gun, { mean: 0.4 + 0.3 * random(), sd: 0.1 });
      const temperatureC = 8 + 26 * random();
      const first = group.kind === 'effect' && group.materialId ? findMix(group.materialId).parts[0]?.name : 'toner';
      const pours = poursOf({
        group,
        product,
        library: REFERENCE_LIBRARY,
        settings: {
          ratio: ['', '4:1', '2:1 + 10 %', '3:1:9', 'x'][i % 5]!,
          hardener: i % 3 === 2 ? (product?.additives.find((a) => a.role === 'hardener')?.name ?? '') : '',
          reducer: i % 4 === 2 ? (product?.additives.find((a) => a.role === 'reducer')?.name ?? '') : '',
          shade:
            group.kind === 'sealer' && i % 2
              ? [
                  { name: 'white sealer', parts: 3 },
                  { name: 'black sealer', parts: 1 },
                ]
              : [],
        },
        temperatureC,
        areaM2: group.areaM2,
        sameHardener: i % 5 === 1 ? 'slow hardener' : null,
        added:
          i % 3 === 1
            ? [
                { name: first ?? 'toner', ratio: 0.02, density: 1.1, dry: false },
                { name: 'flake', ratio: 0.01, density: 2.4, dry: true },
              ]
            : [],
      });
      const batch = planBatch(
        pours.pours,
        need,
        { ml: i % 4 === 0 ? 250 : null, cupMl: i % 6 === 0 ? 600 : null },
        product,
        temperatureC,
      );
      return { group, solids, need, pours, batch, why: whyNotOneBatch(need.ml, group.coats, 9, batch.potMinutes, 12) };
    });
    expect(
      said.map(
        ({ group, batch, pours, ...more }) =>
          `${group.name}: ${batch.ml} ml in ${batch.cup}, ${pours.pours.map((p) => p.name).join(', ')}; ${markOf({ group, batch, pours, ...more })}`,
      ),
    ).toMatchSnapshot();
    expect(recorded(said[0]!.batch)).toMatchSnapshot();
    // What a clear is mixed with follows from what is mixed already, or is advised, for another clear of the job.
    const hardeners = plans.flatMap((plan) => {
      const own = groupsOf(plan, REFERENCE_LIBRARY);
      const mixed = { layerId: own.at(-1)!.id, parts: [{ role: 'hardener', name: 'the mixed one' }] };
      const advised = (g: { readonly id: string }) => said.find((s) => s.group.id === g.id)?.pours.pours ?? [];
      return own.map((g) => [hardenerInClears(g, own, [mixed], advised), hardenerInClears(g, own, [], advised)]);
    });
    expect(hardeners).toMatchSnapshot();
  });
  it('cups, shapes, rescues, needs and pot lives are those they were', () => {
    const shapes: BodyShape[] = [
      { kind: 'panel', width: 0.7, height: 1.3 },
      { kind: 'cylinder', diameter: 0.4, height: 0.9, ends: 2 },
      { kind: 'dome', diameter: 1.2, height: 0.3 },
      { kind: 'tub', top: 1.5, bottom: 0.8, height: 0.6 },
      { kind: 'tube', diameter: 0.04, length: 9 },
    ];
    const parts = [
      { name: 'base', parts: 4, density: 0.95 },
      { name: 'reducer', parts: 2, density: 0.87 },
      { name: 'hardener', parts: 1 },
    ];
    expect(
      recorded({
        areas: shapes.map(bodyArea),
        pieces: [pieceArea({ shape: 'area', measures: { area: 1.5 }, count: 3 })],
        cups: [12, 180, 181, 599, 700, 2299, 2301, 9000].map((ml) => [cupFor(ml), roundUpBatch(ml)]),
        mixed: [mixByParts(parts, { total: 631 }), mixByParts(parts, { firstTo: 300 })],
        rescued: [0, 1, 2].flatMap((i) => [90, 350, 420].map((ml) => rescueOverpour(parts, 500, i, ml))),
        ratios: ['4:1:2', '10 %', '2:1 + 10 %', '6:1:0,5', '', '1', '4:x', '0:1', '2:-1', '1000:1'].map(parseRatio),
        needs: [needOf({ area: 2, coats: 3, dryFilm: 9, volumeSolids: 0.2, transferEfficiency: 0.55, loss: 30 })],
        learned: [
          learnTransfer({ mean: 0.6, sd: 0.15 }, [
            { solidMl: 60, volumeSolids: 0.3, usedMl: 420, lossMl: 40 },
            { solidMl: 20, volumeSolids: 0.3, usedMl: 30, lossMl: 40 },
            { solidMl: 90, volumeSolids: 0.4, usedMl: 390, lossMl: 25 },
          ]),
        ],
        left: [
          leftoverAsGround({
            ...{ leftoverMl: 300, area: 2.2, filmUm: 12, leftoverSolids: 0.3, groundSolids: 0.25 },
            transferEfficiency: 0.55,
          }),
        ],
        pots: [8, 20, 31].map((t) => [
          potLifeAt(45, t),
          potState(0, potLifeAt(45, t), 20 * 60_000),
          potState(0, potLifeAt(45, t), 38 * 60_000),
        ]),
        voc: vocOfMix([
          { ml: 400, vocGPerL: 520, waterShare: 0, exemptShare: 0.1 },
          { ml: 100, vocGPerL: 40, waterShare: 0.9, exemptShare: 0 },
        ]),
      }),
    ).toMatchSnapshot();
  });
  it('flake doses, covers and buries are those they were', () => {
    const flaked = MIXES.filter((m) => m.flakes.length);
    const sizes = flaked.map((m) => flakeSizesOf(m, REFERENCE_LIBRARY)).filter((s) => s.length);
    const landed: number[] = [];
    scatterFlakes(sizes[0]!, 0.3, 4, 3, 5, (f) => landed.push(f.x, f.y, f.turn, f.glint));
    expect(
      recorded({
        depth: flaked.map((m) => [flakeDepthOf(m), coverAfter(m, 1, 2.5), coatsForCover(m, 1, 0.7)]),
        doses: sizes
          .slice(0, 4)
          .flatMap((mix) => [0.2, 0.6, 0.95].map((cover) => flakeDose({ mix, cover, filmUm: 20, volumeSolids: 0.3 }))),
        area: sizes.slice(0, 4).map((mix) => [flakeAreaPerGram(mix), flakeVolumes(mix, 40)]),
        wanted: GROUNDS.map((g) => wantedCover(g, 6)).map((a) => [a, groundShows(a, 0.5), groundShows(a, 0.95)]),
        landed: markOf(landed),
      }),
    ).toMatchSnapshot();
    const stacks = flaked.slice(0, 6).map((m) => {
      const picked = layersOf(findGround('silver-fine'), m, startRecipe(m.family));
      const found = flakeLayerOf(picked, REFERENCE_LIBRARY);
      return [
        found && withFlakeDose(picked, found, { coats: 4, filmUm: 18 }, 5).map((l) => [l.kind, l.coats, l.filmUm]),
      ];
    });
    expect(recorded(stacks)).toMatchSnapshot();
    expect(
      recorded(
        sizes.slice(0, 4).flatMap((mix) =>
          [
            [0.3, 4, 30],
            [0.9, 14, 80],
          ].map(([cover, tilt, sandUm]) =>
            clearToBury({ mix, cover: cover!, tilt: tilt!, filmUm: 28, sandUm: sandUm!, keepUm: 40 }),
          ),
        ),
      ),
    ).toMatchSnapshot();
  });
  it('sealers for a shade, and tints that were learned, are those they were', () => {
    const shades = [
      [72, 0, 2],
      [50, -3, -12],
      [38, 20, 10],
    ] as const;
    expect(recorded(shades.map((lab) => sealerForShade(film, SEALER_TONES, lab)))).toMatchSnapshot();
    const parts = SEALER_TONES.map((_, i) => 1 + i);
    expect(
      recorded([sealerLook(film, SEALER_TONES, parts), learnTint(film, SEALER_TONES, 1, parts, 45)]),
    ).toMatchSnapshot();
  });
});
