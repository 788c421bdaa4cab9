import { FAMILIES, FAMILY_IDS, STYLES, USUAL_LIMIT_SOURCE, type FamilyRow } from '@steady-gleam/core/finishes';
import { GROUNDS, MIXES } from '@steady-gleam/core/materials';

const layers = (row: FamilyRow): string =>
  row.layers
    .map((l) => `${l.kind} ${l.coats}${l.style === 'wet' ? '' : ` ${STYLES[l.style].name.toLowerCase()}`}`)
    .join(', ');

const limits = (row: FamilyRow): string =>
  Object.entries(row.limits)
    .sort(([a], [b]) => Number(a) - Number(b))
    .map(([angle, limit]) => `${angle}°: ${limit}`)
    .join(', ');

function counted(row: FamilyRow): string {
  if (row.controlAfter === null) return 'coats of one style; control coats come on top';
  return `${row.controlAfter} ${STYLES[row.start.style].name.toLowerCase()}, the rest control coats`;
}

const LINES: readonly (readonly [string, (row: FamilyRow) => string])[] = [
  ['what it is', (r) => r.what],
  ['usual layers', layers],
  [
    'begins over',
    (r) => `${GROUNDS.find((g) => g.id === r.start.groundId)!.name.toLowerCase()}, ${r.start.coats} coats`,
  ],
  ['counted', counted],
  ['first rungs', (r) => r.rungs.join(', ')],
  ['what is matched', (r) => r.matched],
  ['by eye', (r) => `${r.byEye.less}, ${r.byEye.more}; ${r.byEye.beside.join(', ')}`],
  ['cannot be undone', (r) => r.keeps],
  ['prep', (r) => r.prep],
  ['gun', (r) => `${[...new Set(r.gun.tipMm)].join(' to ')} mm; ${r.gun.led}`],
  ['product', (r) => `${r.productKind}${r.twoPack ? ', two-pack' : ''}`],
  ['looked at in low light', (r) => (r.lowLight ? 'yes' : 'no')],
  ['limits, CIEDE2000', limits],
  [
    'demo mixes',
    (r) =>
      MIXES.filter((m) => m.family === r.id)
        .map((m) => m.name)
        .join(', '),
  ],
];

/** The page about the families, made from their table. */
export function familiesPage(): string {
  const sections = FAMILY_IDS.map((id) => {
    const row = FAMILIES[id];
    const lines = LINES.map(([name, of]) => `| ${name} | ${of(row)} |`);
    return [`## ${row.name}`, '', `Id \`${id}\`.`, '', '| | |', '|---|---|', ...lines, ''].join('\n');
  });
  return [
    '# Families of finishes',
    '',
    'Made by `npm run families` from the table in `packages/core/src/finishes/families.ts`, the only place that names a family; do not',
    'edit. Everything a job of a family begins with is a row of it: job, ground, layers, rungs, limits, words, waits, cup and product.',
    `Limits and habits are ${USUAL_LIMIT_SOURCE}; each is changed on the job, limits also for the whole family.`,
    '',
    'Two-tone, stripes, fades and letters are areas with a finish of their own, aerosol and airbrush ways of laying: neither is a family.',
    '',
    ...sections,
  ].join('\n');
}
