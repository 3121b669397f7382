const transform = {
  '^.+\\.tsx?$': [
    '@swc/jest',
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

export default {
  projects: [
    {
      ...common,
      displayName: 'unit',
      testMatch: ['<rootDir>/core/**/*.test.ts', '<rootDir>/features/**/*.test.ts'],
    },
    { ...common, displayName: 'server', testMatch: ['<rootDir>/server/**/*.test.ts'] },
    { ...common, displayName: 'safe', testMatch: ['<rootDir>/tests/safe/*.test.ts'] },
    { ...common, displayName: 'browser', testMatch: ['<rootDir>/tests/e2e/*.test.ts'] },
    { ...common, displayName: 'screenshots', testMatch: ['<rootDir>/docs/screenshots.ts'] },
    { ...common, displayName: 'bench', testMatch: ['<rootDir>/bench/*.bench.ts'] },
    { ...common, displayName: 'real-screen', testMatch: ['<rootDir>/tests/real-screen/*.test.ts'] },
  ],
};
