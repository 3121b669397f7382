import type postgres from 'postgres';
import type { Help } from '@/core/contracts/search';
import { nearest } from '@/core/search/alike';
import { asking, type Query } from '@/core/search/query';
import { sql } from '../db/sql';
import { conditions } from './conditions';
import type { TagIds } from '../indexing/tagIds';

/** Only so many parts are tried: each is a question to the database. */
const TRIED = 6;

/**
 * What may be changed about a query that found nothing.
 * @param place which shots are looked at, as a condition on `s`
 */
export async function helpFor(
  query: Query,
  place: postgres.PendingQuery<postgres.Row[]>,
  tags: TagIds,
): Promise<Help> {
  const parts = asking(query).slice(0, TRIED);
  const db = sql();
  const findsWithout = async (part: Query['parts'][number]): Promise<boolean> => {
    const rest = { parts: query.parts.filter((other) => other !== part) };
    if (asking(rest).length === 0) return false;
    const [row] = await db`select 1 from search x join shots s on s.id = x.shot_id
      where ${place} and ${conditions(rest, tags)} limit 1`;
    return row !== undefined;
  };
  const loosen: number[] = [];
  const instead: Help['instead'] = [];
  for (const part of parts) {
    const number = query.parts.indexOf(part);
    if (await findsWithout(part)) loosen.push(number);
    const { asks, without } = part;
    if (asks.kind !== 'words' || without) continue;
    for (const typed of asks.tokens) {
      const word = await knownLike(typed);
      if (word) instead.push({ part: number, typed, word });
    }
  }
  return { loosen, instead };
}

/** Words alike that are compared letter by letter. */
const CANDIDATES = 30;

/** The known word that is spelled most like one that nobody knows; null where that is known itself. */
async function knownLike(token: string): Promise<string | null> {
  if (token.length < 4 || token.length > 40) return null;
  const rows = await sql().begin('read only', async (tx) => {
    // A word of five letters with two of them swapped shares few of its threes.
    await tx`set local pg_trgm.similarity_threshold = 0.2`;
    return tx<{ word: string }[]>`select word from known_words where word % ${token}
      order by starts_with(word, ${token}) desc, similarity(word, ${token}) desc, shots desc, word
      limit ${CANDIDATES}`;
  });
  const words = rows.map(({ word }) => word);
  return words.some((word) => word.startsWith(token)) ? null : nearest(token, words);
}
