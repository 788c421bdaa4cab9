import { FAMILIES, TRY_OUT_FAMILIES } from '@steady-gleam/core/finishes';
import { prepareLibrary } from '@steady-gleam/core/materials';
import { execFileSync } from 'node:child_process';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { makeFolder, removeFolder, root, startServer } from '../testServer';
import { asking, walkTryOut, type Walked } from './walk';

/**
 * Walks seeded try-outs through the API, half of them with wet looks, half with dry ones, and writes what became of all that were
 * walked so far into docs/devices.md: `npm run try-outs -- COUNT FIRST-SEED`; with a count of 0 the page alone.
 */
const count = Number(process.argv[2] ?? 200);
const from = Number(process.argv[3] ?? 1);
/** Servers side by side: each traces in a thread of its own. */
const SERVERS = 2;

const shop = prepareLibrary();
const folders = Array.from({ length: count ? SERVERS : 0 }, makeFolder);
const servers = await Promise.all(folders.map((folder, i) => startServer(folder, 4961 + i)));
type Kept = Walked & { readonly state: 'wet' | 'cleared' };
const kept = join(root, '.cache/try-outs.json');
const before = existsSync(kept) ? (JSON.parse(readFileSync(kept, 'utf8')) as { done: Kept[] }).done : [];
const done: Kept[] = [];
let next = 0;
try {
  await Promise.all(
    servers.map(async ({ address }) => {
      const ask = asking(address);
      while (next < count) {
        const n = next++;
        const family = TRY_OUT_FAMILIES[n % TRY_OUT_FAMILIES.length]!;
        const state = Math.floor(n / TRY_OUT_FAMILIES.length) % 2 ? ('cleared' as const) : ('wet' as const);
        done.push({ ...(await walkTryOut(ask, shop, { seed: from + n, family, state })), state });
        if (done.length % 10 === 0) console.log(`${done.length} of ${count}`);
      }
    }),
  );
} finally {
  for (const s of servers) await s.stop();
  for (const f of folders) removeFolder(f);
}

const all = [...new Map([...before, ...done].map((w) => [w.seed, w])).values()].sort((a, b) => a.seed - b.seed);
writeFileSync(kept, JSON.stringify({ done: all }, null, 1));

const share = (of: readonly Walked[], is: (w: Walked) => boolean): string =>
  of.length ? `${Math.round((100 * of.filter(is).length) / of.length)} %` : '–';
const row = (name: string, of: readonly Walked[]): string =>
  `| ${name} | ${of.length} | ${share(of, (w) => w.end === 'in')} | ${share(of, (w) => w.end === 'over')} | ${share(of, (w) => w.end === 'short')} | ${share(of, (w) => w.nominal === 'in')} / ${share(of, (w) => w.nominal === 'over')} |`;
const reached = all.filter((w) => w.reachable);
const lines = [
  '| try-outs that can be reached | of them | inside | over | short | the pick’s count blindly: inside / over |',
  '|---|---|---|---|---|---|',
  row(
    'wet looks of three spots',
    reached.filter((w) => w.state === 'wet'),
  ),
  row(
    '– windows over 15 % of the count',
    reached.filter((w) => w.state === 'wet' && w.width > 0.15),
  ),
  row(
    'dry, cleared looks of nine spots',
    reached.filter((w) => w.state === 'cleared'),
  ),
  row(
    '– windows over 15 % of the count',
    reached.filter((w) => w.state === 'cleared' && w.width > 0.15),
  ),
  ...TRY_OUT_FAMILIES.map((f) =>
    row(
      FAMILIES[f].name.toLowerCase(),
      reached.filter((w) => w.family === f),
    ),
  ),
];
const far = all.filter((w) => !w.reachable);
const said = `${all.length} try-outs with seeds ${rangesOf(all.map((w) => w.seed))}; ${reached.length} of them are within reach with what the map offered. Of the other ${far.length}, ${share(far, (w) => w.end === 'near')} ended as near as can be and ${share(far, (w) => w.end === 'over')} over. Looks a job: ${(all.reduce((sum, w) => sum + w.looks, 0) / all.length).toFixed(1)}.`;
console.log(`${said}\n\n${lines.join('\n')}`);

const page = join(root, 'docs/devices.md');
const [MARK, END] = ['<!-- try-outs: made by npm run try-outs -->', '<!-- end of try-outs -->'];
const text = readFileSync(page, 'utf8');
const [head, tail] = [text.slice(0, text.indexOf(MARK)), text.slice(text.indexOf(END))];
writeFileSync(page, `${head}${MARK}\n\n${said}\n\n${lines.join('\n')}\n\n${tail}`);

execFileSync('npx', ['prettier', '--write', page], { cwd: root, stdio: 'ignore' });

/** "1 to 200, 1001 to 1200". */
function rangesOf(seeds: readonly number[]): string {
  const runs: [number, number][] = [];
  for (const seed of seeds) {
    const last = runs.at(-1);
    if (last && seed === last[1] + 1) last[1] = seed;
    else runs.push([seed, seed]);
  }
  return runs.map(([a, b]) => (a === b ? String(a) : `${a} to ${b}`)).join(', ');
}
