import { migrate } from './db/migrate';
import { startWatching } from './display/systemKeys';
import { fillDemo } from './demo/fill';
import { env } from './env';
import { mendCopies } from './keep/copies';

/** Brings the database up to date, mends what a crash left, and fills the demo data when asked. */
export async function prepare(): Promise<void> {
  await migrate();
  await mendCopies();
  if (env().demo) await fillDemo();
  startWatching();
}
