import { ACCEPTED_OVER, DEFAULT_SCATTER, logScatter, type Scatter } from '../matching/risk';
import { normalCdf } from '../numeric/normal';
import { VERDICTS, type Verdict } from './eye';

/** What a look says of a place in a word. `unlike`: too light from one side and too dark from another, which no coat mends. */
export type LookWord = 'short' | 'matched' | 'over' | 'unlike';

/** What one place on the job says after some coats: how many coats of the card's it looks like, and how sure that is. */
export interface SpotEvidence {
  readonly spot: string;
  /** Coats sprayed there when it was looked at. */
  readonly sprayed: number;
  /** Coats of the card it looks like. */
  readonly looksLike: number;
  /** Standard deviation of that, as a fraction. */
  readonly sd: number;
  /** What the painter called it; left out for a reading, whose word follows from the window. */
  readonly word?: LookWord;
}

/** Where a place stands now. `again`: coats went on since it was looked at, so it has to be looked at before anything else. */
export type SpotZone = LookWord | 'again';

export interface SpotState {
  readonly spot: string;
  /** Film there in coats of the card: as it looked, and what went on since. */
  readonly film: number;
  readonly sd: number;
  /** Coats left to the best count; negative where it is beyond. */
  readonly left: number;
  /**
   * Coats, in quarter steps, that may still go on there: never beyond the best count, with at most one chance in twenty of going
   * over; nothing where it matched, is over, or has to be looked at again.
   */
  readonly spray: number;
  readonly zone: SpotZone;
}

export interface LiveState {
  /** Film of this session against the card, and its standard deviation, as a fraction: how much the next coat will lay. */
  readonly session: number;
  readonly sessionSd: number;
  readonly spots: readonly SpotState[];
}

/** How much more the looks at two places scatter than each by itself, as a fraction of the film: edges and overlaps; ours. */
const SPOT_SCATTER = 0.08;

/**
 * What verdicts from several places on one spot come to: too dark from any side is over, unless it is too light from another;
 * a match counts where more than half of them are one.
 */
export function wordOfVerdicts(verdicts: readonly Verdict[]): LookWord {
  const at = verdicts.map((v) => VERDICTS.indexOf(v) - VERDICTS.indexOf('match'));
  const [darker, lighter] = [at.some((k) => k > 0), at.some((k) => k < 0)];
  if (darker) return lighter ? 'unlike' : 'over';
  return at.filter((k) => k === 0).length * 2 > at.length || !lighter ? 'matched' : 'short';
}

/**
 * Where every place stands, from the newest look at it. A look is taken as it is: the session's film only says how much the next
 * coat will lay, and never overrules what was seen.
 * @param window counts that are inside (or nearest, where none is). @param sprayed coats on so far. @param evidence oldest first
 */
export function liveState(
  best: number,
  window: readonly [number, number],
  sprayed: number,
  evidence: readonly SpotEvidence[],
  scatter: Scatter = DEFAULT_SCATTER,
): LiveState {
  const looks = evidence.filter((e) => e.sprayed > 0 && e.looksLike > 0);
  const priorVar = scatter.session ** 2 + (sprayed > 0 ? scatter.coat ** 2 / sprayed : 0);
  const weightOf = (e: SpotEvidence) => 1 / (e.sd ** 2 + SPOT_SCATTER ** 2);
  const precision = 1 / priorVar + looks.reduce((s, e) => s + weightOf(e), 0);
  const session = Math.exp(looks.reduce((s, e) => s + Math.log(e.looksLike / e.sprayed) * weightOf(e), 0) / precision);
  const spots = [...new Set(looks.map((e) => e.spot))].map((spot): SpotState => {
    const own = looks.filter((e) => e.spot === spot);
    // Readings, eyes and patches of the newest look there count together.
    const newest = own.filter((e) => e.sprayed === own.at(-1)!.sprayed);
    const on = newest[0]!.sprayed;
    const sure = newest.reduce((s, e) => s + 1 / (e.sd * e.looksLike) ** 2, 0);
    const seen = newest.reduce((s, e) => s + e.looksLike / (e.sd * e.looksLike) ** 2, 0) / sure;
    const since = Math.max(0, sprayed - on);
    const film = seen + since * session;
    const doubt = Math.hypot(
      Math.sqrt(1 / sure),
      since > 0 ? logScatter(since, { session: 0, coat: scatter.coat }) * since * session : 0,
    );
    const word = worst(newest.map((e) => e.word ?? wordOfFilm(e.looksLike, window)));
    const zone: SpotZone =
      since < 1e-9 || word === 'over' ? word : word === 'short' && film < window[0] ? 'short' : 'again';
    return {
      spot,
      film,
      sd: doubt / film,
      left: best - film,
      spray: zone === 'short' ? safeCoats(film, doubt, best, window[1], scatter, session) : 0,
      zone,
    };
  });
  return { session, sessionSd: Math.sqrt(1 / precision), spots };
}

