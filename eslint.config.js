// Lint: the imports between rooms point one way, promises are waited for, and a few habits that bite.
import { defineConfig } from 'eslint/config'
import prettier from 'eslint-config-prettier'
import regexp from 'eslint-plugin-regexp'
import vue from 'eslint-plugin-vue'
import tseslint from 'typescript-eslint'

const direction = 'imports point from web, server and cli to contracts to core.'
const asPatterns = (room) => (/[:!]/.test(room) ? [room] : [`@${room}/*`, `@${room}`, `**/${room}/**`])

/** Forbids a room to reach into others, by alias or by path. */
const closed = (room, others) => ({
  'no-restricted-imports': [
    'error',
    { patterns: [{ group: others.flatMap(asPatterns), message: `${room} must not import this: ${direction}` }] },
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
/** A file longer than its bound says on its first line why it is one piece: "// Long: …", or the same in <!-- -->. */
const longFile = {
  meta: { schema: [{ type: 'integer' }] },
  create: (context) => ({
    Program() {
      const [bound] = context.options
      const lines = context.sourceCode.text.trimEnd().split('\n')
      if (lines.length <= bound || /^(\/\/|<!--) Long: \w+/.test(lines[0])) return
      const message = `${lines.length} lines: split it along its ideas, or say on the first line ("Long: …") why not.`
      context.report({ loc: { line: 1, column: 0 }, message })
    },
  }),
}
const typed = ['**/*.ts', '**/*.vue']
const tests = ['**/*.test.ts', 'tests/**/*.ts']

export default defineConfig(
  // AssemblyScript has a grammar of its own.
  {
    ignores: ['**/*.as.ts', '**/*.wasm.ts', 'dist/', 'node_modules/', '.data/', 'test-results/', 'playwright-report/'],
  },
  ...tseslint.configs.recommended,
  ...vue.configs['flat/strongly-recommended'],
  prettier,
  {
    plugins: { local: { rules: { 'long-file': longFile } }, regexp },
    rules: {
      // Outside text meets many of them: none may look at a long line over and over.
      'regexp/no-super-linear-backtracking': 'error',
      'regexp/no-super-linear-move': 'error',
      eqeqeq: 'error',
      'max-len': ['error', { code: 120, ignoreUrls: true }],
      'local/long-file': ['error', 350],
      'no-console': 'off',
      'no-eval': 'error',
      'no-nested-ternary': 'error',
      'one-var': ['error', 'never'],
      'vue/multi-word-component-names': 'off',
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
    },
  },
  {
    files: typed,
    languageOptions: {
      parserOptions: {
        parser: tseslint.parser,
        projectService: true,
        tsconfigRootDir: import.meta.dirname,
        extraFileExtensions: ['.vue'],
      },
    },
    rules: {
      '@typescript-eslint/no-floating-promises': 'error',
      '@typescript-eslint/no-misused-promises': 'error',
      '@typescript-eslint/no-non-null-assertion': 'error',
      '@typescript-eslint/no-unnecessary-type-assertion': 'error',
      '@typescript-eslint/switch-exhaustiveness-check': ['error', { considerDefaultExhaustiveForUnions: true }],
    },
  },
  { files: ['**/*.vue'], rules: { 'local/long-file': ['error', 250] } },
  {
    files: ['core/**/*.ts'],
    ignores: ['**/*.test.ts'],
    rules: {
      ...closed('core', ['contracts', 'media', 'server', 'web', 'cli', 'demo', 'node:*', 'vue', 'hono', 'pg']),
      'no-restricted-globals': ['error', ...nodeGlobals, ...browserGlobals],
      'no-console': 'error',
    },
  },
  {
    files: ['contracts/**/*.ts'],
    ignores: ['**/*.test.ts'],
    rules: {
      ...closed('contracts', ['media', 'server', 'web', 'cli', 'demo', 'node:*', 'vue', 'hono']),
      'no-restricted-globals': ['error', ...nodeGlobals, ...browserGlobals],
    },
  },
  {
    files: ['web/**/*.{ts,vue}'],
    ignores: ['**/*.test.ts'],
    rules: {
      ...closed('web', ['media', 'server', 'cli', 'demo', 'node:*', 'hono', 'pg']),
      'no-restricted-globals': ['error', ...nodeGlobals],
    },
  },
  {
    files: ['media/**/*.ts'],
    ignores: ['**/*.test.ts'],
    rules: closed('media', ['server', 'web', 'cli', 'demo', 'vue', 'hono', 'pg']),
  },
  { files: ['server/**/*.ts'], rules: closed('server', ['web', 'cli', 'demo', 'vue']) },
  { files: ['cli/**/*.ts'], rules: closed('cli', ['server', 'web', 'demo', 'vue', 'hono', 'pg']) },
  // A function that is called "component" is no component of Vue.
  { files: ['**/*.ts'], rules: { 'vue/one-component-per-file': 'off' } },
  {
    files: tests,
    rules: {
      '@typescript-eslint/no-non-null-assertion': 'off',
      // Their patterns meet text of our own.
      'regexp/no-super-linear-move': 'off',
    },
  },
)
