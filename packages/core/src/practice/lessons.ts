export const LESSON_IDS = ['overlap', 'edges', 'side'] as const;
export type LessonId = (typeof LESSON_IDS)[number];

/** What a coat came to, film in coats. */
export interface CoatFigures {
  /** Mean over the panel. */
  readonly film: number;
  /** Crest to trough of the lines across the passes, against the middle. */
  readonly across: number;
  /** Film along the left and right edge against the middle. */
  readonly edges: readonly [number, number];
  /** Film at the break between two panels against the middle; null on one panel. */
  readonly gap: number | null;
  /** Share of what left the gun and would have landed that went past the panel. */
  readonly beyond: number;
  readonly passes: number;
}

/** What is laid in a lesson, and when it is learned. */
export interface Lesson {
  readonly id: LessonId;
  readonly name: string;
  /** Widths of the panels, cm, left to right; a break lies between two. */
  readonly panels: readonly number[];
  readonly heightCm: number;
  /** Where the trigger belongs, cm past the edge. */
  readonly marginCm: number;
  /** Film that lies along the edges before the coat, cm from each: cut in first, as on a door. */
  readonly cutInCm: number;
  /** The goal in a sentence. */
  readonly goal: string;
  readonly passed: (f: CoatFigures) => boolean;
}

/** Crest to trough of an even coat, and film of edge and break against the middle; ours. */
const EVEN = 0.25;
const EDGE = 0.2;
const BREAK = 0.2;

export const LESSONS: readonly Lesson[] = [
  {
    id: 'overlap',
    name: 'Overlap',
    panels: [120],
    heightCm: 70,
    marginCm: 5,
    cutInCm: 0,
    goal: `Passes that lie half on one another: less than ${EVEN * 100} % from crest to trough across the passes.`,
    passed: (f) => f.across <= EVEN && f.passes >= 4,
  },
  {
    id: 'edges',
    name: 'Edges',
    panels: [120],
    heightCm: 70,
    marginCm: 0,
    cutInCm: 6,
    goal: `A door whose edges are cut in: the film at its edges within ${EDGE * 100} % of the middle.`,
    passed: (f) => f.edges.every((e) => Math.abs(e - 1) <= EDGE) && f.passes >= 4,
  },
  {
    id: 'side',
    name: 'Walk the side',
    panels: [60, 60],
    heightCm: 70,
    marginCm: 5,
    cutInCm: 0,
    goal: `Two panels as one: the film at the break within ${BREAK * 100} % of the middle, and no coarse stripes.`,
    passed: (f) => f.gap !== null && Math.abs(f.gap - 1) <= BREAK && f.across <= 2 * EVEN && f.passes >= 4,
  },
];

export const lessonOf = (id: LessonId): Lesson => LESSONS.find((l) => l.id === id)!;
export const widthOf = (lesson: Pick<Lesson, 'panels'>): number => lesson.panels.reduce((a, b) => a + b, 0);
