// Fetches exact frames and LUTs for the worker and keeps the last few.
import { LRUCache } from 'lru-cache'
import { unpackLut, type Frame, type Lut } from '@core/index'
import { requestError } from '../api/client'
import type { FrameAddress } from './messages'
import { inSharedMemory } from './shared-memory'

const frames = new LRUCache<string, Frame>({ max: 16 })
const luts = new LRUCache<string, Lut>({ max: 16 })

const addressKey = ({ mediaHash, index, range }: FrameAddress): string => `${mediaHash}/frames/${index}?range=${range}`

export const frameAtHand = (address: FrameAddress): Frame | undefined => frames.get(addressKey(address))

export async function loadFrame(address: FrameAddress): Promise<Frame> {
  const key = addressKey(address)
  const known = frames.get(key)
  if (known) return known
  const response = await answer(`/api/media/${key}`)
  const number = (name: string): number => Number(response.headers.get(`x-frame-${name}`))
  const data = new Uint16Array(await response.arrayBuffer())
  const frame = inSharedMemory({ width: number('width'), height: number('height'), low: number('low'), high: number('high'), data, id: key })
  if (data.length !== frame.width * frame.height * 3 || data.length === 0) throw new RangeError('The frame came incomplete.')
  frames.set(key, frame)
  return frame
}

/** A frame with those so many frames away. */
export async function frameWithAround(frame: Frame, { index, ...address }: FrameAddress, looked: readonly number[]): Promise<Frame> {
  const others = await Promise.all(looked.map((away) => loadFrame({ ...address, index: index + away })))
  return { ...frame, around: new Map(others.map((other, i) => [looked[i] ?? 0, other])) }
}

export async function loadLut(hash: string): Promise<Lut> {
  const known = luts.get(hash)
  if (known) return known
  const lut = unpackLut(new Uint8Array(await (await answer(`/api/luts/${hash}/packed`)).arrayBuffer()))
  if (!lut) throw new RangeError('The LUT came incomplete.')
  luts.set(hash, lut)
  return lut
}

export const lutAtHand = (hash: string): Lut | undefined => luts.get(hash)

async function answer(url: string): Promise<Response> {
  const response = await fetch(url).catch(() => null)
  if (!response) throw new Error('The server does not answer.')
  if (!response.ok) throw await requestError(response)
  return response
}
