// Runs every check, one after the other, and ends with one line that counts them all.
import { spawnSync } from 'node:child_process'
import { mkdirSync, readFileSync, rmSync } from 'node:fs'

const results = 'test-results'
rmSync(results, { recursive: true, force: true })
mkdirSync(results, { recursive: true })
let passed = 0, failed = 0

function run(command, args) {
  return spawnSync(`node_modules/.bin/${command}`, args, { stdio: 'inherit', env: { ...process.env, FORCE_COLOR: '0' } }).status === 0
}

/** A check that is one thing: it passes or fails. */
function check(name, command, args) {
  console.log(`\n== ${name}`)
  if (run(command, args)) passed++
  else failed++
}

/** A runner that counts its tests in a JSON file. A runner that ends badly without a failed test counts as one failure. */
function suite(name, command, args, file, count) {
  console.log(`\n== ${name}`)
  const ok = run(command, args)
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

check('Types: core', 'tsc', ['-p', 'core'])
check('Types: contracts', 'tsc', ['-p', 'contracts'])
check('Types: server and demo', 'tsc', ['-p', 'server'])
check('Types: web', 'vue-tsc', ['-p', 'web'])
check('Types: tests', 'tsc', ['-p', '.'])
check('Lint', 'eslint', ['.', '--max-warnings', '0'])
const jestCounts = ({ numPassedTests, numFailedTests, numRuntimeErrorTestSuites }) => ({ passed: numPassedTests, failed: numFailedTests + numRuntimeErrorTestSuites })
// Together, so that both cores have work all the time.
suite('Unit, shell and API tests', 'jest', ['--maxWorkers=2', '--json', `--outputFile=${results}/jest.json`], `${results}/jest.json`, jestCounts)
suite('End-to-end tests', 'playwright', ['test', '-c', 'tests/e2e/playwright.config.ts'], `${results}/e2e.json`, ({ stats }) => ({ passed: stats.expected, failed: stats.unexpected + stats.flaky }))

console.log(`\n${passed} passed, ${failed} failed`)
process.exit(failed === 0 ? 0 : 1)
