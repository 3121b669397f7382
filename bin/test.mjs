// npm test: everything that can be checked, beside a running Rezzik without harm.
// Its last line is "N passed, N failed".

import { existsSync, mkdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { needBuild } from './lib/build.mjs';
import { startDatabase } from './lib/database.mjs';
import { withDisplay } from './lib/display.mjs';
import { runJest } from './lib/jest.mjs';
import { needModules, needPackages, toTest } from './lib/packages.mjs';
import { top } from './lib/paths.mjs';
import { run } from './lib/run.mjs';
import { command, say, Stop } from './lib/say.mjs';
import { TEST_DIST, trialData, withApp } from './lib/trial.mjs';

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
    '--json',
    `--outputFile=${report}`,
    ...(project === 'unit' ? [] : ['--runInBand']),
    ...patterns,
  ];
  const child = await runJest(project, args, env);
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

/** They start apps of their own, to fill up their disks and kill them. */
async function safeTests(database, data, patterns) {
  await needBuild(TEST_DIST);
  const env = { DATABASE_URL: await database.make('rezzik_safe'), REZZIK_DATA: data };
  await jest('safe', data, { ...env, REZZIK_DIST: TEST_DIST }, patterns);
}

async function browserTests(database, data, only, patterns) {
  const databaseUrl = await database.make('rezzik_browser');
  await withDisplay((display) =>
    withApp({ data, databaseUrl, display }, async (env) => {
      if (only('browser')) await jest('browser', data, env, patterns);
      if (only('real-screen')) await jest('real-screen', data, env, patterns);
    }),
  );
}

/** `npm test -- unit` runs one group; `npm test -- browser mark` one file of it. */
const [group, ...patterns] = process.argv.slice(2);
const only = (name) => !group || group === name;

await command(async () => {
  await needPackages(toTest);
  await needModules();
  const { data, remove } = trialData();
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
    if (only('safe')) await safeTests(database, data, patterns);
    if (only('browser') || only('real-screen')) await browserTests(database, data, only, patterns);
  } catch (error) {
    console.error(error instanceof Stop ? error.message : error);
    count.failed += 1;
  } finally {
    await database?.stop();
    remove();
  }
});
if (count.failed > 0 || count.passed === 0) process.exitCode = 1;
console.log(`${count.passed} passed, ${count.failed} failed`);
