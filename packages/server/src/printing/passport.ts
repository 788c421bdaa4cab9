import type { CardOfFinish, FinishDetail } from '@steady-gleam/contracts';
import { sharedAngles } from '@steady-gleam/core/bank';
import { de2000, labToScreen, type Lab } from '@steady-gleam/core/colour';
import { andControl, FAMILIES, LAYER_NAMES, layerFilmUm, STYLES, type StackLayer } from '@steady-gleam/core/finishes';
import { averageReadings } from '@steady-gleam/core/formats';
import { stacksOfPick } from '@steady-gleam/core/jobs';
import { sayFrom, type EyeView } from '@steady-gleam/core/letdown';
import { layerLooks } from '@steady-gleam/core/looks';
import { libraryOf, prepareLibrary, sayParts, type OwnMaterial } from '@steady-gleam/core/materials';
import { FIVE_ANGLES } from '@steady-gleam/core/optics';
import { sayMeasure, type Measure, type UnitSystem } from '@steady-gleam/core/units';
import type { Content, TableCell } from 'pdfmake/interfaces';
import { paperClock } from './clock';
import { MM } from './pdf';
import { cell, heading, sheet, table } from './tables';

/** pt; the width between the margins of an A4 sheet. */
const WIDTH = (210 - 28) * MM;
/** Angle that a film section is drawn at, its number among the five: 45 degrees from the mirror. */
const SECTION_ANGLE = 2;

const hex = (lab: Lab): string =>
  `#${labToScreen(lab)
    .srgb.map((v) =>
      Math.round(Math.min(255, Math.max(0, v)))
        .toString(16)
        .padStart(2, '0'),
    )
    .join('')}`;

/** Colours beside one another, in rows that touch. */
const strip = (rows: readonly (readonly Lab[])[], width: number, height: number): string => {
  const each = height / rows.length;
  const rects = rows.flatMap((labs, r) =>
    labs.map((lab, k) => {
      const w = width / labs.length;
      return `<rect x="${k * w}" y="${r * each}" width="${w + 0.2}" height="${each + 0.2}" fill="${hex(lab)}"/>`;
    }),
  );
  return `<svg width="${width}" height="${height}" viewBox="0 0 ${width} ${height}">${rects.join('')}</svg>`;
};

const coats = (n: number): string => String(Number(n.toFixed(1)));

/** A finish on one sheet: its film section, parts and set-up, its rungs over the target, the answer and what the eye said of it. */
export function passport(
  { finish, target, cards }: FinishDetail,
  q: {
    readonly own: readonly OwnMaterial[];
    readonly units: UnitSystem;
    readonly zone: string;
    readonly address: string;
    readonly now: Date;
  },
): Promise<Buffer> {
  const library = libraryOf(q.own);
  const mix = library.systems.find((m) => m.id === finish.mixId) ?? null;
  const ground = library.grounds.find((g) => g.id === finish.pick?.groundId) ?? null;
  const paper = paperClock(q.zone);
  const say = (measure: Measure, value: number) => sayMeasure(measure, value, q.units);
  const { pick } = finish;
  const card = cards.find((c) => c.retiredAt === null) ?? cards[0] ?? null;
  const layers = finish.layers ?? (pick && finish.mixId ? stacksOfPick(finish.mixId, pick, library)[0]!.layers : []);
  const jobs = finish.jobs.filter((j) => j.status === 'finished').map((j) => j.piece);
  const made: [string, string][] = [
    ['Matches', finish.matching || 'a look of its own'],
    ['Codes', finish.codes.join(', ') || 'none'],
    ['Family', finish.family ? FAMILIES[finish.family].name : 'ground and clear only'],
    ['Mix', mix ? `${mix.name}: ${sayParts(mix, pick?.strength ?? 1)}` : 'none'],
    ['Ground', ground?.name ?? 'not picked yet'],
    [
      'Laid',
      pick
        ? `${coats(pick.coats)} coats, ${STYLES[pick.style].name.toLowerCase()}${andControl(pick.controlCoats)}${pick.strength === 1 ? '' : `, strength ${pick.strength.toFixed(2)}×`}`
        : 'nothing picked yet',
    ],
    ...(card ? setUp(card, say) : []),
    ['Proven on', jobs.join(', ') || 'no finished job yet'],
  ];
  return sheet({
    title: `${finish.name}: passport`,
    address: q.address,
    isTryOut: finish.tryOut,
    lead: [
      { text: finish.name, bold: true, fontSize: 20 },
      { text: `Passport of a finish, version ${finish.version}; ${paper.day(q.now)}` },
      { text: sayAnswer(card, pick?.coats ?? null), bold: true, fontSize: 13, margin: [0, 4, 0, 0] },
    ],
    content: [
      ...section(layers, q.own, say),
      {
        table: {
          widths: [22 * MM, '*'],
          body: made.map(([n, v]): TableCell[] => [cell(n, { color: '#444' }), cell(v)]),
        },
        layout: 'facts',
        margin: [0, 6, 0, 0],
      },
      ...rungs(card, target),
      ...otherCards(cards, card),
      {
        text: 'Colours are drawn for a screen or a printer: the card decides. Isocyanates, solvents and dust: the products’ sheets and local rules hold.',
        fontSize: 8,
        color: '#444',
        margin: [0, 8, 0, 0],
      },
    ],
  });
}

