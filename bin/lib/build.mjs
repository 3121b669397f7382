import { createHash } from 'node:crypto';
import { existsSync, readFileSync, readdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { next, top } from './paths.mjs';
import { run } from './run.mjs';
import { say, Stop } from './say.mjs';

const parts = ['app', 'core', 'features', 'server', 'workers', 'public'];
const files = [
  'package-lock.json',
  'next.config.ts',
  'tsconfig.json',
  'instrumentation.ts',
  'proxy.ts',
  'postcss.config.mjs',
];

/** One value for everything that goes into a build. */
function sourceHash() {
  const hash = createHash('sha256');
  const add = (path) => {
    hash.update(path);
    hash.update(readFileSync(join(top, path)));
  };
  const walk = (folder) => {
    const entries = readdirSync(join(top, folder), { withFileTypes: true });
    for (const entry of entries.sort((a, b) => (a.name < b.name ? -1 : 1))) {
      const path = `${folder}/${entry.name}`;
      if (entry.isDirectory()) walk(path);
      else if (!/\.test\.tsx?$/.test(path)) add(path);
    }
  };
  parts.filter((part) => existsSync(join(top, part))).forEach(walk);
  files.filter((file) => existsSync(join(top, file))).forEach(add);
  return hash.digest('hex');
}

/** Builds the app unless the last build was of the same sources. */
export async function needBuild(dist = '.next') {
  const stamp = join(top, dist, 'rezzik-build');
  const hash = sourceHash();
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === hash) return;
  say('Building …');
  const env = {
    ...process.env,
    REZZIK_DIST: dist,
    NEXT_TELEMETRY_DISABLED: '1',
    NODE_ENV: 'production',
  };
  const done = await run(process.execPath, [next, 'build'], { cwd: top, env });
  if (done.code !== 0) throw new Stop(`${done.output.slice(-4000)}\nThe build failed.`);
  writeFileSync(stamp, hash);
}
