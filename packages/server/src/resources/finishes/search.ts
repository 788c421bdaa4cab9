import type { SQL } from 'drizzle-orm';
import { inArray, sql } from 'drizzle-orm';
import { cards, finishes, jobs } from '../../db/schema';

import { usesIt } from './summaries';

/** A word as a pattern that is found anywhere. */
export const anywhere = (word: string): string => `%${word.replace(/[\\%_]/g, '\\$&')}%`;

/** Words of a search, each once. */
export const wordsOf = (typed: string): string[] => [...new Set(typed.split(/\s+/).filter(Boolean))];

/** Every word stands in what the finish is called, matched to, mixed from, sprayed with or used for, or in its day. */
export function answersTo(word: string, mixesNamed: (word: string) => readonly string[]): SQL {
  const like = anywhere(word);
  const mixes = mixesNamed(word);
  return sql`(${finishes.name} ilike ${like} or ${finishes.codes}::text ilike ${like} or ${finishes.matching} ilike ${like}
    or ${finishes.family} ilike ${like} or to_char(${finishes.updatedAt}, 'YYYY-MM-DD') like ${like}
    or ${mixes.length ? inArray(finishes.mixId, [...mixes]) : sql`false`}
    or exists (select 1 from ${cards} where ${cards.finishId} = ${finishes.id} and ${cards.gun} ilike ${like})
    or exists (select 1 from ${jobs} where ${usesIt(sql`${finishes.id}`)} and ${jobs.piece} ilike ${like}))`;
}
