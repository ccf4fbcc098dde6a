// bin/bench: speed in the real browser and on the server, and accuracy on the demo footage. Prints medians and ratios.
import { resolve } from 'node:path'
import { startDemoInstance } from '../support/demo-instance'
import { startChromium } from '../support/chromium'
import { measureAccuracy } from './accuracy'
import { measureGuess } from './guess'
import { measureKernel, measureRebuild, measureScopes } from './kernel'
import { measureSlider } from './slider'

const instance = await startDemoInstance()
const browser = await startChromium()
try {
  console.log(`Measured ${new Date().toISOString()} under Node.js ${process.version}; medians.`)
  console.log('\n(a) Slider move → finished picture and scopes on screen, Chromium, 960×540')
  for (const line of await measureSlider(browser, instance.address)) console.log(`    ${line}`)
  // Asked for before the long computations, during which the connection would be closed.
  const accuracy = await measureAccuracy(instance.address)
  console.log('\n(b) Lattice application, one core, 1920×1080, 33 entries per axis')
  for (const line of await measureKernel(resolve('.data'), browser)) console.log(`    ${line}`)
  console.log('\n    Compiling again after one slider moved, 33 entries per axis')
  for (const line of measureRebuild()) console.log(`    ${line}`)
  console.log('\n(c) One pass for waveform, parade, vectorscope and histogram, 960×540, one core')
  for (const line of measureScopes()) console.log(`    ${line}`)
  console.log('\n(d) The fused preview against direct evaluation, ΔE2000 over a real frame')
  for (const line of accuracy) console.log(`    ${line}`)
  console.log('\n(e) The guess over the demo scenes, every encoding, noise, exposure ±1.5 stop, a quarter of the range flags wrong')
  for (const line of await measureGuess(Number(process.env['PALE_FRAMINGS'] ?? 1))) console.log(`    ${line}`)
} finally {
  await browser.close()
  await instance.dispose()
}
