// Debian packages and npm packages: what is missing is installed, or the command for it is said.

import { createHash } from 'node:crypto';
import { existsSync, readFileSync, readdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { top } from './paths.mjs';
import { run } from './run.mjs';
import { onPath, say, Stop } from './say.mjs';

/** Folders of PostgreSQL's programs, newest version first. */
export function postgresFolders() {
  const base = '/usr/lib/postgresql';
  if (!existsSync(base)) return [];
  return readdirSync(base)
    .filter((version) => existsSync(join(base, version, 'bin', 'initdb')))
    .sort((a, b) => Number(b) - Number(a))
    .map((version) => ({ version, bin: join(base, version, 'bin') }));
}

const known = {
  postgresql: () => postgresFolders().length > 0,
  chromium: () => onPath('chromium'),
  'chromium-headless-shell': () => onPath('chromium-headless-shell'),
  'chromium-driver': () => onPath('chromedriver'),
  xvfb: () => onPath('Xvfb'),
  openbox: () => onPath('openbox'),
  'x11-apps': () => onPath('xclock'),
  'x11-utils': () => onPath('xwininfo'),
  'x11-xserver-utils': () => onPath('xrandr'),
  xdotool: () => onPath('xdotool'),
  xclip: () => onPath('xclip'),
  wmctrl: () => onPath('wmctrl'),
  'xfonts-base': () => existsSync('/usr/share/fonts/X11/misc'),
  tk: () => onPath('wish'),
  'gtk-3-examples': () => onPath('gtk3-icon-browser'),
  'gtk-4-examples': () => onPath('gtk4-icon-browser'),
  // Of Qt.
  speedcrunch: () => onPath('speedcrunch'),
  // A window manager that composites; its settings come over a session bus.
  xfwm4: () => onPath('xfwm4'),
  xterm: () => onPath('xterm'),
  // On which programs describe their windows.
  'at-spi2-core': () => existsSync('/usr/libexec/at-spi-bus-launcher'),
  'dbus-daemon': () => onPath('dbus-daemon'),
  'dbus-bin': () => onPath('dbus-monitor'),
  'dbus-tests': () => onPath('dbus-test-tool'),
  'libglib2.0-bin': () => onPath('gdbus'),
  // Reads words in pictures, quicker than the recogniser that ships with the app.
  'tesseract-ocr': () => onPath('tesseract'),
  // Readers of other makers, to check what Rezzik reads and writes.
  python3: () => onPath('python3'),
  'libtiff-tools': () => onPath('tiffinfo'),
  'libimage-exiftool-perl': () => onPath('exiftool'),
  // WebDAV servers of other makers, to send to.
  'apache2-bin': () => existsSync('/usr/sbin/apache2'),
  openssl: () => onPath('openssl'),
  pngcheck: () => onPath('pngcheck'),
  webp: () => onPath('webpinfo'),
  qpdf: () => onPath('qpdf'),
  'liblcms2-utils': () => onPath('tificc'),
  imagemagick: () => onPath('convert-im6.q16'),
  'poppler-utils': () => onPath('pdftotext'),
  'librsvg2-bin': () => onPath('rsvg-convert'),
  docx2txt: () => onPath('docx2txt'),
  unzip: () => onPath('unzip'),
  // Sets the clock of a program, not the computer's.
  faketime: () => onPath('faketime'),
  // Makes clips of what is recorded, and writes them.
  ffmpeg: () => onPath('ffmpeg'),
};

/** Programs and pages that nobody here has looked at: what is found and read is measured on them. */
const measured = {
  galculator: () => onPath('galculator'),
  'xfce4-taskmanager': () => onPath('xfce4-taskmanager'),
  gucharmap: () => onPath('gucharmap'),
  l3afpad: () => onPath('l3afpad'),
  'gnome-text-editor': () => onPath('gnome-text-editor'),
  'gnome-calculator': () => onPath('gnome-calculator'),
  featherpad: () => onPath('featherpad'),
  qpdfview: () => onPath('qpdfview'),
  'lximage-qt': () => onPath('lximage-qt'),
  // Pages on which the reading of words is measured.
  'postgresql-doc-15': () => existsSync('/usr/share/doc/postgresql-doc-15/html'),
  'git-doc': () => existsSync('/usr/share/doc/git-doc'),
  'fonts-liberation': () => existsSync('/usr/share/fonts/truetype/liberation'),
  time: () => onPath('time'),
};

export const toMeasure = Object.keys(measured);
export const toServe = ['postgresql'];
/** Offered: Rezzik works without them, and then something is slower or less. */
const without = {
  'tesseract-ocr': 'words in pictures are read slower',
  ffmpeg: 'what is recorded waits until it is there',
  'chromium-headless-shell': 'no web page can be taken by its address',
};
/** Either of Debian's two takes pages. */
export const browsers = () => (onPath('chromium') ? [] : ['chromium-headless-shell']);
export const wished = () => ['tesseract-ocr', 'ffmpeg', ...browsers()];
export const toTest = Object.keys(known);

/**
 * Installs the Debian packages that are missing, where that is allowed.
 * @param patience what apt-get is told of how long to try
 */
export async function needPackages(names, patience = []) {
  const all = { ...known, ...measured };
  const missing = names.filter((name) => !all[name]());
  if (missing.length === 0) return;
  const install = [
    ...['apt-get', ...patience, 'install', '-y', '--no-install-recommends'],
    ...missing,
  ];
  const asRoot = process.getuid?.() === 0;
  const sudo = asRoot ? [] : ['sudo', '-n'];
  const may = asRoot || (onPath('sudo') && (await run('sudo', ['-n', 'true'])).code === 0);
  const byHand = `${asRoot ? '' : 'sudo '}sh -c "apt-get update && ${install.join(' ')}"`;
  if (!may || !onPath('apt-get')) {
    throw new Stop(
      `These Debian packages are missing: ${missing.join(', ')}.\nInstall them with:\n\n  ${byHand}\n`,
    );
  }
  say(`Installing Debian packages: ${missing.join(', ')} …`);
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
  for (const args of [['apt-get', ...patience, 'update'], install]) {
    const [program, ...rest] = [...sudo, ...args];
    const done = await run(program, rest, { env });
    if (done.code !== 0) {
      throw new Stop(
        `${done.output.slice(-1500)}\nThe packages could not be installed. By hand:\n\n  ${byHand}\n`,
      );
    }
  }
  const still = names.filter((name) => !all[name]());
  if (still.length) throw new Stop(`Installed, but still not found: ${still.join(', ')}.`);
}

/** A mirror that does not answer is soon given up: nothing waits for what is wished for only. */
const IMPATIENT = ['-o', 'Acquire::http::Timeout=10', '-o', 'Acquire::Retries=0'];

/** Installs what is wished for where that is allowed; where it is not, says how. */
export async function offerPackages(names) {
  try {
    await needPackages(names, IMPATIENT);
  } catch (error) {
    const less = names.filter((name) => !known[name]()).map((name) => without[name]);
    say(
      `${error instanceof Stop ? error.message : error}\nRezzik works without; ${less.join(', and ')} then.\n`,
    );
  }
}

/** Brings node_modules to what package-lock.json says. */
export async function needModules() {
  const lock = createHash('sha256')
    .update(readFileSync(join(top, 'package-lock.json')))
    .digest('hex');
  const stamp = join(top, 'node_modules', '.rezzik-lock');
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === lock) return;
  say('Installing npm packages …');
  const done = await run('npm', ['ci', '--no-audit', '--no-fund', '--include=dev'], { cwd: top });
  if (done.code !== 0)
    throw new Stop(`${done.output.slice(0, 2000)}\nnpm ci failed. Nothing else was changed.`);
  writeFileSync(stamp, lock);
}
