// Reading and writing single pictures exactly: PNG, TIFF and EXR, without any colour conversion outside the core.
import { readFile, stat, writeFile } from 'node:fs/promises'
import { extname } from 'node:path'
import { decode as decodePng, encode as encodePng } from 'fast-png'
import { fileArgument, filesOnly, runDecoder, startBounded } from '@media/child'
import { UsageError } from './usage'

export interface Picture {
  readonly width: number
  readonly height: number
  /** RGB triples: codes of 0..1 for whole-number files, the values as they are for floating point. */
  readonly data: Float32Array | Float64Array
  readonly bits: 8 | 16 | 32
}

export const pictureLimits = { side: 8192, pixels: 40_000_000, bytes: 1024 * 1024 * 1024 } as const
export const pictureExtensions: ReadonlySet<string> = new Set(['.png', '.tif', '.tiff', '.exr'])

/** Throws UsageError with one sentence for files that cannot be read or are too large. */
export async function readPicture(path: string): Promise<Picture> {
  const info = await stat(path).catch(() => null)
  if (!info?.isFile()) throw new UsageError(`There is no file "${path}".`)
  if (info.size === 0) throw new UsageError(`"${path}" is empty.`)
  if (info.size > pictureLimits.bytes) throw new UsageError(`"${path}" is larger than a picture can be here (1 GB).`)
  const head = (await readFile(path)).subarray(0, 33)
  if (head.length >= 24 && head.readUInt32BE(0) === 0x89504e47) {
    requireSize(path, head.readUInt32BE(16), head.readUInt32BE(20))
    return readPng(path)
  }
  return readThroughDecoder(path)
}

function requireSize(path: string, width: number, height: number): void {
  if (width < 1 || height < 1) throw new UsageError(`"${path}" has no pixels (${width}×${height}).`)
  if (width > pictureLimits.side || height > pictureLimits.side || width * height > pictureLimits.pixels)
    throw new UsageError(
      `"${path}" is ${width}×${height}; pictures of up to ${pictureLimits.side} a side and ` +
        `${pictureLimits.pixels / 1e6} megapixels are read.`,
    )
}

async function readPng(path: string): Promise<Picture> {
  let png: ReturnType<typeof decodePng>
  try {
    png = decodePng(await readFile(path), { checkCrc: true })
  } catch {
    throw new UsageError(`"${path}" is a damaged PNG.`)
  }
  const { width, height, channels, depth, palette } = png
  if (depth < 8 && !palette) throw new UsageError(`"${path}" has ${depth} bits; PNG of 8 or 16 bits is read.`)
  const top = depth === 16 ? 65535 : 255
  const data = new Float32Array(width * height * 3)
  for (let p = 0; p < width * height; p++) {
    for (let c = 0; c < 3; c++) {
      const value = palette ? palette[png.data[p] ?? 0]?.[c] : png.data[p * channels + (channels < 3 ? 0 : c)]
      data[p * 3 + c] = (value ?? 0) / top
    }
  }
  return { width, height, data, bits: depth === 16 ? 16 : 8 }
}

interface Packing {
  readonly planar: boolean
  readonly components: number
  readonly bytes: 1 | 2 | 4
  readonly bigEndian: boolean
}

// What the decoder may hand over as it is, so that no conversion happens on the way.
const packings: Readonly<Record<string, Packing>> = {
  rgb24: { planar: false, components: 3, bytes: 1, bigEndian: false },
  rgba: { planar: false, components: 4, bytes: 1, bigEndian: false },
  gray: { planar: false, components: 1, bytes: 1, bigEndian: false },
  rgb48le: { planar: false, components: 3, bytes: 2, bigEndian: false },
  rgb48be: { planar: false, components: 3, bytes: 2, bigEndian: true },
  rgba64le: { planar: false, components: 4, bytes: 2, bigEndian: false },
  rgba64be: { planar: false, components: 4, bytes: 2, bigEndian: true },
  gray16le: { planar: false, components: 1, bytes: 2, bigEndian: false },
  gray16be: { planar: false, components: 1, bytes: 2, bigEndian: true },
  gbrpf32le: { planar: true, components: 3, bytes: 4, bigEndian: false },
  gbrapf32le: { planar: true, components: 4, bytes: 4, bigEndian: false },
}

