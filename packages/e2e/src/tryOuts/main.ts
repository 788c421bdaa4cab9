import { FAMILIES, TRY_OUT_FAMILIES } from '@steady-gleam/core/finishes';
import { prepareLibrary } from '@steady-gleam/core/materials';
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { makeFolder, removeFolder, root, startServer } from '../testServer';
import { asking, walkTryOut, type Walked } from './walk';

/** Walks seeded try-outs through the API, half of them with wet looks, half with dry ones; keeps the figures for docs/devices.md. */
const count = Number(process.argv[2] ?? 200);
const from = Number(process.argv[3] ?? 1);
/** Servers side by side: each traces in a thread of its own. */
const SERVERS = 2;

const shop = prepareLibrary();
const folders = Array.from({ length: SERVERS }, makeFolder);
const servers = await Promise.all(folders.map((folder, i) => startServer(folder, 4961 + i)));
const done: (Walked & { readonly state: 'wet' | 'cleared' })[] = [];
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

const share = (of: readonly Walked[], is: (w: Walked) => boolean): string =>
  of.length ? `${Math.round((100 * of.filter(is).length) / of.length)} %` : '–';
const row = (name: string, of: readonly Walked[]): string =>
  `| ${name} | ${of.length} | ${share(of, (w) => w.end === 'in')} | ${share(of, (w) => w.end === 'over')} | ${share(of, (w) => w.end === 'short')} | ${share(of, (w) => w.nominal === 'in')} / ${share(of, (w) => w.nominal === 'over')} |`;
const reached = done.filter((w) => w.reachable);
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
const far = done.filter((w) => !w.reachable);
const said = `${done.length} try-outs, seeds ${from} to ${from + count - 1}, ${reached.length} of them within reach with what the map offered; of the other ${far.length} ${share(far, (w) => w.end === 'near')} ended as near as can be, ${share(far, (w) => w.end === 'over')} over.`;
console.log(`${said}\n\n${lines.join('\n')}`);
writeFileSync(join(root, '.cache/try-outs.json'), JSON.stringify({ said, lines, done }, null, 1));
