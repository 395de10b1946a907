/** @type {import('jest').Config} */
const shared = {
  testEnvironment: 'node',
  extensionsToTreatAsEsm: ['.ts'],
  // Modules of the interface that decide something are tested as any other.
  // mathjs as the one file that it ships: as some thousand modules it takes ten seconds to be linked.
  moduleNameMapper: { '^~/(.*)$': '<rootDir>/app/$1', '^mathjs$': '<rootDir>/node_modules/mathjs/lib/browser/math.js' },
  transform: { '\\.ts$': ['@swc/jest', { jsc: { target: 'es2022', parser: { syntax: 'typescript' } }, module: { type: 'es6' } }] },
  modulePathIgnorePatterns: ['<rootDir>/\\.build', '<rootDir>/\\.nuxt', '<rootDir>/\\.data'],
}

export default {
  projects: [
    { ...shared, displayName: 'unit', testMatch: ['<rootDir>/{core,app,server,cli,demo,stand-in}/**/*.test.ts'] },
    { ...shared, displayName: 'outside', testMatch: ['<rootDir>/tests/{outside,recipes}/**/*.test.ts'] },
    { ...shared, displayName: 'http', testMatch: ['<rootDir>/tests/http/**/*.test.ts'] },
    { ...shared, displayName: 'start', testMatch: ['<rootDir>/tests/start/**/*.test.ts'] },
    // The whole matrix of sizes and themes: npm run test:sizes.
    { ...shared, displayName: 'sizes', testMatch: ['<rootDir>/tests/sizes/**/*.test.ts'] },
    { ...shared, displayName: 'browser', testMatch: ['<rootDir>/tests/browser/**/*.test.ts'] },
  ],
}
