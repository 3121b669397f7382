import type postgres from 'postgres';
import type { Provenance } from '@/core/contracts/provenance';
import { contains, centre, type Rect } from '@/core/geometry/rect';
import type { Paragraph } from '@/core/recognition/words';
import { shared } from '../base/shared';
import { getSettings } from '../settings/settings';
import { packWords } from './rows';
import { WORDS } from './wanted';

/** So many pictures whose words are known wait to be stored, and not for ever, ms. */
const MOST = 10;
const STAYS = 15 * 60_000;

const held = shared('knownWords', () => new Map<string, readonly Paragraph[]>());

const keyOf = ({ address, takenAt }: Pick<Provenance, 'address' | 'takenAt'>): string =>
  `${new Date(takenAt).getTime()} ${address ?? ''}`;

/** What stands in a picture that is about to be stored, told by what it was made from. */
export function rememberWords(
  of: Pick<Provenance, 'address' | 'takenAt'>,
  words: readonly Paragraph[],
): void {
  const key = keyOf(of);
  held.set(key, words);
  for (const old of [...held.keys()].slice(0, -MOST)) held.delete(old);
  setTimeout(() => held.delete(key), STAYS).unref();
}

/** What is known of a new shot; null where its words have to be read, or shall not be known at all. */
export async function knownWords(provenance: Provenance): Promise<readonly Paragraph[] | null> {
  const words = provenance.source === 'web' ? held.get(keyOf(provenance)) : undefined;
  return words && (await getSettings()).readWords ? words : null;
}

/** Stores what is known of a new shot as if it had been read, in the transaction that stores the shot. */
export async function giveKnown(
  tx: postgres.TransactionSql,
  id: string,
  words: readonly Paragraph[],
  crop: Rect,
): Promise<void> {
  const seen = words.map((lines) =>
    lines.map((line) =>
      line
        .filter(({ box }) => contains(crop, centre(box)))
        .map(({ text, box }) => ({
          text,
          box: { ...box, x: box.x - crop.x, y: box.y - crop.y },
        })),
    ),
  );
  const { lines, boxes } = packWords(seen);
  await tx`insert into words (shot_id, revision, lines, boxes)
    select id, revision, ${lines}, ${boxes} from shots where id = ${id}`;
  await tx`insert into jobs (id, kind, state, done_at) values (${id}, ${WORDS}, 'done', now())`;
}
