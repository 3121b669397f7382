export default {
  entry: [
    'bench/*.bench.ts',
    'bench/askShelf.mjs',
    'bench/watchLoop.mjs',
    'docs/screenshots.ts',
    'bin/*.mjs',
    'public/offline.js',
    'bin/lib/*.d.mts',
    'tests/**/*.test.ts',
    'tests/kinds/*.proof.ts',
    'tests/kinds/wedge/index.ts',
    'tests/lib/lanes/*.ts',
    'tests/safe/lib/keeper.ts',
    'tests/lib/loader/*.mjs',
  ],
  include: ['dependencies', 'files', 'unresolved'],
  // Read by path, not imported.
  ignoreDependencies: ['@tesseract.js-data/eng', 'axe-core'],
};
