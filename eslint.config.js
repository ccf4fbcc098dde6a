// Lint: the imports between rooms point one way, and a few habits that bite.
import { defineConfig } from 'eslint/config'
import vue from 'eslint-plugin-vue'
import tseslint from 'typescript-eslint'

/** Forbids a room to reach into others, by alias or by path. */
const closed = (room, others) => ({
  'no-restricted-imports': [
    'error',
    {
      patterns: [
        {
          group: others.flatMap((o) =>
            o.includes(':') || o.startsWith('!') ? [o] : [`@${o}/*`, `@${o}`, `**/${o}/**`],
          ),
          message: `${room} must not import this: imports point from web, server and cli to contracts to core.`,
        },
      ],
    },
  ],
})

const nodeGlobals = ['process', 'Buffer', '__dirname', 'require', 'setImmediate']
const browserGlobals = [
  'window',
  'document',
  'navigator',
  'localStorage',
  'fetch',
  'self',
  'postMessage',
  'XMLHttpRequest',
  'HTMLElement',
]

export default defineConfig(
  // AssemblyScript has a grammar of its own.
  { ignores: ['**/*.as.ts', 'dist/', 'node_modules/', '.data/', 'test-results/', 'playwright-report/'] },
  ...tseslint.configs.recommended,
  ...vue.configs['flat/essential'],
  { files: ['**/*.vue'], languageOptions: { parserOptions: { parser: tseslint.parser } } },
  {
    rules: {
      eqeqeq: 'error',
      'no-console': 'off',
      'no-eval': 'error',
      'vue/multi-word-component-names': 'off',
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
    },
  },
  {
    files: ['core/**/*.ts'],
    ignores: ['**/*.test.ts'],
    rules: {
      ...closed('core', ['contracts', 'server', 'web', 'cli', 'demo', 'node:*', 'vue', 'hono', 'pg']),
      'no-restricted-globals': ['error', ...nodeGlobals, ...browserGlobals],
      'no-console': 'error',
    },
  },
  {
    files: ['contracts/**/*.ts'],
    ignores: ['**/*.test.ts'],
    rules: {
      ...closed('contracts', ['server', 'web', 'cli', 'demo', 'node:*', 'vue', 'hono']),
      'no-restricted-globals': ['error', ...nodeGlobals, ...browserGlobals],
    },
  },
  {
    files: ['web/**/*.{ts,vue}'],
    ignores: ['**/*.test.ts'],
    rules: {
      ...closed('web', ['server', 'cli', 'demo', 'node:*', 'hono', 'pg']),
      'no-restricted-globals': ['error', ...nodeGlobals],
    },
  },
  { files: ['server/**/*.ts'], ignores: ['server/demo.ts'], rules: closed('server', ['web', 'cli', 'demo', 'vue']) },
  // The shell reads and writes media with the server's own rooms for that.
  { files: ['cli/**/*.ts'], rules: closed('cli', ['web', 'demo', 'vue', 'hono', 'pg']) },
  {
    files: ['**/*.test.ts', 'tests/**/*.ts', 'demo/**/*.ts'],
    rules: { '@typescript-eslint/no-non-null-assertion': 'off' },
  },
)
