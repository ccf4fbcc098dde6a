// Strips of pictures side by side for the guides: ways of rendering, and Balance before, after and against the truth.
import { mkdirSync, writeFileSync } from 'node:fs'
import { encode as encodePng } from 'fast-png'
import { balance } from '@core/balance'
import { displayById, middleGrey } from '@core/colour'
import { compile, defaultGrade, execute, openingShow, restSize, setShow, type GradeDocument } from '@core/grade'
import { renderingCurve } from '@core/grade/show/rendering'
import { printCurve } from '@core/grade/show/print'
import { frameOfDecoded, shrink, type Frame } from '@core/image'
import { decodedPicture } from '@media/decode'
import { decodeFrame } from '@media/single-frames'
import { probe } from '@media/probe'
import { demoShots } from '../../demo/shots'
import { cleanCamera, openedGrade } from '../balance/takes'
import { shoot } from '../guess/camera'
import { plateLight } from '../guess/plate-light'
import { randomSource } from '../guess/scenes'

const none = (): undefined => undefined
const index = 30

interface Opened {
  readonly frame: Frame
  readonly grade: GradeDocument
}

/** A frame of a demo shot with the grade that it opens with. */
async function openedShot(id: string, width: number, height: number): Promise<Opened> {
  const shot = demoShots.find((s) => s.id === id)
  if (!shot) throw new RangeError(`There is no demo shot "${id}".`)
  const path = `demo/footage/${id}.mov`
  const { facts, frameTimes } = await probe(path, id)
  const { range } = shot.file
  const whole = frameOfDecoded(decodedPicture(await decodeFrame(path, facts, frameTimes, index), facts, range))
  const { encodingId } = shot
  const plain = defaultGrade(encodingId, shot.gamutId, range)
  const codes = whole.data.slice().sort()
  const top = (codes[Math.floor(codes.length * 0.9999)] ?? 0) / 65535
  const read = { ...plain.read, brightestSignal: whole.low + top * (whole.high - whole.low) }
  return { frame: shrink(whole, width, height), grade: { ...plain, read, show: openingShow(read, plain.show) } }
}

const shownOf = (frame: Frame, grade: GradeDocument): Frame => execute(compile(grade, none, frame, restSize), frame)

/** Pictures of one size in rows, four pixels of grey between them. */
function sheet(rows: readonly (readonly Frame[])[]): Uint8Array {
  const gap = 4
  const { width, height } = rows[0]![0]!
  const columns = Math.max(...rows.map((row) => row.length))
  const whole = { width: columns * (width + gap) - gap, height: rows.length * (height + gap) - gap }
  const data = new Uint8Array(whole.width * whole.height * 3).fill(64)
  rows.forEach((row, r) =>
    row.forEach((frame, c) => {
      for (let y = 0; y < height; y++)
        for (let i = 0; i < width * 3; i++)
          data[((r * (height + gap) + y) * whole.width + c * (width + gap)) * 3 + i] =
            frame.data[y * width * 3 + i]! >> 8
    }),
  )
  return encodePng({ ...whole, data, depth: 8, channels: 3 })
}

async function renderings(): Promise<void> {
  const rows: Frame[][] = []
  for (const id of ['window-bench', 'kiln-night', 'courtyard', 'dusk-lantern']) {
    const { frame, grade } = await openedShot(id, 400, 225)
    rows.push((['straight', 'print', 'rendered'] as const).map((method) => shownOf(frame, setShow(grade, { method }))))
  }
  writeFileSync('docs/rendering/straight-print-rendered.png', sheet(rows))
}

async function balanced(): Promise<void> {
  const pairs: Frame[][] = []
  const size = { width: 240, height: 135 }
  for (const { id } of demoShots) {
    const { frame, grade } = await openedShot(id, 960, 540)
    const { choices } = balance({ grade, frame, sourceBits: 10, lut: none, pointed: { card: null, subjects: [] } })
    const right = shoot(plateLight(id, index), cleanCamera, randomSource(1))
    const small = (of: Frame): Frame => shrink(of, size.width, size.height)
    pairs.push([
      small(shownOf(frame, grade)),
      small(shownOf(frame, choices[0]?.grade ?? grade)),
      small(shownOf(right, openedGrade(cleanCamera.encodingId, right))),
    ])
    console.log(`${id}: ${choices[0]?.moves.map((m) => m.words).join(', ') || 'nothing is changed'}`)
  }
  const half = Math.ceil(pairs.length / 2)
  writeFileSync(
    'docs/screenshots/balance.png',
    sheet(pairs.slice(0, half).map((p, i) => [...p, ...(pairs[half + i] ?? [])])),
  )
}

/** Signal over stops from middle grey. */
function curves(): void {
  const { eotf } = displayById('bt709-2.4')
  const [width, height] = [720, 360]
  const x = (stops: number): number => ((stops + 8) / 16) * width
  const y = (signal: number): number => height - signal * (height - 20)
  const drawn = (of: (light: number) => number, stroke: string): string => {
    const points = Array.from({ length: 161 }, (_, n) => {
      const stops = -8 + n / 10
      const signal = eotf.encode(Math.min(1, Math.max(0, of(middleGrey * 2 ** stops))))
      return `${x(stops).toFixed(1)},${y(signal).toFixed(1)}`
    })
    return `<polyline fill="none" stroke="${stroke}" stroke-width="2" points="${points.join(' ')}"/>`
  }
  const { params } = defaultGrade('log-420-95').show
  const rendered = (stops: number): ((light: number) => number) =>
    renderingCurve({ maximum: middleGrey * 2 ** stops, toe: params.toe, bleach: params.bleach }, 1)
  const print = printCurve(
    { contrast: params.printContrast, toe: params.toe, shoulder: params.shoulder, grey: params.greyPlacement },
    1,
  )
  const grid = [-8, -6, -4, -2, 0, 2, 4, 6, 8]
    .map(
      (s) =>
        `<line x1="${x(s)}" x2="${x(s)}" y1="0" y2="${height}" stroke="#555"/>` +
        `<text x="${x(s) + 3}" y="${height - 4}" fill="#aaa" font-size="11">${s}</text>`,
    )
    .join('')
  const lines = [
    drawn((v) => v, '#888'),
    drawn(print, '#c9a'),
    drawn(rendered(4), '#9ac'),
    drawn(rendered(7), '#fff'),
  ].join('')
  writeFileSync(
    'docs/rendering/curves.svg',
    `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${width} ${height}" font-family="sans-serif">` +
      `<rect width="${width}" height="${height}" fill="#333"/>${grid}${lines}</svg>\n`,
  )
}

export async function takeStrips(): Promise<void> {
  mkdirSync('docs/rendering', { recursive: true })
  curves()
  await renderings()
  await balanced()
}
