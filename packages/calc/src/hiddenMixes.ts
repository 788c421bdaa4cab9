import { D65_10, de2000, type Lab } from '@steady-gleam/core/colour';
import { defaultTolerance, STYLES } from '@steady-gleam/core/finishes';
import { formulateAll } from '@steady-gleam/core/formulate';
import { computeMapRows, factorsToLabs, mapCounts, type TargetAngle } from '@steady-gleam/core/matching';
import { findMix, mixCoat, prepareLibrary } from '@steady-gleam/core/materials';
import { createRandom, normal, quantile } from '@steady-gleam/core/numeric';
import { evaluateReference, FIVE_ANGLES, prepareCoat } from '@steady-gleam/core/optics';

/** How often mixes hidden behind a reading are found again: `npm run formulate -- COUNT FIRST-SEED`. */
const count = Number(process.argv[2] ?? 40);
const from = Number(process.argv[3] ?? 1);
const shop = prepareLibrary();
const { film, library } = shop;
const model = shop.model(FIVE_ANGLES);
const style = STYLES.wet;
const grounds = shop.grounds().slice(0, 15);
const pigments = library.pigments.slice(0, 25);
const dyes = library.dyes.slice(0, 10);
const FILM_UM = 9;

const exact = (of: {
  ground: (typeof grounds)[number];
  flakes: { pigmentId: string; cover: number }[];
  dyes: { dyeId: string; depth: number }[];
  coats: number;
}): Lab[] => {
  const coat = prepareCoat(film, mixCoat({ flakes: of.flakes, dyes: of.dyes, solids: [], filmUm: FILM_UM }, library));
  const laid = {
    ...coat,
    factor: of.coats * style.film,
    flakes: coat.flakes.map((f) => ({ ...f, tilt: f.tilt * style.spread })),
  };
  return factorsToLabs(evaluateReference(model.optics, of.ground, [...of.ground.coats, laid]), D65_10);
};
const pick = <T>(list: readonly T[], random: () => number): T => list[Math.floor(random() * list.length)]!;

const mapMs = (() => {
  const target = FIVE_ANGLES.map((g) => ({ ...g, lab: [50, 0, 0] as Lab, tolerance: 1 }));
  const run = () =>
    computeMapRows(model, shop.grounds(), { coat: shop.coat(findMix('lagoon-pearl'), 1), style }, mapCounts(), target);
  run();
  const t = performance.now();
  for (let i = 0; i < 4; i++) run();
  return (performance.now() - t) / 4;
})();

const plain: number[] = [];
const noisy: number[] = [];
const times: number[] = [];
for (let n = 0; n < count; n++) {
  const random = createRandom(20261128 + from + n);
  const hidden = {
    ground: pick(grounds, random),
    flakes: [pick(pigments, random), pick(pigments, random)].map((p) => ({
      pigmentId: p.id,
      cover: 0.05 + 0.3 * random(),
    })),
    dyes: [pick(dyes, random), pick(dyes, random)].map((d) => ({ dyeId: d.id, depth: 0.05 + 0.6 * random() })),
    coats: 2 + Math.floor(3 * random()),
  };
  const truth = exact(hidden);
  const seek = (labs: readonly Lab[]) => {
    const target: TargetAngle[] = FIVE_ANGLES.map((g, i) => ({
      ...g,
      lab: labs[i]!,
      tolerance: defaultTolerance(g.aspecular),
    }));
    const began = performance.now();
    const [best] = formulateAll({
      ...{ film, model, target, style, filmUm: FILM_UM, mostPigments: 2, mostDyes: 2, counts: [2, 3, 4] },
      shelf: { grounds, pigments, dyes },
    });
    times.push(performance.now() - began);
    const made = exact({
      ground: grounds.find((g) => g.id === best!.groundId)!,
      flakes: best!.pigments.map((p) => ({ pigmentId: p.pigmentId, cover: -Math.expm1(-p.tau) })),
      dyes: best!.dyes.map((d) => ({ ...d })),
      coats: best!.coats,
    });
    return Math.max(...truth.map((lab, g) => de2000(lab, made[g]!)));
  };
  plain.push(seek(truth));
  noisy.push(
    seek(
      truth.map(([l, a, b]): Lab => {
        const sd = 0.3 + 0.01 * l;
        return [Math.max(0, l + sd * normal(random)), a + sd * normal(random), b + sd * normal(random)];
      }),
    ),
  );
  console.log(
    n,
    JSON.stringify([hidden.ground.id, hidden.flakes.map((f) => f.pigmentId), hidden.dyes.map((d) => d.dyeId)]),
    plain.at(-1)!.toFixed(2),
    noisy.at(-1)!.toFixed(2),
    `${(times.at(-2)! / mapMs).toFixed(0)} maps`,
  );
}
const within = (of: number[], most: number) =>
  `${Math.round((100 * of.filter((v) => v <= most).length) / of.length)} %`;
console.log(
  `map ${mapMs.toFixed(0)} ms; found within 1.0: ${within(plain, 1)}; with noise within 1.6: ${within(noisy, 1.6)}; time ${(quantile(times, 0.5) / mapMs).toFixed(0)} maps in the median, ${(Math.max(...times) / mapMs).toFixed(0)} at most`,
);
