// Makes the demo footage from rendered plates: encode-demo PLATE_FOLDER [shot id …]. Needs ffmpeg; see demo/README.md.
import { spawn } from 'node:child_process'
import { once } from 'node:events'
import { writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { diagonal } from '../../core/colour/matrix'
import { secondWeekShots } from '../second-week'
import { demoShots, footage, moveDone, type DemoShot, type FileKind } from '../shots'
import { cameraMatrix, expose, noiseSource } from './camera'
import { frameThrough, meanOfPatch, patchInFrame, readPlate, windowBetween, type Plate } from './plate'

const [plateFolder, ...wanted] = process.argv.slice(2)
if (!plateFolder) {
  console.error('Use: encode-demo PLATE_FOLDER [shot id …]')
  process.exit(2)
}
const shots = [...demoShots, ...secondWeekShots].filter((s) => wanted.length === 0 || wanted.includes(s.id))
for (const shot of shots) await makeClip(shot, plateFolder)

async function makeClip(shot: DemoShot, folder: string): Promise<void> {
  const { width, height, frames, rate, seed } = footage
  const plate = readPlate(join(folder, `${shot.plate}.exr`))
  // The card's grey becomes exactly 0.18 and neutral: that is what "correct" means for this shot.
  const [r, g, b] = meanOfPatch(plate, shot.patches.greyCard)
  const matrix = cameraMatrix(shot, diagonal([0.18 / r, 0.18 / g, 0.18 / b]))
  const noise = noiseSource(seed + shot.id.length * 7919)
  const output = join('demo', 'footage', `${shot.id}.mov`)
  const code = shot.file.range === 'full' ? 'pc' : 'tv'
  const encoder = spawn(
    'ffmpeg',
    [
      '-v',
      'error',
      '-y',
      '-f',
      'rawvideo',
      '-pix_fmt',
      'yuv422p10le',
      '-color_range',
      code,
      '-s',
      `${width}x${height}`,
      '-r',
      String(rate),
      '-i',
      'pipe:0',
      '-vf',
      `scale=in_range=${code}:out_range=${code}:flags=area+accurate_rnd+full_chroma_int,` +
        `format=${shot.file.pixelFormat}`,
      ...codecOf(shot.file),
      '-color_range',
      code,
      '-colorspace',
      shot.file.matrix === 'bt2020' ? 'bt2020nc' : 'bt709',
      ...tagsOf(shot.file),
      '-movflags',
      '+faststart',
      '-map_metadata',
      '-1',
      '-fflags',
      '+bitexact',
      '-flags:v',
      '+bitexact',
      output,
    ],
    { stdio: ['pipe', 'inherit', 'inherit'] },
  )
  for (let n = 0; n < frames; n++) {
    const t = moveDone(shot, n)
    const light = frameThrough(plate, windowBetween(shot.from, shot.to, t), width, height)
    const planes = expose(shot, light, matrix, shot.driftStops * t, width, height, noise)
    if (!encoder.stdin.write(planes)) await once(encoder.stdin, 'drain')
  }
  encoder.stdin.end()
  const [exit] = (await once(encoder, 'close')) as [number]
  if (exit !== 0) throw new Error(`The encoder failed on ${shot.id}.`)
  writeFileSync(join('demo', 'footage', `${shot.id}.truth.json`), `${JSON.stringify(truthOf(shot, plate), null, 1)}\n`)
  console.log(output)
}

function codecOf({ codec, crf }: FileKind): string[] {
  return codec === 'hevc'
    ? ['-c:v', 'libx265', '-preset', 'slow', '-x265-params', `log-level=error:crf=${crf}:keyint=24:no-info=1`]
    : ['-c:v', 'libx264', '-preset', 'slow', '-tune', 'grain', '-crf', String(crf), '-g', '24']
}

// A camera that records its own log or flat curve says nothing of its transfer.
function tagsOf({ transfer, matrix }: FileKind): string[] {
  return transfer ? ['-color_trc', transfer, '-color_primaries', matrix] : []
}

/** What is known to be true of the clip, for tests and drills to score against. */
function truthOf(shot: DemoShot, plate: Plate): object {
  const { width, height, frames, rate } = footage
  const patchesAt = (t: number): object =>
    Object.fromEntries(
      Object.entries(shot.patches).map(([name, patch]) => [
        name,
        patchInFrame(patch, plate, windowBetween(shot.from, shot.to, t), width, height),
      ]),
    )
  const atLead = moveDone(shot, shot.leadFrame)
  return {
    camera: shot.camera,
    encodingId: shot.encodingId,
    gamutId: shot.gamutId,
    range: shot.file.range,
    frames,
    rate,
    leadFrame: shot.leadFrame,
    exposureErrorStops: shot.exposureErrorStops,
    driftStops: shot.driftStops,
    neutralisedBy: shot.neutralisedBy,
    noise: shot.noise,
    reflectance: { greyCard: 0.18, white90: 0.9, black3: 0.03 },
    patches: {
      about: 'corners as shares of the frame, x then y',
      firstFrame: patchesAt(0),
      leadFrame: patchesAt(atLead),
      lastFrame: patchesAt(1),
    },
  }
}
