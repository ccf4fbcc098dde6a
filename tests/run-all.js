// Runs every check and ends with one line that counts them all. Two things run at a time, as there are two cores.
import { spawn, spawnSync } from 'node:child_process'
import { mkdirSync, mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

const results = 'test-results'
const scratch = mkdtempSync(join(tmpdir(), 'pale-seed-'))
const seed = join(scratch, 'data')
rmSync(results, { recursive: true, force: true })
mkdirSync(results, { recursive: true })
let passed = 0
let failed = 0

/** Resolves to whether it ended well; what it said is printed in one piece. */
function attempt(name, program, args) {
  return new Promise((done) => {
    const child = spawn(program, args, { env: { ...process.env, FORCE_COLOR: '0' } })
    let said = ''
    for (const stream of [child.stdout, child.stderr])
      stream.on('data', (text) => {
        said += text
      })
    child.once('close', (code) => {
      console.log(`== ${name}: ${code === 0 ? 'well' : 'failed'}\n${said}`)
      done(code === 0)
    })
  })
}

/** A check that is one thing: it passes or fails. */
async function check(name, program, args) {
  if (await attempt(name, `node_modules/.bin/${program}`, args)) passed++
  else failed++
}

/**
 * A runner that counts its tests in a JSON file. A runner that ends badly without a failed test counts as one failure.
 */
function suite(name, program, args, file, count, settings = {}) {
  console.log(`\n== ${name}`)
  const ok =
    spawnSync(program, args, {
      stdio: 'inherit',
      env: { ...process.env, FORCE_COLOR: '0', PALE_TEST_SEED: seed, ...settings },
    }).status === 0
  let counted = { passed: 0, failed: 0 }
  try {
    counted = count(JSON.parse(readFileSync(file, 'utf8')))
  } catch {
    console.log(`${name} left no results.`)
  }
  passed += counted.passed
  failed += counted.failed
  if ((!ok && counted.failed === 0) || counted.passed + counted.failed === 0) failed++
}

try {
  await Promise.all([
    (async () => {
      if (!(await attempt('Demo data for the tests', process.execPath, ['dist/node/make-seed.js', seed]))) failed++
      await check('Format', 'prettier', ['--check', '.'])
      await check('Lint', 'eslint', ['.', '--max-warnings', '0'])
    })(),
    (async () => {
      await check('Types: rooms', 'tsc', ['-b', 'core', 'contracts', 'media', 'server', 'demo', 'cli'])
      await check('Types: web', 'vue-tsc', ['-p', 'web'])
      await check('Types: tests', 'tsc', ['-p', '.'])
    })(),
  ])
  const jestCounts = ({ numPassedTests, numFailedTests, numRuntimeErrorTestSuites }) => ({
    passed: numPassedTests,
    failed: numFailedTests + numRuntimeErrorTestSuites,
  })
  suite(
    'Unit, shell and API tests',
    'node_modules/.bin/jest',
    ['--maxWorkers=2', '--json', `--outputFile=${results}/jest.json`],
    `${results}/jest.json`,
    jestCounts,
  )
  suite(
    'End-to-end tests',
    'node_modules/.bin/playwright',
    ['test', '-c', 'tests/e2e/playwright.config.ts'],
    `${results}/e2e.json`,
    ({ stats }) => ({ passed: stats.expected, failed: stats.unexpected + stats.flaky }),
  )
  // Speeds are measured by bin/bench; here every part of it is only tried.
  suite(
    'Bench, tried briefly',
    process.execPath,
    ['dist/node/bench.js'],
    `${results}/bench.json`,
    ({ done, failed }) => ({ passed: done.length, failed: failed.length }),
    { PALE_SMOKE: '1' },
  )
} finally {
  spawnSync(process.execPath, ['dist/node/make-seed.js', '--remove', seed], { stdio: 'inherit' })
  rmSync(scratch, { recursive: true, force: true })
}

console.log(`\n${passed} passed, ${failed} failed`)
process.exit(failed === 0 ? 0 : 1)
