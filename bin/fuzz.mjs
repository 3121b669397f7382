// npm run fuzz -- [seconds] [seed]: asks what nobody would send, for as long as is said.
// Without a seed each run is another; a find names its seed, which asks the same again.

import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { top } from './lib/paths.mjs';
import { command, say, Stop } from './lib/say.mjs';

await command(async () => {
  const [seconds = '60', seed = String(Math.floor(Math.random() * 1_000_000))] =
    process.argv.slice(2);
  if (![seconds, seed].every((text) => /^\d{1,7}$/.test(text))) {
    throw new Stop('Say whole numbers: npm run fuzz -- [seconds] [seed]');
  }
  say(`For ${seconds} s with seed ${seed} …`);
  const tests = spawn(process.execPath, [join(top, 'bin', 'test.mjs'), 'safe', 'fuzz'], {
    stdio: 'inherit',
    env: { ...process.env, REZZIK_FUZZ_SECONDS: seconds, REZZIK_FUZZ_SEED: seed },
  });
  process.exitCode = await new Promise((resolve) => tests.on('exit', (code) => resolve(code ?? 1)));
});
