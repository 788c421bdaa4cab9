import { cardSd, looksLeftAfter, wantedAt, type CardSaid } from './advise';
import { filmByEye } from './eye';
import type { EyeRead } from './eyeSight';
import { VERDICTS, type EyeView, type RungVerdict, type Verdict } from './eyeWords';
import { PLACE_FILM_SD, type LookSays } from './looks';
import { amountChances, nextAmount, type Chances, type Wanted } from './rule';

/** What a look says of a place in a word. `unlike`: too light from one side and too dark from another, which no coat mends. */
export type LookWord = 'short' | 'matched' | 'over' | 'unlike';

/** What one look at a place on the job says. */
export interface SpotLook {
  readonly spot: string;
  readonly says: LookSays;
  /** What the painter called it; left out for a reading, whose word follows from the window. */
  readonly word?: LookWord;
}

/** Where a place stands now. `again`: coats went on since it was looked at, so it has to be looked at before anything else. */
export type SpotZone = LookWord | 'again';

export interface SpotState {
  readonly spot: string;
  /** Film there in coats of the card, as it looked and with what went on since, and its standard deviation. */
  readonly film: number;
  readonly sd: number;
  /** Coats of today left to the best count; negative where it is beyond. */
  readonly left: number;
  /** Coats, in tenths, that may still go on there; nothing where it matched, is over, or has to be looked at again. */
  readonly spray: number;
  /** Of that amount; null where nothing is advised. */
  readonly chances: Chances | null;
  readonly zone: SpotZone;
  /** It was judged by eye: a match stops it, however little is still missing. */
  readonly byEye: boolean;
  /** What is believed of the film still wanted there, the place taken by itself: it may have missed a pass. */
  readonly wanted: Wanted;
}

export interface LiveState {
  /** Film of this session against the card, and its standard deviation, as a fraction. */
  readonly session: number;
  readonly sessionSd: number;
  readonly spots: readonly SpotState[];
}

/** What a session differs by from its card before it is looked at, and how much single looks scatter; ln. */
const [SESSION_SD, COAT_SD, LOOK_SD] = [0.085, 0.1, 0.1] as const;
/** What hands of one session differ by on a job, as a share: how far an eye can tell the film of a coat. */
const HAND_SHARE = 0.15;
/** How much of the count's own doubt a look beside the target has: what the ladder's slope changes by over it. */
const OF_THE_COUNT = 0.25;
/** How sure a comparison of contrast patches is of the film, as a fraction. Common practice (no source). */
const PATCH_SD = 0.08;

/**
 * What verdicts from several places on one spot come to. `more` is what too many coats look like from a place: darker on most
 * ladders, lighter where coats brighten. Over from any side is over, unless it is short from another; a match counts where more
 * than half of them are one, unless it is short in low light: what glares in the sun hides it there.
 * @param views they were said from, where low light is among them
 */
export function wordOfVerdicts(
  verdicts: readonly Verdict[],
  more: readonly ('darker' | 'lighter')[] = [],
  views: readonly EyeView[] = [],
): LookWord {
  const at = verdicts.map(
    (v, i) => (VERDICTS.indexOf(v) - VERDICTS.indexOf('match')) * (more[i] === 'lighter' ? -1 : 1),
  );
  const [beyond, short] = [at.some((k) => k > 0), at.some((k) => k < 0)];
  if (beyond) return short ? 'unlike' : 'over';
  if (at.some((k, i) => k < 0 && views[i] === 'low light')) return 'short';
  return at.filter((k) => k === 0).length * 2 > at.length || !short ? 'matched' : 'short';
}

const ofCard = (card: CardSaid): Pick<LookSays, 'targetVariance' | 'window' | 'inside' | 'closes'> => ({
  targetVariance: cardSd(card) ** 2,
  window: [card.window.counts[0] - card.best, card.window.counts[1] - card.best],
  inside: card.window.inside,
  closes: card.window.closes,
});

/** A look by eye as what it says of the film. @param verdicts of one place at one count */
export function sayEyeLook(
  card: CardSaid,
  read: EyeRead,
  verdicts: readonly RungVerdict[],
  sprayed: number,
  word: LookWord,
): LookSays {
  // A match is the best count by its own word, not pulled towards anything.
  const film =
    word === 'matched' ? { mean: card.best, sd: 0.1 * card.best } : filmByEye(verdicts, read, card.best, sprayed);
  return {
    ...ofCard(card),
    // Held against the target itself, it says how far the film is from it; where on the ladder that is matters little.
    targetVariance: (OF_THE_COUNT * cardSd(card)) ** 2,
    sprayed,
    looksLike: film.mean,
    film: card.best - film.mean,
    lookVariance: film.sd ** 2,
    wet: true,
    tells: (HAND_SHARE * sprayed) ** 2 / ((HAND_SHARE * sprayed) ** 2 + film.sd ** 2),
  };
}

