// Reads a whole file once, so that damage is found when it is imported and not when it is rendered.
import type { MediaFacts } from '@contracts/index'
import { decoderLimits, fileArgument, filesOnly, runDecoder } from './child'
import { inputOf } from './decode'
import { decoderLog, loggedDecoder } from './decoder-log'
import { changingSize, damagedMedia, unreadableMedia } from './fault'

/**
 * Decodes the whole file once. Throws a MediaFault when frames are missing, damaged or of several sizes, and stops when
 * `onProgress` (frames so far) answers false.
 */
export async function requireDecodable(
  path: string,
  name: string,
  frameCount: number,
  onProgress: (frames: number) => Promise<boolean> = () => Promise.resolve(true),
): Promise<boolean> {
  const seconds = Math.min(4 * 3600, 60 + frameCount / 4)
  let asking = Promise.resolve(true)
  let stopped = false
  const frameIn = (text: string): number => Number([...text.matchAll(/^frame=\s*(\d+)/gm)].at(-1)?.[1] ?? 0)
  const log = decoderLog()
  const result = await runDecoder(
    'ffmpeg',
    [
      ...loggedDecoder,
      '-nostdin',
      ...filesOnly,
      ...decoderLimits,
      '-err_detect',
      'explode',
      '-i',
      fileArgument(path),
      '-map',
      '0:v:0',
      '-fps_mode',
      'passthrough',
      '-f',
      'null',
      '-progress',
      'pipe:1',
      '-',
    ],
    {
      seconds,
      maxOutputBytes: 16 * 1024 * 1024,
      onSaid: log.take,
      onOutput: (chunk, stop) => {
        asking = asking
          .then(() => onProgress(frameIn(chunk.toString('latin1'))))
          .then((go) => {
            if (!go) {
              stopped = true
              stop()
            }
            return go
          })
      },
    },
  )
  await asking
  if (stopped) return false
  if (result.stoppedBy) throw unreadableMedia(`"${name}" takes too long to decode.`)
  if (log.sizes().length > 1) throw changingSize(name, log.sizes())
  const decoded = frameIn(result.stdout.toString('latin1'))
  if (result.code !== 0 || log.faults().length > 0 || decoded < frameCount)
    throw damagedMedia(name, Math.min(decoded, frameCount), frameCount)
  return true
}

/**
 * Decodes every picture of a sequence once. Throws a MediaFault when one is damaged or of another size; false when
 * `onProgress` stopped it.
 */
export async function requirePictures(
  folder: string,
  facts: MediaFacts,
  name: string,
  onProgress: (pictures: number) => Promise<boolean>,
): Promise<boolean> {
  let asking = Promise.resolve(true)
  let stopped = false
  let seen = 0
  let fault: string | undefined
  let rest = ''
  const expected = `${facts.width},${facts.height},${facts.storedFormat}`
  const result = await runDecoder(
    'ffprobe',
    [
      '-v',
      'error',
      ...filesOnly,
      ...decoderLimits,
      '-show_entries',
      'frame=width,height,pix_fmt',
      '-of',
      'csv=p=0',
      ...inputOf('.', facts).args.filter((a) => a !== '-i'),
    ],
    {
      seconds: Math.min(4 * 3600, 60 + facts.frameCount * 5),
      maxOutputBytes: 64 * 1024 * 1024,
      folder,
      onOutput: (chunk, stop) => {
        const lines = (rest + chunk.toString('latin1')).split('\n')
        rest = lines.pop() ?? ''
        for (const line of lines) {
          if (line !== '' && !line.startsWith(expected))
            fault ??=
              `Picture ${seen + 1} of "${name}" is ${line.split(',').slice(0, 2).join('×')} in ` +
              `${line.split(',')[2]}; the first is ${facts.width}×${facts.height} in ${facts.storedFormat}.`
          seen++
        }
        asking = asking
          .then(() => onProgress(seen))
          .then((go) => {
            if (!go) {
              stopped = true
              stop()
            }
            return go
          })
      },
    },
  )
  await asking
  if (stopped) return false
  if (result.stoppedBy) throw unreadableMedia(`"${name}" takes too long to decode.`)
  if (fault) throw unreadableMedia(fault, 'All pictures of a sequence must be alike.')
  if (result.code !== 0 || result.stderr.trim() !== '' || seen < facts.frameCount)
    throw damagedMedia(name, Math.min(seen, facts.frameCount), facts.frameCount)
  return true
}
