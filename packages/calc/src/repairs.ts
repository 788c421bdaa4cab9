import { writeFileSync } from 'node:fs';
import { dirname, join, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';
import { format, resolveConfig } from 'prettier';
import { prepareLibrary } from '@steady-gleam/core/materials';
import { createRandom } from '@steady-gleam/core/numeric';
import { CORE_KINDS, foreignWorld, studyRepairs, type Repair } from '@steady-gleam/core/study';

/** Remakes docs/repairs.md: what ways out promise, and how repairs of a foreign truth end. Nothing on that page is typed in. */
const root = resolve(dirname(fileURLToPath(import.meta.url)), '../../..');
const painters = Number(process.argv[2] ?? 100);
/** Rays per evaluation of the foreign truth. */
const rays = Number(process.argv[3] ?? 1200);
const EACH = 10;
const SEED = 14142;

const shop = prepareLibrary();
const all = CORE_KINDS.flatMap((kind) =>
  Array.from({ length: Math.ceil(painters / CORE_KINDS.length) }, (_, i) => {
    const seed = 1000 * CORE_KINDS.indexOf(kind) + i;
    const world = foreignWorld(shop, kind, createRandom(SEED + seed), rays);
    if (i % 5 === 4) console.log(`${kind}: ${i + 1} painters`);
    return studyRepairs(world, 99 + seed, shop, { each: EACH, now: () => performance.now() });
  }).flat(),
);

const BINS = [0, 0.2, 0.4, 0.6, 0.75, 0.9, 1.0001] as const;
const percent = (v: number) => `${Math.round(100 * v)} %`;
const share = (of: readonly Repair[], test: (r: Repair) => boolean) => of.filter(test).length / Math.max(1, of.length);
const rowsOf = (name: string, own: readonly Repair[]): string[] =>
  BINS.slice(0, -1).flatMap((from, i) => {
    const bin = own.filter((r) => r.promised >= from && r.promised < BINS[i + 1]!);
    if (!bin.length) return [];
    const mean = bin.reduce((s, r) => s + r.promised, 0) / bin.length;
    return [
      `| ${name} | ${percent(mean)} | ${percent(share(bin, (r) => r.inside))} | ${percent(share(bin, (r) => r.over))} | ${bin.length} |`,
    ];
  });
const HEAD = ['| way out | promised | ended inside | over | repairs |', '| --- | --- | --- | --- | --- |'];
const WAYS = { leave: 'leave it', faded: 'faded coats', reground: 'ground and effect anew' } as const;
const page = [
  '# Repairs: what is promised, and how it ends',
  '',
  `${all.length} ways out at places that came out otherwise than meant, by ${painters} painters of a foreign truth (light followed`,
  `ray by ray, ${rays} rays an evaluation, other film, other tilt, other hands; see [the study](study.md)). A place missed up to a`,
  'third of its film, or scatters by 7 %. It is looked at by instrument or by eye, and every way out there is says how likely it',
  'is to end inside the limits of every angle; then it is done, with one look in between, and judged by the truth. Finishes that',
  'no film brings inside are among them: there nothing ends inside. Made by `npm run repairs`.',
  '',
  '## All ways out together',
  '',
  ...HEAD,
  ...rowsOf('any', all),
  '',
  '## By way, and by what it was looked at with',
  '',
  ...HEAD,
  ...(['readings', 'eye'] as const).flatMap((by) =>
    (['leave', 'faded', 'reground'] as const).flatMap((way) =>
      rowsOf(
        `${WAYS[way]}, ${by === 'eye' ? 'by eye' : 'read'}`,
        all.filter((r) => r.way === way && r.by === by),
      ),
    ),
  ),
  '',
];
const file = join(root, 'docs/repairs.md');
const style = await resolveConfig(file);
writeFileSync(file, await format(page.join('\n'), { ...style, parser: 'markdown' }));
console.log(page.join('\n'));
