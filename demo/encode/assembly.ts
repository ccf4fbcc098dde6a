// Makes the assembly from the demo clips: each piece read right, shown on BT.709, cut and dissolved as the edit list
// says.
import { spawn } from 'node:child_process'
import { once } from 'node:events'
import { writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { framesOfTimecode } from '@core/footage'
import { printEdl, type EditEvent } from '@core/formats'
import { compile, defaultGrade, execute, setParameter, type Plan } from '@core/grade'
import { frameOfDecoded } from '@core/image'
import { decodeAll, decodedPicture } from '@media/decode'
import { probe } from '@media/probe'
import { assembly, demoShots, footage } from '../shots'

const { width, height, rate } = footage
const code = 65535

const output = join('demo', 'footage', `${assembly.id}.mov`)
const encoder = spawn(
  'ffmpeg',
  [
    '-v',
    'error',
    '-y',
    '-f',
    'rawvideo',
    '-pix_fmt',
    'rgb48le',
    '-s',
    `${width}x${height}`,
    '-r',
    String(rate),
    '-i',
    'pipe:0',
    '-vf',
    'scale=out_color_matrix=bt709:out_range=tv:flags=accurate_rnd+full_chroma_int+bicubic,format=yuv420p',
    '-c:v',
    'libx264',
    '-preset',
    'slow',
    '-crf',
    '19',
    '-g',
    '48',
    '-color_range',
    'tv',
    '-colorspace',
    'bt709',
    '-color_primaries',
    'bt709',
    '-color_trc',
    'bt709',
    '-timecode',
    assembly.startTimecode,
    '-movflags',
    '+faststart',
    '-fflags',
    '+bitexact',
    '-flags:v',
    '+bitexact',
    output,
  ],
  { stdio: ['pipe', 'inherit', 'inherit'] },
)
const write = async (frame: Uint16Array): Promise<void> => {
  if (!encoder.stdin.write(Buffer.from(frame.buffer, frame.byteOffset, frame.byteLength)))
    await once(encoder.stdin, 'drain')
}

/** The frames of a piece as display signal, with `more` frames after it for a dissolve to come. */
function shotOf(id: string): (typeof demoShots)[number] {
  const shot = demoShots.find((s) => s.id === id)
  if (!shot) throw new Error(`There is no demo shot "${id}".`)
  return shot
}

async function framesOf(piece: (typeof assembly.pieces)[number], more: number): Promise<Uint16Array[]> {
  const shot = shotOf(piece.shotId)
  const path = join('demo', 'footage', `${shot.id}.mov`)
  const { facts, frameTimes } = await probe(path, shot.id)
  let grade = defaultGrade(shot.encodingId, shot.gamutId, shot.file.range)
  grade = setParameter(grade, 'exposure', 'exposureStops', -shot.exposureErrorStops)
  grade = setParameter(
    setParameter(grade, 'white-balance', 'temperatureMired', shot.neutralisedBy.temperatureMired),
    'white-balance',
    'tint',
    shot.neutralisedBy.tint,
  )
  grade = { ...grade, show: { ...grade.show, method: 'rolloff' } }
  const { frames } = decodeAll(path, facts, {
    first: piece.first,
    count: piece.count + more,
    time: frameTimes[piece.first],
  })
  let plan: Plan | undefined
  const shown: Uint16Array[] = []
  for await (const planes of frames) {
    const frame = frameOfDecoded(decodedPicture(planes, facts))
    plan ??= compile(grade, () => undefined, frame, 65)
    shown.push(execute(plan, frame).data)
  }
  return shown
}

const events: EditEvent[] = []
let at = 0
let leaving: Uint16Array[] = []
for (const [i, piece] of assembly.pieces.entries()) {
  const more = assembly.pieces[i + 1]?.dissolve ?? 0
  const frames = await framesOf(piece, more)
  for (let n = 0; n < piece.count; n++) {
    const frame = frames[n]
    const old = leaving[n]
    if (old && n < piece.dissolve) {
      const t = (n + 1) / (piece.dissolve + 1)
      await write(frame.map((v, k) => Math.min(code, v * t + old[k] * (1 - t) + 0.5)))
    } else {
      await write(frame)
    }
  }
  events.push({
    name: shotOf(piece.shotId).name,
    first: at,
    count: piece.count,
    transition: piece.dissolve,
  })
  at += piece.count
  leaving = frames.slice(piece.count)
}
encoder.stdin.end()
const [exit] = (await once(encoder, 'close')) as [number]
if (exit !== 0) throw new Error('The encoder failed on the assembly.')
const counting = { rateNumerator: rate, rateDenominator: 1 }
writeFileSync(
  join('demo', 'footage', `${assembly.id}.edl`),
  printEdl(assembly.name, events, counting, framesOfTimecode(assembly.startTimecode, counting)),
)
console.log(output, at)
