// Loaded into the app that is measured, before all else (NODE_OPTIONS): each SIGUSR2 writes how late
// its event loop was since the one before, and what memory it held at most.

import { writeFileSync } from 'node:fs';
import { monitorEventLoopDelay } from 'node:perf_hooks';
import { isMainThread } from 'node:worker_threads';

const file = process.env.REZZIK_WATCHED;

if (isMainThread && file) {
  // What is recorded are the spans between two looks, of which that much is meant.
  const LOOK = 5;
  const delay = monitorEventLoopDelay({ resolution: LOOK });
  const late = (nanoseconds) => Math.max(0, nanoseconds / 1e6 - LOOK);
  let most = 0;
  delay.enable();
  setInterval(() => (most = Math.max(most, process.memoryUsage.rss())), 50).unref();
  process.on('SIGUSR2', () => {
    const seen = { p99: late(delay.percentile(99)), max: late(delay.max), memory: most };
    delay.reset();
    most = 0;
    writeFileSync(file, JSON.stringify(seen));
  });
}
