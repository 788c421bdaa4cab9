/**
 * `npm run architecture`: asks the dependency tool who imports whom, and draws the rooms of core in docs/architecture.svg: a room stands
 * above all it imports; lines that follow from others are left out.
 */
import { spawnSync } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { root } from './install.mjs';

const asked = spawnSync(
  join(root, 'node_modules/.bin/depcruise'),
  [
    ...['--config', '.dependency-cruiser.cjs', '--output-type', 'json', '--exclude', '\\.test\\.tsx?$|/testdata/'],
    'packages',
  ],
  { cwd: root, encoding: 'utf8', maxBuffer: 1 << 28 },
);
const { modules } = JSON.parse(asked.stdout);

const CORE = /^packages\/core\/src\/([^/]+)\//;
const PACKAGE = /^packages\/([^/]+)\//;
const rooms = new Map();
const packages = new Map();
const files = new Map();
const note = (map, from, to) => {
  if (!map.has(from)) map.set(from, new Set());
  if (to && to !== from) map.get(from).add(to);
};
for (const { source, dependencies } of modules) {
  const from = source.match(PACKAGE)?.[1];
  if (!from) continue;
  const room = source.match(CORE)?.[1];
  if (room) files.set(room, (files.get(room) ?? 0) + 1);
  note(packages, from, null);
  if (room) note(rooms, room, null);
  for (const { resolved } of dependencies) {
    const to = resolved.match(PACKAGE)?.[1];
    if (to) note(packages, from, to);
    const other = resolved.match(CORE)?.[1];
    if (room && other) note(rooms, room, other);
  }
}

/** Steps from the ground: a room stands above all it imports. */
function heights(graph) {
  const known = new Map();
  const of = (name) => {
    if (!known.has(name)) {
      known.set(name, 0);
      known.set(name, Math.max(-1, ...[...(graph.get(name) ?? [])].map(of)) + 1);
    }
    return known.get(name);
  };
  for (const name of graph.keys()) of(name);
  return known;
}

/** Lines that no chain of others tells already. */
function direct(graph) {
  const reaches = (from, to, seen = new Set()) =>
    [...(graph.get(from) ?? [])].some(
      (next) => next === to || (!seen.has(next) && (seen.add(next), reaches(next, to, seen))),
    );
  return [...graph].flatMap(([from, to]) =>
    [...to].filter((t) => ![...to].some((other) => other !== t && reaches(other, t))).map((t) => [from, t]),
  );
}

const height = heights(rooms);
const levels = [];
for (const [name, h] of height) (levels[h] ??= []).push(name);
const [WIDTH, STEP, BOX] = [980, 74, [108, 34]];
const place = new Map();
// Every level is put in the order of what it stands on, so that few lines cross.
levels.forEach((names, h) => {
  const below = (name) => {
    const at = [...rooms.get(name)].filter((n) => place.has(n)).map((n) => place.get(n)[0]);
    return at.length ? at.reduce((a, b) => a + b, 0) / at.length : WIDTH / 2;
  };
  names.sort((a, b) => below(a) - below(b) || (a < b ? -1 : 1));
  names.forEach((name, i) =>
    place.set(name, [((i + 0.5) * WIDTH) / names.length, (levels.length - 1 - h) * STEP + 30]),
  );
});
const lines = direct(rooms)
  .filter(([a, b]) => place.has(a) && place.has(b))
  .map(([a, b]) => {
    const [[x1, y1], [x2, y2]] = [place.get(a), place.get(b)];
    const middle = (y1 + y2) / 2;
    return `<path d="M${x1.toFixed(0)} ${y1 + BOX[1] / 2}C${x1.toFixed(0)} ${middle} ${x2.toFixed(0)} ${middle} ${x2.toFixed(0)} ${y2 - BOX[1] / 2}" fill="none" stroke="#6e6e6e" stroke-width="1"/>`;
  });
const boxes = [...place].map(
  ([name, [x, y]]) =>
    `<rect x="${(x - BOX[0] / 2).toFixed(0)}" y="${y - BOX[1] / 2}" width="${BOX[0]}" height="${BOX[1]}" fill="#cdcdcd" stroke="#121212"/>` +
    `<text x="${x.toFixed(0)}" y="${y + 5}" text-anchor="middle">${name}</text>`,
);
const tall = levels.length * STEP + 10;
writeFileSync(
  join(root, 'docs/architecture.svg'),
  `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${WIDTH} ${tall}" font-family="sans-serif" font-size="15" fill="#121212">
<rect width="${WIDTH}" height="${tall}" fill="#ababab"/>
${lines.join('\n')}
${boxes.join('\n')}
</svg>
`,
);
const who = [...packages].map(([name, to]) => `${name} -> ${[...to].sort().join(', ') || 'nothing'}`).sort();
console.log(`${rooms.size} rooms in ${levels.length} steps\n${who.join('\n')}`);
