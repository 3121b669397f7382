import { leavingDescription, leavingTitle } from '@/core/keep/leaving';
import { randomBytes, randomUUID } from 'node:crypto';
import type { z } from 'zod';
import { linkSchema, type Link, type linkInputSchema } from '@/core/contracts/link';
import { sql } from '../db/sql';
import { env } from '../base/env';
import { notFound } from '../base/fault';
import { plainPicture } from '../keep/encode';
import { sweepMedia } from '../media/files';
import { getPaintable, getShot } from '../shots/rows';
import { openBase } from './base';

/** 128 bits, so that nobody finds a link by trying. */
const TOKEN_BYTES = 16;
const DAY = 86_400_000;

interface Row {
  id: string;
  token: string;
  views: number;
  madeAt: Date;
  endsAt: Date | null;
  mostViews: number | null;
  ended: boolean;
  title: string;
  film: string | null;
}

const hasEnded = (row: Row, now: Date): boolean =>
  row.ended ||
  (row.endsAt !== null && row.endsAt <= now) ||
  (row.mostViews !== null && row.views >= row.mostViews);

function toLink(row: Row): Link {
  const path = `/v/${row.token}`;
  const open = openBase();
  return linkSchema.parse({
    id: row.id,
    title: row.title,
    path,
    picturePath: `${path}.png`,
    film: row.film !== null,
    address: `http://127.0.0.1:${env().port}${path}`,
    openAddress: open && `${open}${path}`,
    madeAt: row.madeAt.toISOString(),
    endsAt: row.endsAt?.toISOString() ?? null,
    views: row.views,
    mostViews: row.mostViews,
    ended: hasEnded(row, new Date()),
  });
}

/**
 * An address under which the picture is seen as it leaves now. Nothing else of the shot is there:
 * no frame, no place of origin, and title and description only when asked for. @throws Fault 404
 */
export async function makeLink(
  shotId: string,
  input: z.output<typeof linkInputSchema>,
  now = new Date(),
): Promise<Link> {
  const shot = await getPaintable(shotId);
  const { png, width, height } = await plainPicture(shot);
  const words = input.words
    ? { title: leavingTitle(shot), description: leavingDescription(shot) ?? '' }
    : { title: '', description: '' };
  return insertLink({ shotId }, { ...words, width, height, bytes: png }, input, now);
}

/** What a link leads to: a shot's picture, or a guide as a page that shows these shots. */
type Of = { shotId: string } | { guideId: string; shows: readonly string[] };

/** Makes a link to what is seen there from now on. @throws Fault 404 */
export async function insertLink(
  of: Of,
  { bytes, width, height, title, description, film = null, filmType = null }: Seen,
  { days, mostViews }: Pick<z.output<typeof linkInputSchema>, 'days' | 'mostViews'>,
  now = new Date(),
): Promise<Link> {
  const ends = days === null ? null : new Date(now.getTime() + days * DAY);
  const [shot, guide, shows] =
    'shotId' in of ? [of.shotId, null, []] : [null, of.guideId, [...of.shows]];
  const [row] = await sql()<Row[]>`insert into links
    (id, shot_id, guide_id, shows, token, bytes, width, height, title, description, ends_at,
      most_views, film, film_type)
    values (${randomUUID()}, ${shot}, ${guide}, ${shows},
      ${randomBytes(TOKEN_BYTES).toString('base64url')}, ${Buffer.from(bytes)}, ${width}, ${height},
      ${title}, ${description}, ${ends}, ${mostViews}, ${film}, ${filmType})
    returning *`;
  if (!row) throw notFound(shot ? 'shot' : 'guide');
  return toLink(row);
}

const select = () => sql()`select id, token, views, made_at, ends_at, most_views, ended, title, film
  from links`;

/** The links that show a shot, in a guide too, newest first; ended ones too. @throws Fault 404 */
export async function listLinks(shotId: string): Promise<Link[]> {
  await getShot(shotId);
  const rows = await sql()<Row[]>`${select()}
    where shot_id = ${shotId} or ${shotId} = any(shows) order by made_at desc, id`;
  return rows.map(toLink);
}

const MOST_LISTED = 500;

/** Every link that still shows something, newest first. */
export async function openedLinks(): Promise<Link[]> {
  const rows = await sql()<Row[]>`${select()} where not ended
    order by made_at desc, id limit ${MOST_LISTED}`;
  return rows.map(toLink).filter((link) => !link.ended);
}

/** Takes a link back at once. @throws Fault 404 */
export async function takeBack(id: string): Promise<void> {
  const [gone] = await sql()<Pick<Row, 'film'>[]>`
    delete from links where id = ${id} returning film`;
  if (!gone) throw notFound('link');
  if (gone.film) await sweepMedia();
}

export interface Seen {
  bytes: Uint8Array;
  width: number;
  height: number;
  title: string;
  description: string;
  /** It is a guide, and its bytes a whole page. */
  guideId?: string | null;
  /** It is a film: a file among those of clips, whose first picture are the bytes. */
  film?: string | null;
  filmType?: string | null;
}

/** The film behind a page that was seen; null where it was taken back, or its time is over. */
export async function filmBehind(token: string, now: Date): Promise<Seen | null> {
  const [row] = await sql()<(Seen & Row)[]>`select * from links where token = ${token}`;
  return row && (row.endsAt === null || row.endsAt > now) ? row : null;
}

/**
 * What a token shows, counted as a view unless somebody only looks whether it is there; null for
 * none, an ended or a taken back one, which all look the same.
 */
export async function seenBy(token: string, now: Date, look: boolean): Promise<Seen | null> {
  if (!/^[A-Za-z0-9_-]{22}$/.test(token)) return null;
  const [row] = await sql()<(Seen & Row)[]>`select * from links where token = ${token}`;
  if (!row) return null;
  if (hasEnded(row, now)) {
    await sql()`update links set ended = true where id = ${row.id}`;
    return null;
  }
  if (look) return row;
  const counted = await sql()`update links set views = views + 1 where id = ${row.id}
    and (most_views is null or views < most_views)`;
  return counted.count === 0 ? null : row;
}