const wordOfFilm = (film: number, window: readonly [number, number]): LookWord =>
  film > window[1] ? 'over' : film < window[0] ? 'short' : 'matched';

/** Of several looks at one place the one that forbids most. */
function worst(words: readonly LookWord[]): LookWord {
  return (['over', 'unlike', 'matched'] as const).find((w) => words.includes(w)) ?? 'short';
}

/** A mist coat, the smallest step that is laid evenly: a quarter of a full one. */
const STEP = 0.25;
/** Most that is advised at once before the next look. */
const MOST_AT_ONCE = 0.5;

/** Coats in quarter steps after which at most one in twenty is over the window, and never more than the best count needs. */
function safeCoats(
  film: number,
  doubt: number,
  best: number,
  upper: number,
  scatter: Scatter,
  session: number,
): number {
  let safe = 0;
  for (let n = STEP; n <= 8; n += STEP) {
    const after = film + n * session;
    const sd = Math.hypot(doubt, logScatter(n, { session: 0, coat: scatter.coat }) * n * session) / after;
    const over = 1 - normalCdf(Math.log(upper / after) / sd);
    if (over > ACCEPTED_OVER || after > best + 1e-9) break;
    safe = n;
  }
  return safe;
}

/** What to do next on the object, from its worst place. */
export interface LiveAdvice {
  /**
   * `look`: before anything else; `over`: some place is; `coat`: all that was looked at is short; `faded`: only some places are;
   * `unlike`: no coat mends it; `unsure`: something is missing, but what was seen is too unsure to lay it; `rest`: what is missing
   * is less than can be laid; `there`: stop, it matches.
   */
  readonly kind: 'look' | 'over' | 'coat' | 'faded' | 'unlike' | 'unsure' | 'rest' | 'there';
  /** Coats to lay at the places that are short, a quarter or a half; 0 where nothing is advised. */
  readonly amount: number;
  /** Places to lay it on; empty where nothing is advised. */
  readonly on: readonly SpotState[];
  /** Places that were looked at and must not get it. */
  readonly keepOff: readonly SpotState[];
}

/** A place that misses a mist coat or more and gets none, since what was seen there is too unsure. */
export const isUnsure = (s: SpotState): boolean => s.zone === 'short' && s.spray === 0 && s.left >= STEP;

/** The next step, from the worst place first; nothing is ever advised on a place that matched or is over. */
export function liveAdvice(state: LiveState): LiveAdvice {
  const of = (...zones: SpotZone[]) => state.spots.filter((s) => zones.includes(s.zone));
  const on = of('short').filter((s) => s.spray > 0);
  const keepOff = state.spots.filter((s) => !on.includes(s));
  const amount = on.length ? Math.min(MOST_AT_ONCE, ...on.map((s) => s.spray)) : 0;
  const plain = (kind: LiveAdvice['kind']): LiveAdvice => ({ kind, amount: 0, on: [], keepOff: state.spots });
  if (!state.spots.length) return plain('look');
  if (of('over').length) return { kind: 'over', amount, on, keepOff };
  if (of('again').length) return plain('look');
  if (on.length) return { kind: keepOff.length ? 'faded' : 'coat', amount, on, keepOff };
  if (of('unlike').length) return plain('unlike');
  if (of('short').some(isUnsure)) return plain('unsure');
  return plain(of('short').length ? 'rest' : 'there');
}