/** A contrast patch that looks like the card's at a count. */
export function sayPatch(card: CardSaid, patch: number, sprayed: number): LookSays {
  return {
    ...ofCard(card),
    sprayed,
    looksLike: patch,
    film: card.best - patch,
    lookVariance: (PATCH_SD * Math.max(0.5, patch)) ** 2,
    wet: true,
    tells: 1,
  };
}

/**
 * Where every place stands, from the looks at it. A look is taken as it is: card and gun only help where it is unsure.
 * @param sprayed coats on so far. @param looks oldest first. @param at coats on at one place, where more or less went on there
 */
export function liveState(
  card: CardSaid,
  sprayed: number,
  looks: readonly SpotLook[],
  at: (spot: string) => number = () => sprayed,
): LiveState {
  const seen = looks.filter((l) => l.says.sprayed > 0 && l.says.looksLike > 0);
  const precision = 1 / (SESSION_SD ** 2 + (sprayed > 0 ? COAT_SD ** 2 / sprayed : 0)) + seen.length / LOOK_SD ** 2;
  const session = Math.exp(
    seen.reduce((s, l) => s + Math.log(l.says.looksLike / l.says.sprayed), 0) / LOOK_SD ** 2 / precision,
  );
  const places = [...new Set(seen.map((l) => l.spot))];
  // Where places are told apart one may be off by much more than the job is.
  const strays = places.length > 1 ? PLACE_FILM_SD : undefined;
  const spots = places.map((spot): SpotState => {
    const own = seen.filter((l) => l.spot === spot);
    const newest = own.filter((l) => l.says.sprayed === own.at(-1)!.says.sprayed);
    const times = new Set(own.map((l) => l.says.sprayed)).size;
    const says = own.map((l) => l.says);
    const on = newest[0]!.says.sprayed;
    const there = at(spot);
    const since = there - on;
    // What was seen is told of what was on then.
    const then = wantedAt(card, says, on, strays);
    const wanted = since > 0 ? wantedAt(card, says, there, strays) : then;
    const left = looksLeftAfter(times);
    const advisedThen = nextAmount(then, left);
    const advised = since > 0 ? nextAmount(wanted, left) : advisedThen;
    const sure = newest.reduce((s, l) => s + 1 / l.says.lookVariance, 0);
    const looked = newest.reduce((s, l) => s + l.says.looksLike / l.says.lookVariance, 0) / sure;
    const byWord = newest.flatMap((l) => l.word ?? []);
    const reading: LookWord =
      then.film + then.window[1] < 0 ? 'over' : then.film + then.window[0] > 0 || advisedThen > 0 ? 'short' : 'matched';
    const word = worst([...byWord, ...(byWord.length === newest.length ? [] : [reading])]);
    const surely = word === 'short' && wanted.film + wanted.window[0] > 0;
    const zone: SpotZone = since < 1e-9 || word === 'over' || surely ? word : 'again';
    const spray = zone === 'short' ? advised : 0;
    return {
      spot,
      film: looked + since * wanted.rate,
      sd: Math.sqrt(1 / sure),
      left: wanted.film / wanted.rate,
      spray,
      chances: spray > 0 ? amountChances(spray, wanted) : null,
      zone,
      byEye: byWord.length > 0,
      wanted: wantedAt(card, says, there, PLACE_FILM_SD),
    };
  });
  return { session, sessionSd: Math.sqrt(1 / precision), spots };
}

/** Of several looks at one place the one that forbids most. */
function worst(words: readonly LookWord[]): LookWord {
  return (['over', 'unlike', 'matched'] as const).find((w) => words.includes(w)) ?? 'short';
}

/** A mist coat, the smallest step that is laid evenly: a quarter of a full one. */
const STEP = 0.25;

/** What to do next on the object, from its worst place. */
export interface LiveAdvice {
  /**
   * `look`: before anything else; `over`: some place is; `coat`: all that was looked at is short; `faded`: only some places are;
   * `unlike`: no coat mends it; `unsure`: something is missing, but what was seen is too unsure to lay it; `rest`: what is missing
   * is less than can be laid; `there`: stop, it matches.
   */
  readonly kind: 'look' | 'over' | 'coat' | 'faded' | 'unlike' | 'unsure' | 'rest' | 'there';
  /** Coats to lay at the places that are short, in tenths; 0 where nothing is advised. */
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
  const amount = on.length ? Math.min(...on.map((s) => s.spray)) : 0;
  const plain = (kind: LiveAdvice['kind']): LiveAdvice => ({ kind, amount: 0, on: [], keepOff: state.spots });
  if (!state.spots.length) return plain('look');
  if (of('over').length) return { kind: 'over', amount, on, keepOff };
  if (of('again').length) return plain('look');
  if (on.length) return { kind: keepOff.length ? 'faded' : 'coat', amount, on, keepOff };
  if (of('unlike').length) return plain('unlike');
  if (of('short').some(isUnsure)) return plain('unsure');
  return plain(of('short').length ? 'rest' : 'there');
}
