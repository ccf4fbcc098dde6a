// Unit tests beside what they test, and API tests against the real server and a real PostgreSQL.
const common = {
  transform: {
    '^.+\\.ts$': [
      '@swc/jest',
      {
        jsc: {
          target: 'es2022',
          parser: { syntax: 'typescript', decorators: true },
          transform: { legacyDecorator: true, decoratorMetadata: true },
        },
      },
    ],
    // Packages that are published as ES modules only.
    '^.+\\.m?js$': ['@swc/jest', { jsc: { target: 'es2022' }, module: { type: 'commonjs' } }],
  },
  transformIgnorePatterns: [
    '/node_modules/(?!(colorjs\\.io|lru-cache|fast-png|nanoid|iobuffer|fast-check|pure-rand|pinia|nostics|' +
      'p-queue|p-timeout|eventemitter3|ohash)/)',
  ],
  moduleNameMapper: {
    '^@core/(.*)$': '<rootDir>/core/$1',
    '^@contracts/(.*)$': '<rootDir>/contracts/$1',
    '^@media/(.*)$': '<rootDir>/media/$1',
  },
  // Tests run inside a vm, where every look at a global is slow: these are handed in.
  sandboxInjectedGlobals: ['Math', 'Number'],
  modulePathIgnorePatterns: ['<rootDir>/dist/', '<rootDir>/.data/'],
}

export default {
  projects: [
    {
      ...common,
      displayName: 'unit',
      rootDir: import.meta.dirname,
      testMatch: [
        '<rootDir>/{core,contracts,media,server,web,cli,demo,tests/aims,tests/fuzz,tests/regions}/**/*.test.ts',
      ],
    },
    {
      ...common,
      displayName: 'shell',
      rootDir: import.meta.dirname,
      testMatch: ['<rootDir>/tests/shell/**/*.test.ts'],
    },
    {
      ...common,
      displayName: 'api',
      rootDir: import.meta.dirname,
      testMatch: ['<rootDir>/tests/api/**/*.test.ts'],
      globalSetup: '<rootDir>/tests/support/start-for-api.ts',
      globalTeardown: '<rootDir>/tests/support/stop-for-api.ts',
    },
  ],
  // Machines are shared: one may be three times as slow for a while.
  testTimeout: 180_000,
}
