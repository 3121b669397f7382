// Where all cores are busy, whoever asks for a page comes first: everything of this process that
// computes beside the event loop, which is its libraries' threads, gives way to it. Linux counts
// priorities by the thread; what these threads start takes after them.

import { readdirSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { setPriority } from 'node:os';

const TASKS = '/proc/self/task';
/** As nice(1) counts; the pool's threads say the same of themselves (server/pool/worker.ts). */
const YIELDING = 10;

/** Lets all threads but that of the event loop give way to it. */
export async function letThreadsYield() {
  if (process.platform !== 'linux') return;
  // Threads for files and for what libraries compute are there from the first file on.
  await readFile('/proc/self/stat');
  const others = readdirSync(TASKS).map(Number);
  for (const thread of others) {
    if (thread !== process.pid) yieldOne(thread);
  }
}

function yieldOne(thread) {
  try {
    setPriority(thread, YIELDING);
  } catch {
    // It has ended meanwhile.
  }
}
