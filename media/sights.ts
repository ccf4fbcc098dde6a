// The frames of a medium that its encoding is guessed from.
import type { MediaFacts } from '@contracts/index'
import { placesToLook, type LookedPlace } from '@core/guess'
import { decodeAll, keySecondsFor } from './decode'
import { decodeFrame } from './single-frames'

/** Planes of a frame and, where there is one, of the frame right after it. */
export interface DecodedSight {
  /** The number of the frame. */
  readonly index: number
  readonly planes: Buffer
  readonly next?: Buffer
}

/**
 * A few places spread over the medium, or only the one at the frame that is chosen. Places that cannot be decoded are
 * passed over. Throws a MediaFault when none can.
 * @param onPlace told of the frame of each place as it comes, before the one after it
 */
export async function decodeSights(
  path: string,
  facts: MediaFacts,
  frameTimes: readonly number[],
  chosen?: number,
  onPlace?: (sight: DecodedSight) => void,
): Promise<readonly [DecodedSight, ...DecodedSight[]]> {
  const places: readonly LookedPlace[] =
    chosen === undefined ? placesToLook(facts) : [{ index: chosen, count: chosen + 1 < facts.frameCount ? 2 : 1 }]
  const decoded = await Promise.all(places.map((place) => decodePlace(path, facts, frameTimes, place, onPlace)))
  const [first, ...others] = decoded.flatMap(([planes, next], i): readonly DecodedSight[] =>
    planes ? [{ index: places[i]?.index ?? 0, planes, ...(next ? { next } : {}) }] : [],
  )
  // Where nothing came, this says what is wrong.
  const index = places[0]?.index ?? 0
  return first ? [first, ...others] : [{ index, planes: await decodeFrame(path, facts, frameTimes, index) }]
}

async function decodePlace(
  path: string,
  facts: MediaFacts,
  frameTimes: readonly number[],
  { index, count }: LookedPlace,
  onPlace: (sight: DecodedSight) => void = () => undefined,
): Promise<readonly Buffer[]> {
  const keySeconds = keySecondsFor(index, facts, frameTimes)
  const { frames, stop } = decodeAll(path, facts, {
    first: index,
    time: frameTimes[index] ?? 0,
    count,
    ...(keySeconds === undefined ? {} : { keySeconds }),
  })
  const out: Buffer[] = []
  try {
    for await (const planes of frames) {
      if (out.push(planes) === 1) onPlace({ index, planes })
    }
  } finally {
    stop()
  }
  return out
}
