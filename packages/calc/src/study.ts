import { writeFileSync } from 'node:fs';
import { dirname, join, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';
import { prepareLibrary } from '@steady-gleam/core/materials';
import { createRandom, quantile } from '@steady-gleam/core/numeric';
import {
  CORE_KINDS,
  foreignWorld,
  KINDS,
  ownWorld,
  shareOf,
  studyPainter,
  type Kind,
  type PainterFigures,
} from '@steady-gleam/core/study';

/** Remakes docs/study.md and docs/study.svg. Nothing on that page is typed in. */
const root = resolve(dirname(fileURLToPath(import.meta.url)), '../../..');
/** Painters of each of the four kinds of every day; of each other kind a third of that. */
const each = Number(process.argv[2] ?? 32);
/** Rays per evaluation of the foreign truth. */
const rays = Number(process.argv[3] ?? 2500);
const JOBS_EACH = 4;

const shop = prepareLibrary();
type Truth = 'own' | 'foreign';

function paintersOf(truth: Truth): PainterFigures[] {
  const kinds = KINDS.flatMap((kind) =>
    Array.from({ length: CORE_KINDS.includes(kind) ? each : Math.ceil(each / 3) }, (_, i) => ({ kind, i })),
  );
  return kinds.map(({ kind, i }, n) => {
    const seed = 1000 * KINDS.indexOf(kind) + i;
    const random = createRandom(20261127 + seed);
    const world = truth === 'own' ? ownWorld(shop, kind, random) : foreignWorld(shop, kind, random, rays);
    if (n % 16 === 15) console.log(`${truth} truth: ${n + 1} of ${kinds.length} painters`);
    return studyPainter(world, 7 + seed, shop, { jobsEach: JOBS_EACH, now: () => performance.now() });
  });
}

const own = paintersOf('own');
const foreign = paintersOf('foreign');

const percent = (v: number | null) => (v === null ? '–' : `${Math.round(100 * v)} %`);
const two = (v: number) => v.toFixed(2);
const within = (of: readonly PainterFigures[], count: (p: PainterFigures) => number) =>
  percent(shareOf(of, (p) => Math.abs(count(p)) <= 0.25));
const predicted = (of: readonly PainterFigures[], key: 'predicted' | 'predictedByLines') => {
  const all = of.flatMap((p) => p[key]);
  return `${two(quantile(all, 0.5))} / ${two(quantile(all, 0.9))}`;
};
type JobOf = PainterFigures['jobs'][number];
const jobsOf = (of: readonly PainterFigures[], wet: boolean, keeps: (p: PainterFigures, j: JobOf) => boolean) =>
  of.flatMap((p) => p.jobs.filter((j) => j.wet === wet && keeps(p, j)));
const ends = (jobs: readonly JobOf[], key: 'end' | 'blind' = 'end') =>
  `${percent(shareOf(jobs, (j) => j[key] === 'in'))} / ${percent(shareOf(jobs, (j) => j[key] === 'over'))}`;
const anyJob = () => true;
const oneInstrument = (p: PainterFigures) => !p.otherInstrument;
const wideWindow = (_: PainterFigures, j: JobOf) => j.width > 0.15;

const ofKinds = (of: readonly PainterFigures[], kinds: readonly Kind[]) => of.filter((p) => kinds.includes(p.kind));
const coreOwn = ofKinds(own, CORE_KINDS);
const core = ofKinds(foreign, CORE_KINDS);

const both = (f: (of: readonly PainterFigures[]) => string): [string, string] => [f(coreOwn), f(core)];
const rows: readonly (readonly [string, string, string, string])[] = [
  ['rungs 3, 4 from 1, 2: median / p90 dE00', ...both((p) => predicted(p, 'predicted')), '1.1 / 2.3'],
  ['the same by straight lines', ...both((p) => predicted(p, 'predictedByLines')), '–'],
  ['count within 0.25, four rungs', ...both((p) => within(p, (x) => x.four)), '≥ 90 %'],
  ['the same by lines', ...both((p) => within(p, (x) => x.linesFour)), '–'],
  ['the same by the nearest rung', ...both((p) => within(p, (x) => x.nearestRung)), '–'],
  ['count within 0.25, two rungs', ...both((p) => within(p, (x) => x.two)), '≥ 76 %'],
  ['the same by lines', ...both((p) => within(p, (x) => x.linesTwo)), '–'],
  ['nine in ten holds: the card', ...both((p) => percent(shareOf(p, (x) => x.cardHolds))), '84–96 %'],
  ['nine in ten holds: the object', ...both((p) => percent(shareOf(p, (x) => x.objectHolds))), '84–96 %'],
  ['right cards with a rung blamed', ...both((p) => percent(shareOf(p, (x) => x.blamed))), '≤ 5 %'],
  ['exchanged rungs named', ...both((p) => percent(shareOf(p, (x) => x.exchangedNamed))), '≥ 80 %'],
  ['cards without any advice', ...both((p) => percent(shareOf(p, (x) => !x.advised))), '0'],
  ['jobs, wet looks of three spots: inside / over', ...both((p) => ends(jobsOf(p, true, anyJob))), '≥ 68 / ≤ 7'],
  ['– one instrument', ...both((p) => ends(jobsOf(p, true, oneInstrument))), '≥ 74 / ≤ 7'],
  ['– windows over 15 % of the count', ...both((p) => ends(jobsOf(p, true, wideWindow))), '≥ 86 / ≤ 5'],
  ['jobs, dry cleared looks of nine spots', ...both((p) => ends(jobsOf(p, false, anyJob))), '≥ 83 / ≤ 5'],
  ['– one instrument', ...both((p) => ends(jobsOf(p, false, oneInstrument))), '≥ 90 / ≤ 4'],
  ['– windows over 15 % of the count', ...both((p) => ends(jobsOf(p, false, wideWindow))), '≥ 89 / ≤ 4'],
  ['the nominal count sprayed blindly', ...both((p) => ends(jobsOf(p, true, anyJob), 'blind')), '–'],
  ['by eye: nine in ten holds', ...both((p) => percent(shareOf(p, (x) => x.eye.holds))), '80–96 %'],
  [
    'by eye: jobs over',
    ...both((p) =>
      percent(
        shareOf(
          p.flatMap((x) => x.eye.ends),
          (e) => e === 'over',
        ),
      ),
    ),
    '≤ 6 %',
  ],
];
const kindRows = KINDS.map((kind) => {
  const p = ofKinds(foreign, [kind]);
  const winnable = p.filter((x) => x.jobs.length).length;
  return [
    kind,
    String(p.length),
    within(p, (x) => x.four),
    within(p, (x) => x.linesFour),
    within(p, (x) => x.two),
    percent(shareOf(p, (x) => x.cardHolds)),
    percent(shareOf(p, (x) => x.objectHolds)),
    `${winnable} of ${p.length}`,
    ends(jobsOf(p, true, anyJob)),
    ends(jobsOf(p, false, anyJob)),
    percent(shareOf(p, (x) => x.eye.holds)),
  ];
});
const asGood = KINDS.filter((kind) => {
  const p = ofKinds(foreign, [kind]);
  return (
    (shareOf(p, (x) => Math.abs(x.linesFour) <= 0.25) ?? 0) >= (shareOf(p, (x) => Math.abs(x.four) <= 0.25) ?? 0) - 0.02
  );
});

/** Errors of the count under the foreign truth, as a strip of bars a twentieth of a coat wide. */
function chart(): string {
  const [width, height, pad] = [620, 260, 40];
  const [lo, hi, step] = [-0.6, 0.6, 0.05];
  const bins = Array.from({ length: Math.round((hi - lo) / step) }, () => 0);
  for (const { four } of core) {
    const k = Math.min(bins.length - 1, Math.max(0, Math.floor((four - lo) / step)));
    bins[k]!++;
  }
  const most = Math.max(...bins);
  const x = (v: number) => pad + ((v - lo) / (hi - lo)) * (width - 2 * pad);
  const bars = bins.map((n, k) => {
    const h = (n / most) * (height - 2 * pad);
    return `<rect x="${(x(lo + k * step) + 0.5).toFixed(1)}" y="${(height - pad - h).toFixed(1)}" width="${(x(lo + step) - x(lo) - 1).toFixed(1)}" height="${h.toFixed(1)}" fill="#121212"/>`;
  });
  const ticks = [-0.5, -0.25, 0, 0.25, 0.5].map(
    (v) =>
      `<text x="${x(v)}" y="${height - pad + 18}" text-anchor="middle">${v}</text><path d="M${x(v)} ${pad}V${height - pad}" stroke="#8a8a8a" stroke-width=".7"/>`,
  );
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${width} ${height}" font-family="sans-serif" font-size="13" fill="#121212">
<rect width="${width}" height="${height}" fill="#b8b8b8"/>
${ticks.join('\n')}
${bars.join('\n')}
<text x="${width / 2}" y="${height - 6}" text-anchor="middle">coats the card says, less what a perfect reader of that card would say</text>
</svg>
`;
}

const table = (head: readonly string[], body: readonly (readonly string[])[]) =>
  [`| ${head.join(' | ')} |`, `|${head.map(() => '---').join('|')}|`, ...body.map((r) => `| ${r.join(' | ')} |`)].join(
    '\n',
  );
writeFileSync(join(root, 'docs/study.svg'), chart());
writeFileSync(
  join(root, 'docs/study.md'),
  `# What a let-down card is worth

Made by \`npm run study\`; do not edit. Invented painters spray a card of four rungs and jobs after it; what the program advises is
held against what truly happens. Two truths:

- **own**: the program's own film model (reference tier) with other parameters than the fit starts from. It says whether the
  arithmetic is right.
- **foreign**: light followed ray by ray through another kind of film (flakes in two tilts, film index 1.47 to 1.56, tilt that drifts
  from coat to coat, oxide, dye, its band and grounds off, grounds that do not quite hide, finishes made by someone else). It says
  what the advice is worth where the model is wrong. The standard error of a share is about ${Math.round(100 * Math.sqrt(0.09 / Math.max(1, core.length)))} points,
  more for jobs, which come ${JOBS_EACH} to a painter.

Rungs scatter by session, coat (the first most), edges and spot; readings by 0.25 + 0.007 L*; a third of the targets are read with a
second instrument, its angles off by 1.5 degrees. ${core.length} painters of four kinds with each truth. Seeded.

${table(['pearl with dye, pearl, candy, tinted clear', 'own', 'foreign', 'wanted'], rows)}

Inside and over are of jobs whose finish can be reached at all; after the first stop at most two looks, then it ends. Left out:
finishes no count of these coats reaches within the limits (see the table), which are advised towards the closest count all the same.
Dry, cleared looks end inside more often than wet ones; a tinted clear's window is a few per cent of its count, narrower than a gun's
scatter, and the program says so before the first coat. By eye a job mostly ends short of the instrument's window: an eye calls it a
match before that, and stops.

## Every kind, foreign truth

${table(
  [
    'kind',
    'painters',
    'four rungs',
    'lines',
    'two rungs',
    'card holds',
    'object holds',
    'reachable',
    'wet in / over',
    'dry in / over',
    'by eye holds',
  ],
  kindRows,
)}

${
  asGood.length
    ? `With four rungs straight lines through them count as well as the model for ${asGood.join(', ')}; with two rungs, or for another ground or strength, only the model can say.`
    : 'With four rungs the model counts better than straight lines for every kind.'
}

A fit of four rungs with its intervals takes ${Math.round(
    quantile(
      core.map((p) => p.fitMs),
      0.5,
    ),
  )} ms (median, on the machine that made this page; wanted at most 300).

![Errors of the count](study.svg)
`,
);
console.log(rows.map((r) => r.join(' | ')).join('\n'));
