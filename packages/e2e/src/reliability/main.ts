import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import fillData from '../fillData';
import { root } from '../testServer';
import { sendAll, worstBodies } from './bodies';
import { malformed } from './malformed';
import { boothKills } from './boothKills';
import { hasPostgres, startCluster } from './cluster';
import { firstStarts, killedWrites, restartedDatabase, roundTrip, sameAtOnce } from './runs';
import { booths, scale, SIZES } from './scale';

/** Kills, restarts and floods the program, seeded, and writes what it measured into docs/reliability.md. Ends by itself. */
const PORT = 4940;
const SEED = 2026;
const asked = process.argv.slice(2);
const remove = await fillData();
const cluster = hasPostgres() ? await startCluster() : null;
/** Parts of the run, in the order of the page; each can be asked for by itself. */
const PARTS = ['first', 'writes', 'booth', 'postgres', 'bodies', 'scale'] as const;
type Row = readonly [what: string, found: string, wanted: string];
/** What was found before, by part: a part that is run again takes its own place. */
const FOUND = join(root, '.cache/reliability.json');
const found: Partial<Record<(typeof PARTS)[number], Row[]>> = existsSync(FOUND)
  ? (JSON.parse(readFileSync(FOUND, 'utf8')) as Record<string, Row[]>)
  : {};
let part: (typeof PARTS)[number] = PARTS[0];
const tell = (...row: Row) => {
  found[part]!.push(row);
  console.log(`${row[0]}: ${row[1]} (wanted: ${row[2]})`);
};
const wants = (name: typeof part): boolean => {
  if (asked.length && !asked.includes(name)) return false;
  part = name;
  found[name] = [];
  return true;
};
const ms = (n: number) => `${Math.round(n)} ms`;

try {
  if (wants('first')) {
    const { kills, torn } = await firstStarts(30, PORT, SEED);
    tell(`${kills} kills and Ctrl-C in the first start, at random`, `${torn} came up torn or not at all`, '0');
  }
  if (wants('writes')) {
    const run = await killedWrites(70, PORT + 2, SEED);
    tell(
      `${run.rounds} kills -9 while six hands write jobs, readings, photos and taps`,
      `${run.acknowledged} acknowledged; ${run.lost} lost, ${run.doubled} doubled, ${run.wrong} answered 500`,
      '0, 0',
    );
  }
  if (wants('booth')) {
    const run = await boothKills(20, PORT + 4, SEED);
    tell(
      `${run.rounds} kills -9 in a booth run in the browser`,
      `${run.taps} taps, each there once`,
      'none lost, none doubled',
    );
  }
  if (wants('postgres') && cluster) {
    const run = await restartedDatabase(cluster, 'restarts', 20, PORT + 6, SEED);
    tell('two first starts at once on one PostgreSQL', run.startedTogether ? 'both up, one demo' : 'torn', 'both up');
    tell(
      `${run.rounds} restarts of PostgreSQL under two programs that are written to`,
      `${run.exits} exits; ${run.acknowledged} acknowledged, ${run.lost} lost, ${run.doubled} doubled, ${run.wrong} answered 500`,
      '0 exits, 0 lost',
    );
    const same = await sameAtOnce(cluster, 'same', 50, PORT + 8);
    tell(
      `${same.rounds} entries sent eight times at once to two programs`,
      `${same.refused} answers other than stored; ${same.stored} stored`,
      '0',
    );
    const trip = await roundTrip(cluster, 'trip', PORT + 10);
    tell(
      `embedded to PostgreSQL and back, ${trip.tables} tables and the files`,
      trip.equal ? 'equal row by row' : 'not equal',
      'equal',
    );
  }
  if (wants('bodies')) {
    for (const [name, make] of [
      ['worst bodies up to 1 MB', worstBodies],
      ['malformed requests', () => malformed(15_000, SEED)],
    ] as const) {
      const run = await sendAll(make, PORT + 12);
      for (const one of run.wrong.slice(0, 5)) console.log(`  ${one}`);
      tell(`${run.requests} ${name}`, `${run.wrong.length} answered 500`, '0');
      tell(
        `another client’s longest wait meanwhile (${run.worst[0]?.[0] ?? ''})`,
        `${ms(run.longestMs)}; ${ms(run.calmMs)} with nothing going on`,
        'at most 250 ms',
      );
      tell('most memory meanwhile', `${Math.round(run.mostMb)} MB`, 'under 600 MB');
    }
  }
  if (wants('scale')) {
    const { page, tap } = await scale(PORT + 14);
    tell(
      `a page of the list with ${SIZES.jobs} jobs, against ${SIZES.few}`,
      `${page.ratio.toFixed(2)} times`,
      'at most 2',
    );
    tell('a tap into a log of 5,000 events, against 50', `${tap.ratio.toFixed(2)} times`, 'at most 1.5');
    const b = await booths(PORT + 18);
    tell(
      `${b.booths} booths tapping for a minute: ${b.taps} taps`,
      `${b.lost} lost, ${b.doubled} doubled; p95 ${b.ratio.toFixed(1)} times one booth’s median`,
      'none; at most 10',
    );
  }
} finally {
  // What was found stays found, also when a later part fails.
  writeFileSync(FOUND, JSON.stringify(found));
  cluster?.remove();
  remove();
}

const path = join(root, 'docs/reliability.md');
const [begin, end] = ['<!-- figures -->', '<!-- end of figures -->'];
const text = readFileSync(path, 'utf8');
const rows = PARTS.flatMap((name) => found[name] ?? []);
const table = ['| tried | found | wanted |', '| --- | --- | --- |', ...rows.map((r) => `| ${r.join(' | ')} |`)].join(
  '\n',
);
const date = new Date().toISOString().slice(0, 10);
writeFileSync(
  path,
  `${text.slice(0, text.indexOf(begin) + begin.length)}\n\nMeasured ${date} by \`npm run killruns\`, seed ${SEED}.\n\n${table}\n\n${text.slice(text.indexOf(end))}`,
);
