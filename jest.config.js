import { availableParallelism } from 'node:os';

const swc = [
  '@swc/jest',
  { swcrc: false, jsc: { parser: { syntax: 'typescript' }, target: 'es2022' }, module: { type: 'es6' } },
];

const node = (displayName, rootDir, more = {}) => ({
  displayName,
  rootDir,
  testMatch: ['<rootDir>/src/**/*.test.ts'],
  transform: { '^.+\\.ts$': swc },
  extensionsToTreatAsEsm: ['.ts'],
  setupFiles: [`${import.meta.dirname}/scripts/fixed-seed.js`],
  ...more,
});

export default {
  // a kernel takes seconds to start on a busy machine, and the whole demo a minute
  testTimeout: 180_000,
  // one worker alone would be this process itself, which can not be begun anew
  maxWorkers: Math.max(2, availableParallelism() - 1),
  // modules of each test file stay in the memory of their worker: before it crawls it is begun anew
  workerIdleMemoryLimit: '1500MB',
  projects: [
    node('core', 'packages/core'),
    node('kernel', 'packages/kernel'),
    node('engine', 'packages/engine'),
    node('fuzz', 'fuzz', { testMatch: ['<rootDir>/*.test.ts'] }),
    node('scripts', 'scripts', { testMatch: ['<rootDir>/*.test.ts'] }),
    node('server', 'apps/server'),
    node('web', 'apps/web', {
      // tests of components ask for jsdom in their first line
      testEnvironmentOptions: { customExportConditions: ['node', 'node-addons'] },
      transform: { '^.+\\.ts$': swc, '^.+\\.vue$': '<rootDir>/test/vue-transform.js' },
      extensionsToTreatAsEsm: ['.ts', '.vue'],
    }),
  ],
};
