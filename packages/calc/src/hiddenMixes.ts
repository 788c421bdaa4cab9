import { D65_10, de2000, type Lab } from '@steady-gleam/core/colour';
import { defaultTolerance, STYLES } from '@steady-gleam/core/finishes';
import { formulateAll, paretoPourables, pourables, type FormulateInput } from '@steady-gleam/core/formulate';
import { computeMapRows, factorsToLabs, mapCounts, type TargetAngle } from '@steady-gleam/core/matching';
import { findMix, mixCoat, prepareLibrary } from '@steady-gleam/core/materials';
import { createRandom, normal, quantile } from '@steady-gleam/core/numeric';
import { execFileSync } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import { dirname, join, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';
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

/** A match map of the library, timed now: the machine may be busier at one time than at another. */
function mapMs(): number {
  const target = FIVE_ANGLES.map((g) => ({ ...g, lab: [50, 0, 0] as Lab, tolerance: 1 }));
  const recipe = { coat: shop.coat(findMix('lagoon-pearl'), 1), style };
  const run = () => computeMapRows(model, shop.grounds(), recipe, mapCounts(), target);
  const t = performance.now();
  for (let i = 0; i < 3; i++) run();
  return (performance.now() - t) / 3;
}
mapMs();

const plain: number[] = [];
const noisy: number[] = [];
/** Of each search, in maps. */
const times: number[] = [];
/** What rounding to parts that can be weighed moved the nearest mixes by, of those that are shown. */
const rounded: number[] = [];
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
    const before = mapMs();
    const began = performance.now();
    const input: FormulateInput = {
      ...{ film, model, target, style, filmUm: FILM_UM, mostPigments: 2, mostDyes: 2, counts: [2, 3, 4] },
      shelf: { grounds, pigments, dyes },
    };
    const [best] = formulateAll(input);
    const took = performance.now() - began;
    times.push((2 * took) / (before + mapMs()));
    rounded.push(...paretoPourables(pourables(input, best!)).map((p) => p.rounded));
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
    `${times.at(-2)!.toFixed(0)} maps`,
  );
}

const within = (of: readonly number[], most: number) =>
  `${Math.round((100 * of.filter((v) => v <= most).length) / of.length)} %`;
const root = resolve(dirname(fileURLToPath(import.meta.url)), '../../..');
writeFileSync(
  join(root, 'docs/formulate.md'),
  `# Find the mix

From a reading to mixes of what stands on the shop's shelf: two kinds of effect pigment and two dyes at most, over one of its grounds.

## How it looks

1. Over every ground every pigment is tabulated at four depths under a grey dye of four depths, at ten wavelengths of the 31: light
   of one wavelength knows only the dye's depth there, so that table holds for every dye; the colour of ten is that of a natural
   spline through them (0.04 dE00 off in the median). Two kinds of flakes lie between their tables by their shares.
2. What dye a film would need in each of three bands to look like the target is read off the table. The nearest pairs are brought
   nearer in depth of flakes, share and bands; the nearest of these are dyed, pairs of dyes by bounded least squares in the bands,
   then by the table itself with depth and share beside them.
3. The nearest of those are worked out with the full model at ten wavelengths and brought nearer by bounded Gauss-Newton steps.
   Where the nearest is still further off than half a dE00, each of its dyes and its ground is exchanged for every other. The last
   few are brought nearer against the reference tier: by their worst angle where they come as near as a steady reading repeats, by
   the sum over the angles where none does, for then the reading has its scatter and the worst angle is where most of it is.
4. Each is cut to parts of 100 of carrier that a scale shows, in tenths: of every part the step below and above in all combinations,
   looked at again, for every count of coats its colours fit into. What rounding moves by more than 0.3 dE00 is left out, and a can
   that is worth less than 0.1 at the worst angle is not opened. Those no other beats in match, width of the stop window, coats and cans are shown.

Differences count by what is seen of them (CIEDE2000) and by how surely they were read: a reading scatters by 0.3 + 0.01 L* on an axis,
so bright angles say less. Two parts of the second to one of the first found hidden mixes most often, clean and noisy together.

The best so far stands on the screen from the first second; it can be stopped at any ground.

## How good

${count} mixes of two pigments and two dyes were hidden among ${grounds.length} grounds, ${pigments.length} pigments and ${dyes.length} dyes of the library, seen through the reference
tier; seeds ${from} to ${from + count - 1}. What was found is looked at by the reference tier too; the largest CIEDE2000 of five angles:

| reading | asked | found |
| ------- | ----- | ----- |
| as it is, within 1.0 | 90 % | ${within(plain, 1)} |
| with noise of 0.3 + 0.01 L* on every axis, within 1.6 of the truth | 85 % | ${within(noisy, 1.6)} |
| median / nine in ten, as it is | – | ${quantile(plain, 0.5).toFixed(2)} / ${quantile(plain, 0.9).toFixed(2)} |
| moved by rounding to 0.1 g in 100 g by at most 0.3 | – | ${within(rounded, 0.3)} |
| time, in match maps of the same run | 75 | ${Math.round(quantile(times, 0.5))} in the median, ${Math.round(quantile(times, 0.95))} p95 |

Made by \`npm run formulate -- COUNT FIRST-SEED\`. As \`formulate\` it is in the [calculator](calc.md) too.
`,
);
execFileSync('npx', ['prettier', '--write', join(root, 'docs/formulate.md')], { cwd: root, stdio: 'ignore' });
