// Makes the truth mattes of the portraits: how much of each pixel of the lead frame is skin. make-mattes PLATE_FOLDER;
// see demo/README.md.
import { writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { encode } from 'fast-png'
import { demoShots, footage, moveDone } from '../shots'
import { frameThrough, readPlate, windowBetween } from './plate'

const [folder] = process.argv.slice(2)
if (!folder) {
  console.error('Use: make-mattes PLATE_FOLDER')
  process.exit(2)
}
const { width, height } = footage
for (const shot of demoShots.filter((s) => s.patches.skin)) {
  const light = frameThrough(
    readPlate(join(folder, `${shot.plate}-skin.exr`)),
    windowBetween(shot.from, shot.to, moveDone(shot, shot.leadFrame)),
    width,
    height,
  )
  const data = Uint8Array.from({ length: width * height }, (_, p) =>
    Math.round(Math.min(1, Math.max(0, light[p * 3])) * 255),
  )
  const output = join('demo', 'footage', `${shot.id}.skin.png`)
  writeFileSync(output, encode({ width, height, data, channels: 1, depth: 8 }))
  console.log(output)
}
