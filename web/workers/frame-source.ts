// Fetches exact frames and LUTs for the worker and keeps the last few.
import { LRUCache } from 'lru-cache'
import { neighbourFrames, missingLuts, type GradeDocument } from '@core/grade'
import type { Frame } from '@core/image'
import { unpackLut, type Lut } from '@core/luts'
import { requestError } from '../api/client'
import { patientFetch } from '../api/patient-fetch'
import type { FrameAddress, GradedFrame } from './messages'
import { inSharedMemory } from './shared-memory'

/** Asked for twice at once, something is fetched once; pushed out meanwhile, it still arrives. */
const kept = { max: 16, ignoreFetchAbort: true } as const
const frames = new LRUCache<string, Frame>({ ...kept, fetchMethod: fetchFrame })
const luts = new LRUCache<string, Lut>({ ...kept, fetchMethod: fetchLut })

const addressKey = ({ mediaHash, index, range, size }: FrameAddress): string =>
  `${mediaHash}/frames/${index}?range=${range}${size ? `&size=${size}` : ''}`

export const frameAtHand = (address: FrameAddress): Frame | undefined => frames.get(addressKey(address))
export const loadFrame = (address: FrameAddress): Promise<Frame> => frames.forceFetch(addressKey(address))

async function fetchFrame(key: string): Promise<Frame> {
  const response = await answer(`/api/media/${key}`)
  const number = (name: string): number => Number(response.headers.get(`x-frame-${name}`))
  const data = new Uint16Array(await response.arrayBuffer())
  const frame = inSharedMemory({
    width: number('width'),
    height: number('height'),
    low: number('low'),
    high: number('high'),
    data,
    id: key,
  })
  if (data.length !== frame.width * frame.height * 3 || data.length === 0)
    throw new RangeError('The frame came incomplete.')
  return frame
}

/** A frame with those so many frames away. */
export async function frameWithAround(
  frame: Frame,
  { index, ...address }: FrameAddress,
  looked: readonly number[],
): Promise<Frame> {
  const others = await Promise.all(looked.map((away) => loadFrame({ ...address, index: index + away })))
  return { ...frame, around: new Map(others.map((other, i) => [looked[i] ?? 0, other])) }
}

/** The exact frame with those about it that the grade looks at: what the picture at rest is made of. */
export async function loadGradedFrame({ medium, frameIndex, grade }: GradedFrame): Promise<Frame> {
  const address = { mediaHash: medium.hash, index: frameIndex, range: grade.read.range }
  const looked = neighbourFrames(grade, frameIndex, medium.span.first, medium.span.last)
  const frame = await loadFrame(address)
  return looked.length === 0 ? frame : frameWithAround(frame, address, looked)
}

/** All LUTs that a grade uses. */
export const loadLutsOf = async (grade: GradeDocument): Promise<void> => {
  await Promise.all(missingLuts(grade, lutAtHand).map(loadLut))
}

export const lutAtHand = (hash: string): Lut | undefined => luts.get(hash)
export const loadLut = (hash: string): Promise<Lut> => luts.forceFetch(hash)

async function fetchLut(hash: string): Promise<Lut> {
  const lut = unpackLut(new Uint8Array(await (await answer(`/api/luts/${hash}/packed`)).arrayBuffer()))
  if (!lut) throw new RangeError('The LUT came incomplete.')
  return lut
}

async function answer(url: string): Promise<Response> {
  const response = await patientFetch(url).catch(() => null)
  if (!response) throw new Error('The server does not answer.')
  if (!response.ok) throw await requestError(response)
  return response
}
