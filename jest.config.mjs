/** @type {import('jest').Config} */
export default {
  testEnvironment: 'node',
  roots: ['<rootDir>/src'],
  testMatch: ['**/*.test.ts'],
  transform: { '\\.test\\.ts$': '<rootDir>/launcher/jestBundle.cjs' },
  transformIgnorePatterns: ['/node_modules/', '\\.mjs$'],
};
