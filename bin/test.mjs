// npm test: everything that can be checked, beside a running Rezzik without harm.
// Its last line is "N passed, N failed".

import { chmodSync, existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { needBuild } from './lib/build.mjs';
import { freePort, startDatabase } from './lib/database.mjs';
import { needModules, needPackages, toTest } from './lib/packages.mjs';
import { top } from './lib/paths.mjs';
import { end, run } from './lib/run.mjs';
import { command, say, Stop } from './lib/say.mjs';
import { answers, startApp } from './lib/serve.mjs';

const DIST = '.next-test';
const count = { passed: 0, failed: 0 };
const bin = (name) => join(top, 'node_modules', '.bin', name);

/** A program that passes or fails as a whole. */
async function check(name, program, args) {
  const done = await run(bin(program), args, { cwd: top });
  say(`${done.code === 0 ? 'ok    ' : 'FAILED'}  ${name}`);
  if (done.code !== 0) say(done.output.slice(-6000));
  count[done.code === 0 ? 'passed' : 'failed'] += 1;
}

/** One group of Jest tests; a group that does not even report counts as failed. */
async function jest(project, data, env, patterns) {
  say(`\n${project} tests`);
  const report = join(data, `${project}.json`);
  const args = [
    '--experimental-vm-modules',
    '--no-warnings',
    join(top, 'node_modules/jest/bin/jest.js'),
    '--selectProjects',
    project,
    '--json',
    `--outputFile=${report}`,
    '--silent=false',
    ...(project === 'unit' ? [] : ['--runInBand']),
    ...patterns,
  ];
  const child = await run(process.execPath, args, { cwd: top, env: { ...process.env, ...env } });
  const plain = child.output.split('\n').filter((line) => !line.startsWith('{"num'));
  say(plain.join('\n').slice(-14_000));
  if (!existsSync(report)) {
    count.failed += 1;
    return;
  }
  const result = JSON.parse(readFileSync(report, 'utf8'));
  const skipped = result.numPendingTests + result.numTodoTests;
  if (skipped) say(`${skipped} tests were skipped: that counts as failed.`);
  count.passed += result.numPassedTests;
  count.failed += result.numFailedTests + result.numRuntimeErrorTestSuites + skipped;
  if (result.numTotalTests === 0 && patterns.length === 0) count.failed += 1;
}

async function browserTests(database, data, only, patterns) {
  await needBuild(DIST);
  const port = await freePort();
  const kept = join(data, 'kept');
  mkdirSync(kept, { recursive: true });
  const roots = { REZZIK_ROOTS: kept };
  const app = startApp({
    port,
    databaseUrl: await database.make('rezzik_browser'),
    data,
    env: { REZZIK_DIST: DIST, REZZIK_DEMO: '0', ...roots },
    stdio: ['ignore', 'ignore', 'inherit'],
  });
  try {
    if (!(await answers(port, app))) throw new Stop('The app to be tested did not start.');
    const env = { REZZIK_URL: `http://127.0.0.1:${port}`, ...roots };
    if (only('browser')) await jest('browser', data, env, patterns);
    if (only('real-screen')) await jest('real-screen', data, env, patterns);
  } finally {
    await end(app);
  }
}

/** `npm test -- unit` runs one group; `npm test -- browser mark` one file of it. */
const [group, ...patterns] = process.argv.slice(2);
const only = (name) => !group || group === name;

await command(async () => {
  await needPackages(toTest);
  await needModules();
  const data = mkdtempSync(join(tmpdir(), 'rezzik-test-'));
  chmodSync(data, 0o755);
  let database;
  try {
    if (only('checks')) {
      await check('format', 'prettier', ['--check', '--log-level', 'warn', '.']);
      await check('lint and import rules', 'eslint', ['.']);
      await check('types', 'tsc', ['--noEmit']);
      await check('core without DOM and Node', 'tsc', ['--noEmit', '-p', 'core']);
    }
    if (only('unit')) await jest('unit', data, {}, patterns);
    if (group === 'unit' || group === 'checks') return;
    database = await startDatabase(data);
    const env = {
      DATABASE_URL: await database.make('rezzik_server'),
      REZZIK_DATA: data,
      REZZIK_PORT: '4399',
      REZZIK_ROOTS: join(data, 'server-kept'),
    };
    mkdirSync(env.REZZIK_ROOTS);
    if (only('server')) await jest('server', data, env, patterns);
    if (only('browser') || only('real-screen')) await browserTests(database, data, only, patterns);
  } catch (error) {
    console.error(error instanceof Stop ? error.message : error);
    count.failed += 1;
  } finally {
    await database?.stop();
    rmSync(data, { recursive: true, force: true });
  }
});
if (count.failed > 0 || count.passed === 0) process.exitCode = 1;
console.log(`${count.passed} passed, ${count.failed} failed`);
