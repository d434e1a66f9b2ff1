const swc = {
  jsc: {
    parser: { syntax: 'typescript', tsx: true, decorators: true },
    transform: {
      legacyDecorator: true,
      decoratorMetadata: true,
      useDefineForClassFields: true,
      react: { runtime: 'automatic' },
    },
    target: 'es2022',
  },
  module: { type: 'es6' },
};

/** @type {import('jest').Config} */
export default {
  // A busy machine is no fault of a test.
  testTimeout: 60_000,
  testMatch: [
    '<rootDir>/packages/*/src/**/*.test.ts?(x)',
    '<rootDir>/demo/src/**/*.test.ts',
    '<rootDir>/fuzz/src/**/*.test.ts',
  ],
  modulePathIgnorePatterns: ['/dist/'],
  transform: { '^.+\\.tsx?$': ['@swc/jest', swc] },
  extensionsToTreatAsEsm: ['.ts', '.tsx'],
  moduleNameMapper: {
    '^styled-components$': '<rootDir>/packages/web/test/styled-components.mjs',
    '^@fleet-rail/core$': '<rootDir>/packages/core/src/index.ts',
    '^@fleet-rail/core/format-facts$': '<rootDir>/packages/core/src/formats/format-facts.ts',
    '^@fleet-rail/core/shots$': '<rootDir>/packages/core/src/shots.ts',
    '^@fleet-rail/core/paths$': '<rootDir>/packages/core/src/formats/paths-read.ts',
    '^@fleet-rail/core/formats$': '<rootDir>/packages/core/src/formats/index.ts',
    '^(\\.{1,2}/.*)\\.js$': '$1',
  },
  testEnvironment: '<rootDir>/scripts/test-context.mjs',
};
