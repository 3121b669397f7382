import { dirname, join, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';

/** The top of the checkout. */
export const top = join(dirname(fileURLToPath(import.meta.url)), '..', '..');

export const dataDir = () => resolve(top, process.env.REZZIK_DATA ?? '.data');

export const next = join(top, 'node_modules', 'next', 'dist', 'bin', 'next');
