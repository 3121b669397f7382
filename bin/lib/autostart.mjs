// The entry by which a desktop starts Rezzik with its person (Desktop Application Autostart
// Specification 0.5, Desktop Entry Specification 1.5).

import { existsSync, mkdirSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import { homedir } from 'node:os';
import { join, resolve } from 'node:path';
import { dataDir, top } from './paths.mjs';

const NAME = 'rezzik.desktop';

/** Where the person's desktop looks for what it starts (XDG Base Directory Specification 0.8). */
export const autostartFile = () =>
  join(process.env.XDG_CONFIG_HOME || join(homedir(), '.config'), 'autostart', NAME);

/** An argument of Exec: quoted, a percent sign doubled, then escaped once more as every string is. */
const quoted = (argument) =>
  `"${argument.replace(/[\\"`$]/g, '\\$&').replaceAll('%', '%%')}"`.replaceAll('\\', '\\\\');

/** What is started with, as it is said now: another port or data folder stays so. */
const settings = () =>
  ['REZZIK_PORT', 'REZZIK_ROOTS', 'REZZIK_DIST', 'DATABASE_URL']
    .filter((name) => process.env[name])
    .map((name) => `${name}=${process.env[name]}`);

function entry() {
  const program = [process.execPath, join(top, 'bin', 'keepRunning.mjs')];
  const line = ['env', ...settings(), `REZZIK_DATA=${resolve(dataDir())}`, ...program];
  return [
    '[Desktop Entry]',
    'Type=Application',
    'Version=1.5',
    'Name=Rezzik',
    'Comment=Takes by system keys and by the clock, with no browser open',
    `Exec=${line.map(quoted).join(' ')}`,
    'Terminal=false',
    'X-GNOME-Autostart-enabled=true',
    '',
  ].join('\n');
}

/** Written beside its place and moved there: no desktop ever reads half of it. */
export function addAutostart() {
  const file = autostartFile();
  mkdirSync(join(file, '..'), { recursive: true });
  writeFileSync(`${file}.part`, entry(), { mode: 0o600 });
  renameSync(`${file}.part`, file);
  return file;
}

/** @returns false where there was none */
export function removeAutostart() {
  const file = autostartFile();
  const was = existsSync(file);
  rmSync(file, { force: true });
  return was;
}
