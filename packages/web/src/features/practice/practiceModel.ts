import { de2000, type Lab } from '@steady-gleam/core/colour';
import { FAMILIES } from '@steady-gleam/core/finishes';
import { findGround, type EffectMix, type Library } from '@steady-gleam/core/materials';
import { interpolateLabs } from '@steady-gleam/core/matching';
import type { CoatReview, Habit, Lesson, PracticeGun } from '@steady-gleam/core/practice';
import { STARTING_GUNS, type Gun } from '@steady-gleam/core/products';
import { crestAndTrough } from '@steady-gleam/core/spraying';

/** Of the five angles. */
export const [FACE, FLOP] = [0, 4] as const;
/** Film that colours are worked out to, coats: a third coat laid twice over. */
export const MOST_FILM = 8;
export const MOST_COATS = 3;
/** Guns with a smaller fan need too long for a panel. */
const LEAST_FAN_CM = 10;

/** What is sprayed in practice: a mix of the shop over the ground its family usually has. */
export interface PracticeStack {
  readonly mixId: string;
  readonly groundId: string;
  readonly name: string;
}

/** Mixes that are seen to the full count, a clear dye over flakes first: there stripes are seen best. */
export function stacksOf(library: Library): PracticeStack[] {
  const showsStripes = (m: EffectMix) =>
    !m.flakes.length && !FAMILIES[m.family].patches && !!groundOf(m, library).flakes;
  return library.systems
    .filter((m) => FAMILIES[m.family].wanted === 'colour')
    .sort((a, b) => Number(showsStripes(b)) - Number(showsStripes(a)))
    .map((m) => {
      const ground = groundOf(m, library);
      return { mixId: m.id, groundId: ground.id, name: `${m.name} over ${ground.name}` };
    });
}

const groundOf = (m: EffectMix, library: Library) => findGround(FAMILIES[m.family].start.groundId, library.grounds);

/** Guns of the shop that a panel can be sprayed with; those a shop starts with while it knows none. */
export function practiceGuns(guns: readonly Gun[] | undefined): readonly Gun[] {
  const wide = (of: readonly Gun[]) => of.filter((g) => g.fanCm >= LEAST_FAN_CM);
  const own = wide(guns ?? []);
  return own.length ? own : wide(STARTING_GUNS);
}

/** Overlap that a pass at the gun's own speed is reckoned with; common practice (no source). */
export const OWN_OVERLAP = 0.5;
export const practiceGun = (g: Gun): PracticeGun => ({ ...g, profile: 'bell', overlap: OWN_OVERLAP });

/** Crest over trough of a film as it is seen at face and flop, CIEDE2000: as a picture of passes has it. */
export function stripesSeen(
  film: Float64Array,
  look: readonly (readonly Lab[])[],
  most: number,
): { readonly face: number; readonly flop: number } {
  const films = look.map((_, i) => (most * i) / (look.length - 1));
  const { crest, trough } = crestAndTrough(film);
  const [high, low] = [crest, trough].map((f) => interpolateLabs(films, look, Math.min(most, f)));
  return { face: de2000(high![FACE]!, low![FACE]!), flop: de2000(high![FLOP]!, low![FLOP]!) };
}

const percent = (v: number) => `${Math.round(100 * v)} %`;

/** What is said over the panel: of the coat that was laid, or of the one that comes. */
export function sayCoatSoFar(
  lesson: Lesson,
  review: CoatReview | null,
  habit: Habit | null,
  before: Habit | null,
): string {
  if (!review?.rows.length)
    return before
      ? `This time: ${before.said.charAt(0).toLowerCase()}${before.said.slice(1)}`
      : `Lay one even coat, ${lesson.panels.length > 1 ? 'over both panels' : 'edge to edge'}.`;
  if (!review.isCovered) return 'Go on: the panel is not covered yet.';
  if (lesson.passed(review.figures)) return habit ? 'That is the goal.' : 'That is the goal: an even coat.';
  return habit ? habit.said : 'Not even yet, and no one thing is at fault: lay it again.';
}

/** The figures of a coat, with their units. */
export function figureRows(
  { figures, hand, points }: CoatReview,
  seen: { readonly face: number; readonly flop: number } | null,
): (readonly [string, string])[] {
  return [
    ['points, of 100', String(points)],
    ['film, of 1 coat', `${figures.film.toFixed(2)} coats`],
    ['crest to trough, across', percent(figures.across)],
    ...(seen ? [['seen, face / flop', `dE ${seen.face.toFixed(1)} / ${seen.flop.toFixed(1)}`] as const] : []),
    ['edges, left / right', figures.edges.map(percent).join(' / ')],
    ...(figures.gap === null ? [] : [['at the break', `${figures.gap.toFixed(2)} ×`] as const]),
    ['past the panel', percent(figures.beyond)],
    ...(hand ? [['overlap', percent(hand.overlap)] as const] : []),
  ];
}