/** The answer, and the look that held. */
function sayAnswer(card: CardOfFinish | null, picked: number | null): string {
  const said = picked === null ? '' : ` ${coats(picked)} coats are picked.`;
  if (card === null) return `No let-down card yet.${said}`;
  const { firstStop } = card.card;
  const held = card.verdicts.filter((v) => v.verdict === 'match');
  const seen = [...new Set(held.map((v) => v.coats))]
    .map(
      (n) =>
        `${coats(n)} coats matched ${held
          .filter((v) => v.coats === n)
          .map((v) => sayFrom(v.view as EyeView))
          .join(' and ')}`,
    )
    .join('; ');
  const answer =
    firstStop === null
      ? `The card has not said a count yet.${said}`
      : `On the piece: stop first at ${coats(firstStop)} coats, and look.`;
  return `${answer}${seen ? ` On the card ${seen}.` : ''}`;
}

/** The film section: layers as wide as their dry film, coloured as they look once they are on. */
function section(
  layers: readonly StackLayer[],
  own: readonly OwnMaterial[],
  say: (m: Measure, v: number) => string,
): Content[] {
  if (!layers.length) return [];
  const shop = prepareLibrary(own);
  const looks = layerLooks(shop, shop.model(FIVE_ANGLES), layers).map((l) => l[SECTION_ANGLE]!);
  const films = layers.map(layerFilmUm);
  const total = films.reduce((a, b) => a + b, 0);
  let x = 0;
  const rects = layers.map((_, i) => {
    const w = (films[i]! / total) * WIDTH;
    const rect = `<rect x="${x}" y="0" width="${w}" height="26" fill="${hex(looks[i]!)}" stroke="#555" stroke-width="0.4"/>`;
    x += w;
    return rect;
  });
  const names = layers.map(
    (l, i) => `${LAYER_NAMES[l.kind].toLowerCase()} ${coats(l.coats)}× ${say('film', films[i]!)}`,
  );
  return [
    {
      svg: `<svg width="${WIDTH}" height="26" viewBox="0 0 ${WIDTH} 26">${rects.join('')}</svg>`,
      margin: [0, 8, 0, 1],
    },
    { text: `Substrate to clear: ${names.join(', ')}; in all ${say('film', total)} dry.`, fontSize: 8.5 },
  ];
}

function setUp({ card }: CardOfFinish, say: (m: Measure, v: number) => string): [string, string][] {
  const s = card.settings;
  const parts = [
    card.gun,
    say('pressure', card.pressureBar),
    s.distanceCm === null ? '' : say('distance', s.distanceCm),
    s.tipMm === null ? '' : `${s.tipMm} mm tip`,
    s.turns === null ? '' : `${s.turns} turns`,
    s.overlap === null ? '' : `${Math.round(s.overlap * 100)} % overlap`,
    card.onStand ? 'on a stand' : 'in the hand',
  ];
  const with_ = [
    s.sealer,
    s.groundCoats && `ground ${s.groundCoats}`,
    s.reducer,
    s.temperatureC === null ? '' : say('temperature', s.temperatureC),
  ];
  return [
    ['Set-up', parts.filter(Boolean).join(', ')],
    ['With', with_.filter(Boolean).join(', ') || 'nothing noted'],
  ];
}

/** Rungs of the card in force, each over the target; what the eye said of them. */
function rungs(card: CardOfFinish | null, target: FinishDetail['target']): Content[] {
  if (!card) return [];
  const wanted = target ? averageReadings(target.readings) : [];
  const counts = [...new Set([...card.rungs.map((r) => r.rungCoats!), ...card.verdicts.map((v) => v.coats)])].sort(
    (a, b) => a - b,
  );
  if (!counts.length) return [heading('Rungs'), { text: 'No rung was read or judged yet.' }];
  const rows = counts.map((n): TableCell[] => {
    const set = card.rungs.find((r) => r.rungCoats === n);
    const own = set ? averageReadings(set.readings) : [];
    const both = sharedAngles(own, wanted);
    const des = both.map((b) => de2000(b.other, b.lab));
    const seen = card.verdicts.filter((v) => v.coats === n).map((v) => `${v.verdict} ${sayFrom(v.view as EyeView)}`);
    const drawn = both.length
      ? [both.map((b) => b.lab), both.map((b) => b.other)]
      : own.length
        ? [own.map((g) => g.lab)]
        : null;
    return [
      cell(coats(n), { bold: true, fontSize: 13 }),
      drawn ? { svg: strip(drawn, 150, 32) } : cell('judged by eye'),
      cell(des.length ? des.map((d, i) => `${both[i]!.aspecular}° ${d.toFixed(1)}`).join('  ') : '', { fontSize: 8.5 }),
      cell(des.length ? Math.max(...des).toFixed(1) : '', { bold: true }),
      cell(seen.join('; '), { fontSize: 8.5 }),
    ];
  });
  return [
    heading(wanted.length ? 'Rungs over the target, face to flop' : 'Rungs, face to flop'),
    {
      table: {
        headerRows: 1,
        widths: ['auto', 156, 'auto', 'auto', '*'],
        body: [['coats', '', 'dE00', 'max', 'seen'].map((h) => cell(h, { color: '#444', fontSize: 8.5 })), ...rows],
      },
      layout: 'rungs',
    },
  ];
}

function otherCards(cards: readonly CardOfFinish[], shown: CardOfFinish | null): Content[] {
  const others = cards.filter((c) => c !== shown);
  if (!others.length) return [];
  return [
    heading('Other cards'),
    table(
      ['gun', 'rungs read', 'until'],
      others.map((c): TableCell[] => [
        cell(c.card.gun),
        cell(c.rungs.map((r) => coats(r.rungCoats!)).join(', ') || 'none'),
        cell(c.retiredAt?.slice(0, 10) ?? ''),
      ]),
    ),
  ];
}
