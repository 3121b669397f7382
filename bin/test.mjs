// npm test: everything that can be checked, beside a running Rezzik without harm.
// Its last line is "N passed, N failed". docs/tests.md says how it is made and how long it takes.

import { chmodSync, existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join, relative } from 'node:path';
import { startDatabase } from './lib/database.mjs';
import { runJest } from './lib/jest.mjs';
import { LANES, openLanes } from './lib/lanes.mjs';
import { needModules, needPackages, toTest } from './lib/packages.mjs';
import { allSuites, needSuites, shortSuites } from './lib/suites.mjs';
import { top } from './lib/paths.mjs';
import { run } from './lib/run.mjs';
import { command, say, Stop } from './lib/say.mjs';
import { heedStops, isStopped } from './lib/stopping.mjs';
import { trialData } from './lib/trial.mjs';
import { needUnpacked, toUnpack } from './lib/unpacked.mjs';

const SLOWEST = 20;
const groups = ['unit', 'server', 'safe', 'browser', 'real-screen'];
const withoutApp = ['unit', 'server'];
/** These need nothing but the npm packages. */
const alone = ['unit', 'checks'];

const count = { passed: 0, failed: 0 };
const bin = (name) => join(top, 'node_modules', '.bin', name);

/** A program that passes or fails as a whole. */
async function check(name, program, args) {
  if (isStopped()) return;
  const done = await run(bin(program), args, { cwd: top });
  say(`${done.code === 0 ? 'ok    ' : 'FAILED'}  ${name}`);
  if (done.code !== 0) say(done.output.slice(-6000));
  count[done.code === 0 ? 'passed' : 'failed'] += 1;
}

async function checks() {
  await check('format', 'prettier', ['--check', '--log-level', 'warn', '.']);
  await check('lint and import rules', 'eslint', ['.']);
  await check('types', 'tsc', ['--noEmit']);
  await check('core without DOM and Node', 'tsc', ['--noEmit', '-p', 'core']);
  await check('nothing unused', 'knip', []);
  await check('nothing twice', 'jscpd', []);
}

const seconds = (ms) => `${(ms / 1000).toFixed(1)} s`;

function saySlowest(files) {
  const took = files
    .map(({ name, startTime, endTime }) => ({ name: relative(top, name), ms: endTime - startTime }))
    .sort((a, b) => b.ms - a.ms);
  say(`\nThe slowest ${Math.min(SLOWEST, took.length)} files:`);
  for (const { name, ms } of took.slice(0, SLOWEST)) say(`${seconds(ms).padStart(8)}  ${name}`);
}

/** Jest tests, some files at a time; a run that does not even report counts as failed. */
async function jest(projects, data, patterns) {
  if (isStopped()) return;
  const report = join(data, 'report.json');
  // What a test leaves behind goes with the run.
  const temporary = join(data, 'tmp');
  mkdirSync(temporary, { recursive: true });
  chmodSync(temporary, 0o1777);
  // Jest does not let go of files that are done: at the end its workers held 8 GB together.
  const workers = [`--maxWorkers=${LANES}`, '--workerIdleMemoryLimit=700MB'];
  const args = ['--json', `--outputFile=${report}`, ...workers, ...patterns];
  const env = { REZZIK_LANES: data, TMPDIR: temporary };
  await runJest(projects, args, env, (text) => process.stdout.write(text));
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
  saySlowest(result.testResults);
}

/** The lanes are made ready while the checks and those tests run that need no app. */
async function besideLanes(data, projects, patterns) {
  const database = await startDatabase(data);
  let finish = () => undefined;
  const until = new Promise((resolve) => (finish = resolve));
  const apps = projects.some((project) => !withoutApp.includes(project));
  const lanes = openLanes({ data, database, apps, until });
  lanes.catch(() => writeFileSync(join(data, 'failed'), ''));
  try {
    await Promise.all([group ? undefined : checks(), jest(projects, data, patterns)]);
  } finally {
    finish();
    await lanes.finally(() => database.stop());
  }
}

/** `npm test -- unit` runs one group; `npm test -- browser mark` the files of it that fit. */
const [group, ...patterns] = process.argv.slice(2);

await command(async () => {
  heedStops(say);
  if (!alone.includes(group)) await needPackages(toTest);
  await needModules();
  if (!group || group === 'server') {
    await needSuites(process.env.REZZIK_SUITES === 'all' ? allSuites : shortSuites);
    await needUnpacked(toUnpack);
  }
  const { data, remove } = trialData();
  try {
    if (group === 'checks') await checks();
    else if (group && !groups.includes(group))
      throw new Stop(`There is no group “${group}”. There are: checks, ${groups.join(', ')}.`);
    else if (group === 'unit') await jest(['unit'], data, patterns);
    else await besideLanes(data, group ? [group] : groups, patterns);
  } catch (error) {
    console.error(error instanceof Stop ? error.message : error);
    count.failed += 1;
  } finally {
    remove();
  }
});
if (isStopped()) count.failed += 1;
if (count.failed > 0 || count.passed === 0) process.exitCode = 1;
console.log(`${count.passed} passed, ${count.failed} failed`);
