// bin/bench: speed in the real browser and on the server, and accuracy on the demo footage. Prints medians and ratios.
import { setTimeout as pause } from 'node:timers/promises'
import { mkdirSync, writeFileSync } from 'node:fs'
import { resolve } from 'node:path'
import { startDemoInstance } from '../support/demo-instance'
import { startChromium } from '../support/chromium'
import { measureAccuracy } from './accuracy'
import { measureAimSolver } from './aims'
import { measureBalance } from './balance'
import { measureCards } from './cards'
import { measureLoad } from './load'
import { measureDatabase } from './database'
import { smoke } from './effort'
import { measureGuess, measureGuessOnPhotographs } from './guess'
import { measureKernel, measureRebuild, measureScopes } from './kernel'
import { measureLargeClip } from './large-clip'
import { measureLargeLuts } from './large-luts'
import { measureCarried } from './carried-regions'
import { measureMatching, measureOtherAngles } from './matching'
import { measurePlayback, proxiesMade } from './playback'
import { measureProposal } from './proposal'
import { measureReadingsOnPhotographs } from './readings'
import { measureRegions } from './regions'
import { measureScenePlaying } from './scene-playing'
import { measureSetups } from './setups'
import { measureSheet } from './sheet'
import { measureSlider } from './slider'
import { watchStolen } from './stolen'

const instance = await startDemoInstance()
const browser = await startChromium()

interface Part {
  readonly letter: string
  readonly what: string
  readonly measure: () => Promise<readonly string[]> | readonly string[]
}
const parts: readonly Part[] = [
  {
    letter: 'a',
    what: 'Slider move → finished picture and scopes on screen, Chromium, 960×540',
    measure: () => measureSlider(browser, instance.address),
  },
  {
    letter: 'b',
    what: 'Playing a ten-step grade from the proxy with the instruments, Chromium, 960×540, 24 frames a second',
    measure: () => measurePlayback(browser, instance),
  },
  {
    letter: 'c',
    what: 'Lattice application, one core, 1920×1080, 33 entries per axis',
    measure: () => measureKernel(resolve('.data'), browser),
  },
  { letter: 'd', what: 'Compiling again after one slider moved, 33 entries per axis', measure: measureRebuild },
  {
    letter: 'e',
    what: 'One pass for waveform, parade, vectorscope and histogram, 960×540, one core',
    measure: () => measureScopes(resolve('.data')),
  },
  {
    letter: 'f',
    what: 'The fused preview and exported tables against direct evaluation, ΔE over real frames',
    measure: () => measureAccuracy(instance.address),
  },
  {
    letter: 'g',
    what:
      'The guess over the demo scenes, every encoding, noise, exposure ±1.5 stop, a quarter of the ' +
      'range flags wrong',
    measure: () => measureGuess(Number(process.env['PALE_FRAMINGS'] ?? 1)),
  },
  { letter: 'h', what: 'Four aims solved together, 960×540, one core', measure: measureAimSolver },
  {
    letter: 'i',
    what: 'A contact sheet of a hundred LUTs on one frame, Chromium, each round from a fresh page',
    measure: () => measureSheet(browser, instance.address),
  },
  {
    letter: 'j',
    what: 'Regions: drags and playing in Chromium, 960×540; following on one core',
    measure: () => measureRegions(browser, instance.address),
  },
  { letter: 'k', what: 'Large tables, one core', measure: measureLargeLuts },
  { letter: 'l', what: 'The server and its database under a long film', measure: measureDatabase },
  { letter: 'm', what: 'The guess on photographs that it was not taught with', measure: measureGuessOnPhotographs },
  { letter: 'n', what: 'Readings and casts on photographs', measure: measureReadingsOnPhotographs },
  { letter: 'o', what: 'Balance for me on takes with known truth', measure: measureBalance },
  { letter: 'p', what: 'Grey cards found by themselves', measure: measureCards },
  { letter: 'q', what: 'Eight people at once', measure: measureLoad },
  { letter: 'r', what: 'A large clip from its first second', measure: () => measureLargeClip(browser, instance) },
  { letter: 's', what: 'Balance for me', measure: () => measureProposal(browser, instance.address) },
  { letter: 't', what: 'Matching of shots on made pairs', measure: measureMatching },
  { letter: 'u', what: 'Set-ups recognised on made reels', measure: measureSetups },
  {
    letter: 'v',
    what: 'A reel played through its cuts, Chromium, 960×540',
    measure: () => measureScenePlaying(browser, instance.address),
  },
  { letter: 'w', what: 'Regions carried to other shots', measure: measureCarried },
  { letter: 'x', what: 'One scene from another angle, matched by colour', measure: measureOtherAngles },
]
/** PALE_PARTS=ab measures only these; PALE_SMOKE=1 only tries each, as bin/test does. */
const wanted = process.env['PALE_PARTS'] ?? parts.map((p) => p.letter).join('')
const done: string[] = []
const failed: string[] = []

try {
  await proxiesMade(instance.address)
  console.log(`Measured ${new Date().toISOString()} under Node.js ${process.version}; medians.`)
  for (const { letter, what, measure } of parts.filter((p) => wanted.includes(p.letter))) {
    console.log(`\n(${letter}) ${what}`)
    // A part that held this thread for minutes has not heard yet which connections were closed meanwhile.
    await pause(100)
    const begun = performance.now()
    const stolen = watchStolen()
    try {
      const lines = await measure()
      for (const line of lines) console.log(`    ${line}`)
      if (lines.length === 0 || lines.some((l) => /NaN|Infinity|undefined/.test(l)))
        throw new Error('It measured something that is no number.')
      const share = stolen() ?? 0
      if (share > 0.02)
        console.log(`    meanwhile others took ${(100 * share).toFixed(0)} % of this machine's processor time`)
      done.push(letter)
      if (smoke) console.log(`    in ${((performance.now() - begun) / 1000).toFixed(0)} s`)
    } catch (error) {
      failed.push(letter)
      console.log(`    FAILED: ${error instanceof Error ? (error.stack ?? error.message) : String(error)}`)
    }
  }
} finally {
  await browser.close()
  await instance.dispose()
}

if (failed.length > 0) process.exitCode = 1
if (smoke) {
  mkdirSync('test-results', { recursive: true })
  writeFileSync('test-results/bench.json', JSON.stringify({ done, failed }))
}