async function readThroughDecoder(path: string): Promise<Picture> {
  const probed = await runDecoder(
    'ffprobe',
    [
      '-v',
      'error',
      ...filesOnly,
      '-select_streams',
      'v:0',
      '-show_entries',
      'stream=width,height,pix_fmt',
      '-of',
      'json',
      '-i',
      fileArgument(path),
    ],
    { seconds: 20, maxOutputBytes: 65536 },
  )
  const stream = streamOf(probed.stdout)
  if (probed.code !== 0 || !stream?.pix_fmt) throw new UsageError(`"${path}" is not a picture that can be read.`)
  const { width = 0, height = 0, pix_fmt: format } = stream
  requireSize(path, width, height)
  const packing = packings[format]
  if (!packing)
    throw new UsageError(
      `"${path}" stores its pixels as ${format}; RGB or grey of 8 or 16 bits, and floating point, are read.`,
    )
  const expected = width * height * packing.components * packing.bytes
  const { code, stdout } = await runDecoder(
    'ffmpeg',
    [
      '-v',
      'error',
      '-nostdin',
      ...filesOnly,
      '-i',
      fileArgument(path),
      '-frames:v',
      '1',
      '-f',
      'rawvideo',
      '-pix_fmt',
      format,
      'pipe:1',
    ],
    { seconds: 120, maxOutputBytes: expected },
  )
  if (code !== 0 || stdout.length !== expected) throw new UsageError(`"${path}" is damaged or ends early.`)
  return {
    width,
    height,
    data: unpack(stdout, width * height, packing),
    bits: (packing.bytes * 8) as 8 | 16 | 32,
  }
}

function streamOf(json: Buffer): { width?: number; height?: number; pix_fmt?: string } | undefined {
  try {
    return (JSON.parse(json.toString('utf8')) as { streams?: { width?: number; height?: number; pix_fmt?: string }[] })
      .streams?.[0]
  } catch {
    return undefined
  }
}

function unpack(bytes: Buffer, pixels: number, { planar, components, bytes: size, bigEndian }: Packing): Float32Array {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)
  const at = (sample: number): number => {
    if (size === 1) return view.getUint8(sample) / 255
    if (size === 2) return view.getUint16(sample * 2, !bigEndian) / 65535
    return view.getFloat32(sample * 4, true)
  }
  const data = new Float32Array(pixels * 3)
  // Planes come green, blue, red.
  const planeOf = [2, 0, 1]
  for (let p = 0; p < pixels; p++)
    for (let c = 0; c < 3; c++) {
      const value = planar ? at((planeOf[c] ?? 0) * pixels + p) : at(p * components + (components < 3 ? 0 : c))
      data[p * 3 + c] = Number.isFinite(value) ? value : 0
    }
  return data
}

/** Writes display signal 0..1 as 16-bit PNG or TIFF; for EXR, floating point values as they are. */
export async function writePicture(path: string, width: number, height: number, data: Float64Array): Promise<void> {
  const kind = extname(path).toLowerCase()
  if (kind === '.png') return writeFile(path, encodePng({ width, height, data: codes16(data), depth: 16, channels: 3 }))
  if (kind === '.exr')
    return encodeThrough(
      path,
      planes32(data),
      ['-pix_fmt', 'gbrpf32le', '-s', `${width}x${height}`],
      ['-format', 'float'],
    )
  const codes = codes16(data)
  return encodeThrough(path, Buffer.from(codes.buffer), ['-pix_fmt', 'rgb48le', '-s', `${width}x${height}`], [])
}

const codes16 = (data: Float64Array): Uint16Array =>
  Uint16Array.from(data, (v) => Math.min(Math.max(v, 0), 1) * 65535 + 0.5)

function planes32(data: Float64Array): Buffer {
  const pixels = data.length / 3
  const out = new Float32Array(data.length)
  for (let p = 0; p < pixels; p++) {
    out[p] = data[p * 3 + 1] ?? 0
    out[pixels + p] = data[p * 3 + 2] ?? 0
    out[2 * pixels + p] = data[p * 3] ?? 0
  }
  return Buffer.from(out.buffer)
}

function encodeThrough(
  path: string,
  bytes: Buffer,
  input: readonly string[],
  output: readonly string[],
): Promise<void> {
  return new Promise((done, fail) => {
    const child = startBounded('ffmpeg', [
      '-v',
      'error',
      '-y',
      '-f',
      'rawvideo',
      ...input,
      '-i',
      'pipe:0',
      '-frames:v',
      '1',
      ...output,
      fileArgument(path),
    ])
    let complaint = ''
    child.stderr.on('data', (chunk: Buffer) => {
      complaint += chunk.toString('utf8').slice(0, 2000)
    })
    child.stdout.resume()
    child.stdin.on('error', () => undefined)
    child.on('error', () => fail(new UsageError('ffmpeg is not installed; it writes TIFF and EXR.')))
    child.on('close', (code) =>
      code === 0
        ? done()
        : fail(new UsageError(`"${path}" could not be written: ${complaint.trim().split('\n').at(-1) ?? ''}`)),
    )
    child.stdin.end(bytes)
  })
}
