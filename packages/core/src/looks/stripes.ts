import { de2000 } from '../colour/difference';
import type { Lab } from '../colour/lab';
import { crestAndTrough, passChanges, passFilm, STRIPES_SEEN, type PassFilm, type PassSetup } from '../spraying/passes';
import { lookAt, type LookLadder } from './effectLadder';

/** A ladder goes to this many times the film meant: a doubled edge of an unsteady hand lies below it. */
const LADDER_TO = 3;
/** Draws of the hand behind a figure of stripes, the same for every set-up that is compared. */
const STRIPE_SEEDS = Array.from({ length: 15 }, (_, i) => 7 + i);
/** Distance of places where stripes are judged, cm, and the fewest of them. */
const DRAW_CM = 0.6;
const LEAST_PLACES = 20;
/** Places of a stripe picture. */
const [STRIPE_COLUMNS, STRIPE_ROWS] = [260, 150] as const;
/** Looks a picture is drawn with. */
const LOOKS = 64;
/** Of the five angles: face is 15 degrees from the mirror, flop 110. */
const [FACE, FLOP] = [0, 4] as const;
/** Where nothing hides them, what does nearly the most is good enough; ours. */
const NEARLY = 1.1;
/** A change that helps less is not worth the words; CIEDE2000, ours. */
const LEAST_HELP = 0.02;

export interface StripesLook {
  readonly columns: number;
  readonly rows: number;
  /** Nominal full coats, row by row. */
  readonly film: Float32Array;
  readonly crest: number;
  readonly trough: number;
  /** Difference of crest and trough at the face and in the flop, CIEDE2000: the median of many draws of the hand. */
  readonly face: number;
  readonly flop: number;
  /** The worse of both in the luckiest and the unluckiest tenth of the draws. */
  readonly spread: readonly [number, number];
  /** Film of the first and the last look, evenly spaced between; Lab per angle of the five. */
  readonly from: number;
  readonly to: number;
  readonly lut: readonly (readonly Lab[])[];
  readonly change: {
    readonly name: string;
    readonly setup: PassSetup;
    readonly worst: number;
    readonly spread: readonly [number, number];
    /** It makes the stripes invisible; otherwise it only helps most. */
    readonly hides: boolean;
  } | null;
}

/** Film a ladder has to reach for a set-up, nominal coats. */
export const stripesReach = (setup: PassSetup): number => setup.coats.reduce((a, b) => a + b, 0) * LADDER_TO;

interface Judged {
  readonly film: PassFilm;
  readonly crest: number;
  readonly trough: number;
  readonly face: number;
  readonly flop: number;
  readonly worst: number;
}

/** Crest and trough of a film as they are seen. */
function judge(ladder: LookLadder, setup: PassSetup, columns: number, rows: number): Judged {
  const film = passFilm(setup, columns, rows);
  const ends = crestAndTrough(film.film);
  const [high, low] = [lookAt(ladder, ends.crest), lookAt(ladder, ends.trough)];
  const face = de2000(high[FACE]!, low[FACE]!);
  const flop = de2000(high[FLOP]!, low[FLOP]!);
  return { film, ...ends, face, flop, worst: Math.max(face, flop) };
}

/**
 * A set-up sprayed with the same hands many times, for one stroke of luck decides nothing. Places are as far apart along as across, so
 * that crossed coats are judged like the others.
 */
function drawn(ladder: LookLadder, setup: PassSetup) {
  const width = setup.panels.reduce((a, b) => a + b, 0);
  const rows = Math.max(LEAST_PLACES, Math.round(setup.heightCm / DRAW_CM));
  const columns = Math.max(LEAST_PLACES, Math.round(width / DRAW_CM));
  const all = STRIPE_SEEDS.map((seed) => judge(ladder, { ...setup, seed }, columns, rows));
  const at = (key: 'worst' | 'face' | 'flop', q: number) =>
    all.map((d) => d[key]).sort((a, b) => a - b)[Math.round(q * (STRIPE_SEEDS.length - 1))]!;
  return {
    all,
    worst: at('worst', 0.5),
    face: at('face', 0.5),
    flop: at('flop', 0.5),
    spread: [at('worst', 0.1), at('worst', 0.9)] as const,
  };
}

/** The cheapest change that hides stripes which are seen so much, or what does nearly the most. */
function cheapestChange(ladder: LookLadder, setup: PassSetup, worst: number): StripesLook['change'] {
  const tried = passChanges(setup).map((c) => ({ ...c, ...drawn(ladder, c.setup) }));
  const good = tried.find((c) => c.worst <= STRIPES_SEEN);
  const least = Math.min(...tried.map((c) => c.worst));
  const best = good ?? tried.find((c) => c.worst <= least * NEARLY);
  return best && best.worst < worst - LEAST_HELP
    ? { name: best.name, setup: best.setup, worst: best.worst, spread: best.spread, hides: !!good }
    : null;
}

/** What a way of spraying leaves on a panel. @param ladder reaches the film of {@link stripesReach} */
export function stripesSeen(ladder: LookLadder, setup: PassSetup): StripesLook {
  const typical = drawn(ladder, setup);
  // The picture shows the panel of the draw that is nearest to the median.
  const fromTypical = (i: number) => Math.abs(typical.all[i]!.worst - typical.worst);
  const pictured = STRIPE_SEEDS.map((_, i) => i).reduce((a, b) => (fromTypical(b) < fromTypical(a) ? b : a));
  const now = judge(ladder, { ...setup, seed: STRIPE_SEEDS[pictured]! }, STRIPE_COLUMNS, STRIPE_ROWS);
  const [from, to] = [now.trough * 0.9, now.crest * 1.1];
  return {
    columns: STRIPE_COLUMNS,
    rows: STRIPE_ROWS,
    film: Float32Array.from(now.film.film),
    crest: now.crest,
    trough: now.trough,
    face: typical.face,
    flop: typical.flop,
    spread: typical.spread,
    from,
    to,
    lut: Array.from({ length: LOOKS }, (_, i) => lookAt(ladder, from + ((to - from) * i) / (LOOKS - 1))),
    change: typical.worst > STRIPES_SEEN ? cheapestChange(ladder, setup, typical.worst) : null,
  };
}
