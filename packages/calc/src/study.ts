import { writeFileSync } from 'node:fs';
import { dirname, join, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';
import { judgeStudy, runStudy } from '@steady-gleam/core/letdown';
import { prepareLibrary } from '@steady-gleam/core/materials';
import { createRandom } from '@steady-gleam/core/numeric';

/** Remakes docs/study.md and docs/study.svg. Nothing on that page is typed in. */
const root = resolve(dirname(fileURLToPath(import.meta.url)), '../../..');
const painters = Number(process.argv[2] ?? 240);
const figures = runStudy(
  prepareLibrary(),
  createRandom(20261102),
  painters,
  6,
  () => performance.now(),
  (done) => done % 20 === 0 && console.log(`${done} of ${painters} painters`),
);
const f = judgeStudy(figures);
const share = (v: number) => `${(100 * v).toFixed(1)} %`;

/** Errors of the count, as a strip of bars a twentieth of a coat wide. */
function chart(): string {
  const [width, height, pad] = [620, 260, 40];
  const [lo, hi, step] = [-0.6, 0.6, 0.05];
  const bins = Array.from({ length: Math.round((hi - lo) / step) }, () => 0);
  for (const { error } of figures.counts) {
    const k = Math.min(bins.length - 1, Math.max(0, Math.floor((error - lo) / step)));
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
<text x="${width / 2}" y="${height - 6}" text-anchor="middle">coats the card says, less coats that truly match</text>
</svg>
`;
}

const rows: readonly (readonly [string, string, string])[] = [
  ['rungs 3 and 4 predicted from 1 and 2, median dE00', f.predictedMedian.toFixed(2), 'at most 0.8'],
  ['the same, 90th percentile', f.predicted90.toFixed(2), 'at most 1.6'],
  ['count within 0.25 coat, four rungs read', share(f.countWithin), 'at least 90 %'],
  ['stated 90 % interval holds the truth', share(f.interval90), '85 to 97 %'],
  ['by eye only (4 rungs, 3 views), within half a coat', share(f.eyeWithin), 'at least 80 %'],
  [`spray, look, decide: ends over the window (${figures.policy.jobs} jobs)`, share(f.over), 'at most 5 %'],
  ['the same: ends short of it, and can still be mended', share(f.under), '-'],
  ['looks a job takes', f.looks.toFixed(1), '-'],
  ['nominal count sprayed blindly: over', share(f.blindOver), 'for comparison'],
  ['nominal count sprayed blindly: short', share(f.blindUnder), 'for comparison'],
];
writeFileSync(join(root, 'docs/study.svg'), chart());
writeFileSync(
  join(root, 'docs/study.md'),
  `# What a let-down card is worth

Made by \`npm run study\`; do not edit. ${painters} invented painters with pots, grounds and finishes of three families. Their finishes are made by the
reference tier with another film per coat, flake share, flake spread, edge scatter, dye hue and ground than the fit starts
from; every reading carries noise of 0.3 + 0.01 L*. Seeded.

| | found | wanted |
|---|---|---|
${rows.map((r) => `| ${r.join(' | ')} |`).join('\n')}

A fit from two rungs takes ${f.fitMsMedian.toFixed(0)} ms (median, on the machine that made this page; wanted at most 300).

![Errors of the count](study.svg)

"Spray, look, decide" sprays what the card advises, looks under a cleared patch, and goes on by halves or mist coats for as long as
at most one in twenty such jobs would go over. Jobs that end short can be sprayed on; jobs that end over can't be taken back.
`,
);
console.log(rows.map((r) => r.join(': ')).join('\n'));
