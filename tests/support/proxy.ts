// A frame as the Bench measures it and the same frame from the proxy, decoded by ffmpeg, for comparing them.
import { execFileSync } from 'node:child_process'
import { writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { compile, executeDirectRows, signalError, type DifferenceReport, type GradeDocument } from '@core/grade'
import {
  crop,
  planesToFrame,
  rotate,
  splitPlanes,
  videoHigh,
  videoLow,
  type Frame,
  type PlaneLayout,
} from '@core/image'
import type { ShotDetail } from '@contracts/responses'
import { call } from './api'

export async function exactFrame({ media }: ShotDetail, index: number): Promise<Frame> {
  const response = await call(`/media/${media.hash}/frames/${index}?range=${media.range}`)
  const number = (name: string): number => Number(response.headers.get(`x-frame-${name}`))
  return {
    width: number('width'),
    height: number('height'),
    low: number('low'),
    high: number('high'),
    data: new Uint16Array(await response.arrayBuffer()),
  }
}

export async function proxyFrame({ media, proxy }: ShotDetail, index: number): Promise<Frame> {
  if (!proxy) throw new Error('There is no proxy.')
  const path = join(process.env['PALE_TEST_DATA']!, 'proxy-frame.mp4')
  const half = proxy.chroma === '4:2:2'
  writeFileSync(path, Buffer.from(await (await call(`/media/${media.hash}/proxy`)).arrayBuffer()))
  const layout: PlaneLayout = {
    model: 'ycbcr',
    width: proxy.width + (proxy.width % 2),
    height: proxy.height,
    bitDepth: 10,
    chromaShiftX: half ? 1 : 0,
    chromaShiftY: 0,
  }
  const planes = execFileSync(
    'ffmpeg',
    [
      '-v',
      'error',
      '-noautorotate',
      '-i',
      path,
      '-vf',
      `select=eq(n\\,${index})`,
      '-frames:v',
      '1',
      '-f',
      'rawvideo',
      '-pix_fmt',
      half ? 'yuv422p10le' : 'yuv444p10le',
      'pipe:1',
    ],
    { maxBuffer: 1 << 28 },
  )
  const frame = crop(
    planesToFrame(splitPlanes(planes, layout), layout, proxy.range === 'full' ? 'full' : media.range, proxy.matrix),
    proxy.width,
    proxy.height,
  )
  const span = proxy.high - proxy.low
  return rotate({ ...frame, low: proxy.low + span * videoLow, high: proxy.low + span * videoHigh }, proxy.rotation)
}

const rowStep = 3

/** Every third row of a frame. */
function someRows({ width, height, data, ...span }: Frame): Frame {
  const rows = Math.floor(height / rowStep)
  const out = new Uint16Array(width * rows * 3)
  for (let y = 0; y < rows; y++)
    out.set(data.subarray(y * rowStep * width * 3, (y * rowStep + 1) * width * 3), y * width * 3)
  return { ...span, width, height: rows, data: out }
}

/** How far two frames are from each other once both went through a grade, worked out exactly on every third row. */
export function differenceThrough(grade: GradeDocument, a: Frame, b: Frame): DifferenceReport {
  const shown = (whole: Frame): Float64Array => {
    const frame = someRows(whole)
    const out = new Uint16Array(frame.data.length)
    executeDirectRows(compile(grade, () => undefined, frame, 33).chain, frame, out, 0, frame.height, null)
    return Float64Array.from(out, (v) => v / 65535)
  }
  return signalError(shown(a), shown(b), grade.show.displayId)
}
