// Where the Bench's frames come from: the exact frame, or the proxy's while a hand scrubs or the clip plays.
import { LRUCache } from 'lru-cache'
import { dragSize, neighbourFrames, restSize } from '@core/grade'
import type { CodeRange, Frame } from '@core/image'
import type { ProxyFacts } from '@contracts/responses'
import { frameAtHand, frameWithAround, loadFrame } from '../frame-source'
import type { Medium, Rendered, RenderRequest } from '../messages'
import { frameOfProxy, isPlain, ProxyReader, proxyRange, proxySpan, type ProxyPicture } from '../proxy-reader'
import { sharedBytes } from '../shared-memory'
import type { Unpacking } from '../tile'

const readers = new LRUCache<string, ProxyReader>({ max: 2, dispose: (reader) => reader.close() })

export function readerOf(medium: Medium): ProxyReader | null {
  const { proxy } = medium
  if (!proxy) return null
  const reader = readers.get(medium.hash) ?? new ProxyReader({ ...medium, proxy }, sharedBytes)
  readers.set(medium.hash, reader)
  return reader
}

export interface Source {
  readonly frame: Frame
  readonly unpack: Unpacking | null
  readonly source: Rendered['source']
}

/** A proxy's picture as the threads take it: each converts its own rows of it, where nothing is to be turned. */
export function proxySource(taken: ProxyPicture, proxy: ProxyFacts, read: CodeRange): Source {
  if (!isPlain(proxy, taken.layout)) return { frame: frameOfProxy(taken, proxy, read), unpack: null, source: 'proxy' }
  if (target?.width !== proxy.width || target.height !== proxy.height)
    target = {
      width: proxy.width,
      height: proxy.height,
      data: new Uint16Array(sharedBytes(proxy.width * proxy.height * 6)),
      low: 0,
      high: 1,
    }
  return {
    frame: { ...target, ...proxySpan(proxy) },
    unpack: { planes: taken.planes, layout: taken.layout, range: proxyRange(proxy, read), matrix: proxy.matrix },
    source: 'proxy',
  }
}
let target: Frame | null = null

/** The exact frame where it is at hand or wanted; while a hand scrubs, the proxy's. */
async function frameFor({ medium, frameIndex, grade, size }: RenderRequest, playing: boolean): Promise<Source> {
  const address = { mediaHash: medium.hash, index: frameIndex, range: grade.read.range }
  const known = frameAtHand(address)
  if (known) return { frame: known, unpack: null, source: 'exact' }
  const reader = size === dragSize && !playing ? readerOf(medium) : null
  if (reader && medium.proxy) {
    try {
      return proxySource(await reader.take(frameIndex), medium.proxy, grade.read.range)
    } catch {
      // Without a proxy the exact frame does.
      readers.delete(medium.hash)
    }
  }
  return { frame: await loadFrame(address), unpack: null, source: 'exact' }
}

/** The frame of a request; at rest, with the frames about it that the grade looks at. */
export async function sourceFor(request: RenderRequest, playing: boolean): Promise<Source> {
  const source = await frameFor(request, playing)
  const { medium, frameIndex, grade, size, asShot } = request
  if (size !== restSize || asShot || source.source !== 'exact') return source
  const looked = neighbourFrames(grade, frameIndex, medium.span.first, medium.span.last)
  const address = { mediaHash: medium.hash, index: frameIndex, range: grade.read.range }
  return looked.length === 0 ? source : { ...source, frame: await frameWithAround(source.frame, address, looked) }
}

/** A proxy that failed is opened anew the next time. */
export const forgetReader = (medium: Medium): void => void readers.delete(medium.hash)
