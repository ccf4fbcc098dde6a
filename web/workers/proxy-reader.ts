// Reads frames of a proxy: fetched in ranges, demultiplexed by mediabunny, decoded by the browser. Every frame stands
// alone, so any frame can be had at any time.
import { EncodedPacketSink, Input, MP4, UrlSource } from 'mediabunny'
import {
  crop,
  planesToFrame,
  rotate,
  videoHigh,
  videoLow,
  type CodeRange,
  type Frame,
  type PlaneLayout,
  type Planes,
} from '@core/image'
import type { ProxyFacts } from '@contracts/responses'
import type { Medium } from './messages'

/** A decoded frame of a proxy: its planes, and how they are to be understood. */
export interface ProxyPicture {
  readonly index: number
  readonly planes: Planes
  readonly layout: PlaneLayout
}

interface Decoding {
  readonly picture: Promise<VideoFrame>
  readonly settle: { done: (frame: VideoFrame) => void; fail: (error: Error) => void }
  /** How many copy from it, or wait to. */
  takers: number
  /** Whether it is decoded. */
  here: boolean
}

const unplayable = 'This browser cannot decode the proxy (H.264, 10 bit). Single frames are shown all the same.'

export class ProxyReader {
  readonly #input: Input<UrlSource>
  readonly #sink: Promise<{ sink: EncodedPacketSink; decoder: VideoDecoder }>
  readonly #decoding = new Map<number, Decoding>()
  #samples: Uint16Array = new Uint16Array(0)

  constructor(
    private readonly medium: Medium & { readonly proxy: ProxyFacts },
    private readonly memory: (bytes: number) => ArrayBufferLike,
  ) {
    this.#input = new Input({
      source: new UrlSource(`/api/media/${medium.hash}/proxy`, {
        getRetryDelay: (attempts) => (attempts < 4 ? 0.3 * 2 ** attempts : null),
        maxCacheSize: 48 * 1024 * 1024,
      }),
      formats: [MP4],
    })
    this.#sink = this.#open()
    this.#sink.catch(() => undefined)
  }

  async #open(): Promise<{ sink: EncodedPacketSink; decoder: VideoDecoder }> {
    const track = await this.#input.getPrimaryVideoTrack()
    const config = track && (await track.getDecoderConfig())
    if (!track || !config) throw new Error('The proxy holds no picture.')
    const wanted: VideoDecoderConfig = { ...config, hardwareAcceleration: 'prefer-software', optimizeForLatency: true }
    if (typeof VideoDecoder !== 'function' || !(await VideoDecoder.isConfigSupported(wanted)).supported)
      throw new Error(unplayable)
    const decoder = new VideoDecoder({
      output: (frame) => {
        const waiting = this.#decoding.get(frame.timestamp)
        // Asked for, forgotten and asked for again, a frame comes twice.
        if (!waiting || waiting.here) return frame.close()
        waiting.here = true
        waiting.settle.done(frame)
      },
      error: (error) => {
        for (const { settle } of this.#decoding.values()) settle.fail(error)
      },
    })
    decoder.configure(wanted)
    return { sink: new EncodedPacketSink(track), decoder }
  }

  /** Begins to decode a frame, so that take() has it soon. */
  ask(index: number): Decoding {
    const known = this.#decoding.get(index)
    if (known) return known
    let settle!: Decoding['settle']
    const picture = new Promise<VideoFrame>((done, fail) => {
      settle = { done, fail }
    })
    picture.catch(() => undefined)
    const decoding: Decoding = { picture, settle, takers: 0, here: false }
    this.#decoding.set(index, decoding)
    void this.#feed(index).catch((error: unknown) =>
      settle.fail(error instanceof Error ? error : new Error(String(error))),
    )
    return decoding
  }

  async #feed(index: number): Promise<void> {
    const { sink, decoder } = await this.#sink
    const packet = await sink.getPacket(((index + 0.5) * this.medium.rate.denominator) / this.medium.rate.numerator)
    if (!packet) throw new Error(`The proxy has no frame ${index}.`)
    // Not wanted any more.
    if (!this.#decoding.has(index)) return
    decoder.decode(new EncodedVideoChunk({ type: 'key', timestamp: index, data: packet.data }))
  }

  /** The frame's planes. They are good until the next take(). */
  async take(index: number): Promise<ProxyPicture> {
    const decoding = this.ask(index)
    decoding.takers++
    try {
      return await this.#copy(await decoding.picture, index)
    } finally {
      // Several may take the same frame: the last lets it go.
      if (--decoding.takers === 0) this.#drop(index, decoding)
    }
  }

  async #copy(frame: VideoFrame, index: number): Promise<ProxyPicture> {
    const half = this.medium.proxy.chroma === '4:2:2'
    if ((frame.format as string) !== (half ? 'I422P10' : 'I444P10')) throw new Error(unplayable)
    const { width, height } = frame.visibleRect ?? { width: frame.codedWidth, height: frame.codedHeight }
    const across = half ? Math.ceil(width / 2) : width
    const luma = width * height
    const chroma = across * height
    if (this.#samples.length !== luma + 2 * chroma)
      this.#samples = new Uint16Array(this.memory((luma + 2 * chroma) * 2))
    await frame.copyTo(this.#samples, {
      layout: [
        { offset: 0, stride: width * 2 },
        { offset: luma * 2, stride: across * 2 },
        { offset: (luma + chroma) * 2, stride: across * 2 },
      ],
    })
    const samples = this.#samples
    return {
      index,
      planes: {
        y: samples.subarray(0, luma),
        cb: samples.subarray(luma, luma + chroma),
        cr: samples.subarray(luma + chroma),
      },
      layout: { model: 'ycbcr', width, height, bitDepth: 10, chromaShiftX: half ? 1 : 0, chromaShiftY: 0 },
    }
  }

  /** Forgets frames that were asked for and are not wanted any more; whoever waits for one of them is told. */
  forget(wanted: (index: number) => boolean): void {
    for (const [index, decoding] of this.#decoding) {
      if (wanted(index)) continue
      decoding.settle.fail(new Error('The frame is not wanted any more.'))
      if (decoding.takers === 0) this.#drop(index, decoding)
      else this.#decoding.delete(index)
    }
  }

  #drop(index: number, decoding: Decoding): void {
    if (this.#decoding.get(index) === decoding) this.#decoding.delete(index)
    void decoding.picture.then(
      (frame) => frame.close(),
      () => undefined,
    )
  }

  close(): void {
    this.forget(() => false)
    void this.#sink.then(
      ({ decoder }) => {
        if (decoder.state !== 'closed') decoder.close()
      },
      () => undefined,
    )
    this.#input.dispose()
  }
}

