/** Native ES modules throughout: the same files that Vite and esbuild read, with only the types removed. */
export default {
  testEnvironment: 'node',
  roots: [
    '<rootDir>/core',
    '<rootDir>/server',
    '<rootDir>/web',
    '<rootDir>/demo',
    '<rootDir>/bench',
    '<rootDir>/tests',
  ],
  testMatch: ['**/*.test.ts', '**/*.test.tsx'],
  extensionsToTreatAsEsm: ['.ts', '.tsx'],
  moduleNameMapper: { '^@core/(.*)$': '<rootDir>/core/$1' },
  transform: {
    '^.+\\.tsx$': [
      '<rootDir>/scripts/jest-transform.mjs',
      {
        jsc: {
          parser: { syntax: 'typescript', tsx: true },
          target: 'es2022',
          transform: { react: { runtime: 'automatic' } },
        },
        module: { type: 'es6' },
      },
    ],
    '^.+\\.ts$': [
      '<rootDir>/scripts/jest-transform.mjs',
      { jsc: { parser: { syntax: 'typescript', tsx: false }, target: 'es2022' }, module: { type: 'es6' } },
    ],
  },
  setupFiles: ['<rootDir>/tests/helpers/same-cases.ts'],
  testTimeout: 60000,
};
