import { afterAll, beforeAll, test } from '@jest/globals';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { changeSettings } from '@/server/settings/settings';
import { migrate } from '@/server/db/migrate';
import { closeSql } from '@/server/db/sql';
import {
  heldAnswer,
  heldMoments,
  heldPicture,
  startHolding,
  stopHolding,
} from '@/server/display/held/holding';
import { XDisplay } from '@/tests/lib/xDisplay';
import { ms, report, time } from './measure';

const SECONDS = 12;
let display: XDisplay;

beforeAll(async () => {
  await migrate();
  display = await XDisplay.open(3840, 2160);
  process.env.DISPLAY = display.name;
  await changeSettings({ displayAllowed: true });
}, 60_000);
afterAll(async () => {
  stopHolding();
  await display.close();
  await closeSql();
});

const pause = (seconds: number) => new Promise((resolve) => setTimeout(resolve, seconds * 1000));

/** What this process and the display's server take of one core over some seconds, 0–1 each. */
async function load(): Promise<{ own: number; server: number }> {
  const ticks = () => {
    const fields = readFileSync(`/proc/${display.serverPid}/stat`, 'utf8')
      .split(') ')[1]
      ?.split(' ');
    return (Number(fields?.[11]) + Number(fields?.[12])) * 10;
  };
  const [before, serverBefore, begun] = [process.cpuUsage(), ticks(), performance.now()];
  await pause(SECONDS);
  const used = process.cpuUsage(before);
  const took = performance.now() - begun;
  return { own: (used.user + used.system) / 1000 / took, server: (ticks() - serverBefore) / took };
}

const percent = (share: number) => `${(share * 100).toFixed(1)} %`;

/** What holding costs beside what goes on anyway. */
async function cost(what: string, must: string): Promise<void> {
  const without = await load();
  await startHolding();
  await pause(2);
  const held = await load();
  report(
    `Holding a 3840 × 2160 screen, ${what}: of one core`,
    percent(held.own - without.own),
    must,
  );
  report('… and what the X server does for it', percent(held.server - without.server));
  const { bytes = 0, reach = 0 } = await heldAnswer();
  report('… held', `${(bytes / 1e6).toFixed(0)} MB, ${(reach / 1000).toFixed(1)} s`);
  const { moments } = await heldMoments();
  const oldest = moments[0]?.id ?? 0;
  report('… the oldest moment seen', ms(await time(() => heldPicture(oldest, 1920))));
  stopHolding();
  await pause(1);
}

test('a still screen', async () => {
  display.start('xterm', '-title', 'Still', '-geometry', '200x80+100+100', '-e', 'sleep 600');
  await display.windowId('Still');
  await cost('still', 'must be ≤ 5 %');
}, 120_000);

test('one that scrolls from edge to edge', async () => {
  const file = join(mkdtempSync(join(tmpdir(), 'rezzik-scroll-')), 'words');
  const lines = Array.from({ length: 4000 }, (_, i) =>
    Array.from({ length: 80 }, (__, k) => ((i * 7919 + k * 104_729) % 99_991).toString(36)).join(
      ' ',
    ),
  );
  writeFileSync(file, lines.join('\n'));
  const scroll = `while :; do while read -r line; do echo "$line"; sleep 0.05; done < ${file}; done`;
  display.start(
    'xterm',
    '-title',
    'Scrolls',
    '-geometry',
    '630x163+0+0',
    '-e',
    'bash',
    '-c',
    scroll,
  );
  await display.windowId('Scrolls');
  await pause(12);
  await cost('scrolling', 'must be ≤ 35 %');
}, 180_000);
