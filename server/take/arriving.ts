import { mkdir, readdir, readFile, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { provenanceSchema, type Provenance } from '@/core/contracts/provenance';
import { env } from '../base/env';
import { UUID } from '../http/route';
import { writeWhole } from '../keep/write';
import { storeShot } from '../shots/store';

/** What is on the clipboard and not yet stored: two files each, from which a later start stores it. */
const folder = (): string => join(env().dataDir, 'arriving');

const files = (id: string) => ({
  picture: join(folder(), `${id}.png`),
  facts: join(folder(), `${id}.json`),
});

/** Holds a picture until it is stored under this id. */
export async function holdArriving(
  id: string,
  png: Uint8Array,
  provenance: Provenance,
): Promise<void> {
  await mkdir(folder(), { recursive: true, mode: 0o700 });
  const { picture, facts } = files(id);
  await Promise.all([
    writeWhole(picture, png),
    writeWhole(facts, Buffer.from(JSON.stringify(provenance))),
  ]);
}

/** It is stored, or was never shown to anybody. */
export async function letArrivingGo(id: string): Promise<void> {
  await Promise.all(Object.values(files(id)).map((path) => rm(path, { force: true })));
}

/** Stores what an earlier run was killed over. What cannot be stored stays where it is, and is said. */
export async function storeArriving(): Promise<void> {
  const names = await readdir(folder()).catch(() => []);
  for (const name of names) {
    // Half a file: its picture was never offered to anybody.
    if (name.endsWith('.part')) await rm(join(folder(), name), { force: true });
    const [id = '', ending] = name.split('.');
    if (ending !== 'png' || !UUID.test(id)) continue;
    await storeOne(id).catch((error: unknown) =>
      console.error(`${files(id).picture} could not be stored:`, error),
    );
  }
}

async function storeOne(id: string): Promise<void> {
  const { picture, facts } = files(id);
  const told = await readFile(facts, 'utf8')
    .then((text) => provenanceSchema.parse(JSON.parse(text)))
    // Killed between the two: the picture is what matters.
    .catch((): Provenance => ({ source: 'display', takenAt: new Date().toISOString() }));
  await storeShot({ id, picture: await readFile(picture), provenance: told });
  await letArrivingGo(id);
}
