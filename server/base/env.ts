import { homedir } from 'node:os';
import { delimiter, join, resolve } from 'node:path';
import { z } from 'zod';

const schema = z.object({
  DATABASE_URL: z.string().min(1),
  REZZIK_PORT: z.coerce.number().int().min(1).max(65535).default(4310),
  REZZIK_DATA: z.string().optional(),
  REZZIK_ROOTS: z.string().optional(),
  REZZIK_DEMO: z.string().optional(),
  REZZIK_DESCRIBING_MS: z.coerce.number().positive().default(1_200),
  REZZIK_FILM_NICENESS: z.coerce.number().int().min(0).max(19).default(10),
  REZZIK_READING: z.string().optional(),
  REZZIK_READING_MS: z.coerce.number().positive().default(180_000),
  DISPLAY: z.string().optional(),
  WAYLAND_DISPLAY: z.string().optional(),
  XDG_SESSION_TYPE: z.string().optional(),
});

export interface Env {
  databaseUrl: string;
  port: number;
  dataDir: string;
  /** The folders that kept copies may be put in or below. */
  roots: string[];
  demo: boolean;
  /** How long programs may take to tell of their parts, ms: a person waits meanwhile. */
  describing: number;
  /** How far films stand back behind other work (`nice`), 0 … 19. */
  filmNiceness: number;
  /** Words in pictures may be read in the background at all. */
  reading: boolean;
  /** How long reading one picture may take, ms, what it waits for others not counted. */
  readingTime: number;
  /** The X display of this computer, if there is one. */
  display: string | null;
  /** True in a Wayland session, where X sees only its own programs. */
  wayland: boolean;
}

/** What the surroundings say; read each time, so tests can set it. */
export function env(): Env {
  const read = schema.parse(process.env);
  const dataDir = resolve(read.REZZIK_DATA ?? '.data');
  const roots = read.REZZIK_ROOTS?.split(delimiter)
    .filter(Boolean)
    .map((r) => resolve(r));
  return {
    databaseUrl: read.DATABASE_URL,
    port: read.REZZIK_PORT,
    dataDir,
    roots: roots?.length ? roots : [homedir(), join(dataDir, 'kept')],
    demo: read.REZZIK_DEMO === '1',
    describing: read.REZZIK_DESCRIBING_MS,
    filmNiceness: read.REZZIK_FILM_NICENESS,
    reading: read.REZZIK_READING !== '0',
    readingTime: read.REZZIK_READING_MS,
    display: read.DISPLAY || null,
    wayland: Boolean(read.WAYLAND_DISPLAY) || read.XDG_SESSION_TYPE === 'wayland',
  };
}
