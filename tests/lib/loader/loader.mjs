// Lets plain Node run the app's TypeScript, for a child process that a test may kill.

import { createHash } from 'node:crypto';
import { existsSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath, pathToFileURL } from 'node:url';
import { transformSync } from '@swc/core';

const top = join(dirname(fileURLToPath(import.meta.url)), '..', '..', '..');
const endings = ['', '.ts', '.tsx', '/index.ts'];
const isFile = (path) => existsSync(path) && statSync(path).isFile();

/** The file that an import without its ending, or by the short path of the top, means. */
function fileOf(specifier, parent) {
  const base = specifier.startsWith('@/')
    ? join(top, specifier.slice(2))
    : /^\.\.?\//.test(specifier) && parent?.startsWith('file:')
      ? join(dirname(fileURLToPath(parent)), specifier)
      : null;
  return base && endings.map((ending) => base + ending).find(isFile);
}

export function resolve(specifier, context, next) {
  const file = fileOf(specifier, context.parentURL);
  const own = file && !file.includes('node_modules');
  return own ? { url: pathToFileURL(file).href, shortCircuit: true } : next(specifier, context);
}

export function load(url, context, next) {
  if (!/\.tsx?$/.test(url)) return next(url, context);
  return { format: 'module', source: plain(fileURLToPath(url)), shortCircuit: true };
}

/** Where processes that follow each other find what the first one made of a file. */
const made = process.env.REZZIK_LOADED;

/** A file as JavaScript. */
function plain(filename) {
  const source = readFileSync(filename, 'utf8');
  const kept = made && join(made, createHash('sha256').update(source).digest('hex'));
  if (kept && existsSync(kept)) return readFileSync(kept, 'utf8');
  const { code } = transformSync(source, {
    filename,
    jsc: { parser: { syntax: 'typescript', tsx: true }, target: 'es2022' },
    module: { type: 'es6' },
  });
  if (kept) writeFileSync(kept, code);
  return code;
}
