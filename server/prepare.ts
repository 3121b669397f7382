import { migrate } from './db/migrate';
import { startWatching } from './display/systemKeys';
import { fillDemo } from './demo/fill';
import { env } from './env';
import { mendCopies } from './keep/mend';
import { openLinks } from './links/listener';
import { resumePractice } from './remote/ownPractice';
import { startSendingAgain } from './remote/queue';
import { getSettings } from './settings/settings';

/** Brings the database up to date, mends what a crash left, and fills the demo data when asked. */
export async function prepare(): Promise<void> {
  await migrate();
  await mendCopies();
  if (env().demo) await fillDemo();
  startWatching();
  const { linkPort } = await getSettings();
  await openLinks(linkPort).catch((error: unknown) => console.error('Links stay closed:', error));
  await resumePractice().catch((error: unknown) => console.error('No practice remote:', error));
  startSendingAgain();
}
