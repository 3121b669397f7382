const transform = {
  '^.+\\.tsx?$': [
    '<rootDir>/tests/lib/transform.mjs',
    {
      jsc: {
        parser: { syntax: 'typescript', tsx: true },
        target: 'es2022',
        transform: { react: { runtime: 'automatic' } },
      },
      module: { type: 'es6' },
    },
  ],
};

const common = {
  rootDir: import.meta.dirname,
  testEnvironment: 'node',
  extensionsToTreatAsEsm: ['.ts', '.tsx'],
  moduleNameMapper: { '^@/(.*)$': '<rootDir>/$1' },
  modulePathIgnorePatterns: ['<rootDir>/\\.next', '<rootDir>/\\.data'],
  transform,
};

/** What a file's worker has for itself: `server`, `safe` or `app`, see tests/lib/lane.ts. */
const lane = (kind) => ({ setupFiles: [`<rootDir>/tests/lib/lanes/${kind}.ts`] });

const project = (displayName, testMatch, more) => ({
  ...common,
  displayName,
  testMatch: testMatch.map((path) => `<rootDir>/${path}`),
  ...more,
});

export default {
  // A machine may be ten times as busy as usual: then it takes longer and is not red.
  testTimeout: 120_000,
  testSequencer: '<rootDir>/tests/lib/sequencer.mjs',
  projects: [
    project('unit', [
      'core/**/*.test.ts',
      'features/**/*.test.ts',
      'tests/private/*.test.ts',
      'tests/kinds/*.test.ts',
    ]),
    project('proof', ['tests/kinds/*.proof.ts']),
    project('server', ['server/**/*.test.ts'], lane('server')),
    project('safe', ['tests/safe/*.test.ts'], lane('safe')),
    project('browser', ['tests/e2e/*.test.ts'], lane('app')),
    project('real-screen', ['tests/real-screen/*.test.ts'], lane('app')),
    project('screenshots', ['docs/screenshots.ts']),
    project('bench', ['bench/*.bench.ts']),
  ],
};
