/** @type {import('jest').Config} */
export default {
  // Tests of screens (`.tsx`) say at their head that they want a document.
  testEnvironment: 'node',
  // A machine may be slow, and two suites at a time share it.
  testTimeout: 30_000,
  roots: ['<rootDir>/src'],
  testMatch: ['**/*.test.ts', '**/*.test.tsx'],
  transform: { '\\.test\\.tsx?$': '<rootDir>/launcher/jestBundle.cjs' },
  transformIgnorePatterns: ['/node_modules/', '\\.mjs$'],
};
