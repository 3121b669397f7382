import { migrate } from './db/migrate';
import { dropBefore } from './db/before';
import { openAll, sql } from './db/sql';
import { storeArriving } from './take/arriving';
import { forgetFile } from './display/clipboardForms';
import { startWatching } from './take/systemKeys';
import { fillDemo } from './demo/fill';
import { env } from './base/env';
import { mendCopies } from './keep/mend';
import { sweepMedia } from './media/files';
import { startJobs } from './jobs/run';
import { openLinks } from './door/listener';
import { resumePractice } from './remote/ownPractice';
import { sealOld } from './remote/sealed';
import { mendArchives } from './archive/fromFile';
import { watchPlan } from './archive/plan';
import './take/long';
import './take/pages';
import './clips/finish';
import './clips/copies';
import './series/take';
import './remote/sendings';
import { indexMissing } from './indexing/indexing';
import { getSettings } from './settings/settings';
import { watchUnkept } from './room/unkept';
import { startSeries } from './series/tick';
import { watchBin } from './shots/emptyBin';
import { wantMissing } from './reading/reading';

/** Brings the database up to date, mends what a crash left, and fills the demo data when asked. */
async function prepare(): Promise<void> {
  const applied = await migrate();
  await mendCopies();
  await sweepMedia();
  await sealOld();
  await wantMissing();
  await mendArchives();
  await storeArriving();
  await forgetFile();
  if (env().demo) await fillDemo();
  startWatching();
  const { linkPort } = await getSettings();
  await openLinks(linkPort, () => Promise.resolve()).catch((error: unknown) =>
    console.error('Links stay closed:', error),
  );
  await resumePractice().catch((error: unknown) => console.error('No practice remote:', error));
  startJobs();
  startSeries();
  // Of many shots from before there was a search it takes a while; all else works meanwhile.
  void indexMissing().catch((error: unknown) => console.error('Not all is indexed:', error));
  watchBin();
  watchUnkept();
  watchPlan();
  await openAll();
  // All went well, and nothing was changed by this start: the copies from the one before may go.
  if (applied.length === 0) await dropBefore(sql());
}

/** What cannot be prepared must not look as if it ran: it would answer every request with an error. */
export async function prepareOrEnd(): Promise<void> {
  try {
    await prepare();
  } catch (error) {
    console.error('Rezzik could not be made ready:', error);
    process.exit(1);
  }
}
