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
  module: { type: 'commonjs' },
};

/** Packages that ship as ES modules only, and so pass through the same compiler as our own code. */
const esModules = ['svg-pathdata', 'transformation-matrix', 'three', 'comlink', 'd3-[a-z]+', 'internmap'];

/** @type {import('jest').Config} */
export default {
  testMatch: ['<rootDir>/packages/*/src/**/*.test.ts?(x)', '<rootDir>/demo/src/**/*.test.ts'],
  modulePathIgnorePatterns: ['/dist/'],
  transform: { '^.+\\.[mc]?[jt]sx?$': ['@swc/jest', swc] },
  transformIgnorePatterns: [`/node_modules/(?!(${esModules.join('|')})/)`],
  moduleNameMapper: {
    '^@fleet-rail/core$': '<rootDir>/packages/core/src/index.ts',
    '^@fleet-rail/core/svg$': '<rootDir>/packages/core/src/formats/svg-read.ts',
    '^@fleet-rail/core/formats$': '<rootDir>/packages/core/src/formats/index.ts',
    '^(\\.{1,2}/.*)\\.js$': '$1',
  },
  testEnvironment: 'node',
};
