/** @type {import('jest').Config} */
export default {
  // Tests of screens (`.tsx`) say at their head that they want a document.
  testEnvironment: 'node',
  roots: ['<rootDir>/src'],
  testMatch: ['**/*.test.ts', '**/*.test.tsx'],
  transform: { '\\.test\\.tsx?$': '<rootDir>/launcher/jestBundle.cjs' },
  transformIgnorePatterns: ['/node_modules/', '\\.mjs$'],
};