let kept: { readonly hash: string; readonly reader: ProxyReader } | null = null

/** This worker's reader of a clip's proxy; the one of the clip before it is closed. */
export function proxyReaderOf(medium: Medium & { readonly proxy: ProxyFacts }): ProxyReader {
  if (kept?.hash !== medium.hash) {
    kept?.reader.close()
    kept = { hash: medium.hash, reader: new ProxyReader(medium, (bytes) => new ArrayBuffer(bytes)) }
  }
  return kept.reader
}

/** Some frames, one after the other: while one is looked at, the next is decoded. */
export async function* proxyFrames(
  reader: ProxyReader,
  frames: readonly number[],
): AsyncGenerator<ProxyPicture, void, undefined> {
  for (const [i, index] of frames.entries()) {
    const next = frames[i + 1]
    reader.forget((asked) => asked === index || asked === next)
    reader.ask(index)
    if (next !== undefined) reader.ask(next)
    yield await reader.take(index)
  }
}

/** How a proxy's samples are read, given how the original is. */
export const proxyRange = ({ range }: ProxyFacts, read: CodeRange): CodeRange => (range === 'full' ? 'full' : read)

/** The signal that a frame's codes span once the planes were converted. */
export function proxySpan({ low, high }: ProxyFacts): { readonly low: number; readonly high: number } {
  return { low: low + (high - low) * videoLow, high: low + (high - low) * videoHigh }
}

/** True when rows can be converted where they lie: nothing to turn, nothing to cut off. */
export const isPlain = ({ rotation, width, height }: ProxyFacts, layout: PlaneLayout): boolean =>
  rotation === 0 && layout.width === width && layout.height === height

/** A whole frame from a proxy's planes. */
export function frameOfProxy({ planes, layout }: ProxyPicture, proxy: ProxyFacts, read: CodeRange): Frame {
  const frame = crop(planesToFrame(planes, layout, proxyRange(proxy, read), proxy.matrix), proxy.width, proxy.height)
  return rotate({ ...frame, ...proxySpan(proxy) }, proxy.rotation)
}
