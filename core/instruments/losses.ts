// The loss ledger: which pixels a display can no longer hold, and which station pushed them out.
import { displayById, fromWorkingLog } from '../colour'
import { applyPlaced, operate, positionsIn, shownAt, type Chain, type Link, type StationId } from '../grade'
import type { Frame } from '../image'

/** Shares (0..1) of the measured pixels that a station newly lost. */
export interface StationLoss {
  /** A channel beyond the brightest the display shows. */
  readonly clipped: number
  /** No light left in any channel. */
  readonly crushed: number
  /** A channel below zero beside others with light: a colour the display does not have. */
  readonly outOfGamut: number
}
export const noLoss: StationLoss = { clipped: 0, crushed: 0, outOfGamut: 0 }

const kinds = ['clipped', 'crushed', 'outOfGamut'] as const
// A display-linear component this far under zero is a colour outside, not rounding.
const outside = -1e-4

/** Marks of one pixel: bit n is kind n. */
function judge(r: number, g: number, b: number, top: number): number {
  const most = Math.max(r, g, b)
  const least = Math.min(r, g, b)
  return (most > top * (1 + 1e-6) ? 1 : 0) | (most <= 0 ? 2 : 0) | (least < outside && most > 0 ? 4 : 0)
}

function judgeAll(pixels: Float64Array, top: number): Uint8Array {
  return Uint8Array.from({ length: pixels.length / 3 }, (_, p) =>
    judge(pixels[p * 3], pixels[p * 3 + 1], pixels[p * 3 + 2], top),
  )
}

export interface LossLedger {
  /** To be told of the light after every link, in order. */
  readonly after: (link: Link, column: StationId, pixels: Float64Array) => void
  /** The shares each column lost for good. Losses that a later station takes back before Show do not count. */
  readonly close: () => ReadonlyMap<StationId, StationLoss>
  /** One byte per pixel: not zero where the column lost it for good; bit n is kind n. */
  readonly lostBy: (column: StationId) => Uint8Array
}

/**
 * A ledger for `count` pixels of a chain. On the scene side nothing is lost yet: what counts is what Show cannot hold
 * in the end, put down to the station that pushed it out last, or to Show where the scene itself was too much. After
 * Show every hold is final.
 */
export function openLedger(chain: Chain, count: number): LossLedger {
  const display = displayById(chain.displayId)
  const signalTop = display.eotf.encode(display.carriedPeak)
  const lost = new Map<StationId, Uint32Array>()
  // Per pixel and kind: the column that pushed it out, as index + 1 into `columns`; 0 while it is inside.
  const owners = new Uint8Array(count * kinds.length)
  const columns: StationId[] = []
  let shown: Uint8Array | null = null

  const marks = new Map<StationId, Uint8Array>()
  const lose = (column: StationId, pixel: number, kind: number): void => {
    const counts = lost.get(column) ?? new Uint32Array(kinds.length)
    counts[kind]++
    lost.set(column, counts)
    const marked = marks.get(column) ?? new Uint8Array(count)
    marked[pixel] |= 1 << kind
    marks.set(column, marked)
  }
  const each = (bits: Uint8Array, act: (pixel: number, kind: number, marked: boolean) => void): void => {
    for (let p = 0; p < bits.length; p++) for (let k = 0; k < kinds.length; k++) act(p, k, (bits[p] & (1 << k)) !== 0)
  }
  function wouldShow(link: Link, pixels: Float64Array): Uint8Array | null {
    if (!chain.showLight) return null
    const trial = pixels.slice()
    if (link.leaves === 'workingLog') for (let i = 0; i < trial.length; i++) trial[i] = fromWorkingLog(trial[i])
    for (const operation of chain.showLight) operate(operation, trial)
    return judgeAll(trial, display.peak)
  }
  let beforeShow: Uint8Array | null = null

  return {
    after: (link, column, pixels) => {
      if (link.leaves === 'sceneLinear' || link.leaves === 'workingLog') {
        const outsideNow = wouldShow(link, pixels)
        if (!outsideNow) return
        if (columns.at(-1) !== column) columns.push(column)
        each(outsideNow, (p, k, marked) => {
          const at = p * kinds.length + k
          if (!marked) owners[at] = 0
          else if (owners[at] === 0) owners[at] = columns.length
        })
        beforeShow = outsideNow
        return
      }
      const judged = judgeAll(pixels, link.leaves === 'displayLinear' ? display.carriedPeak : signalTop)
      if (column === 'show' && beforeShow && !shown) {
        each(beforeShow, (p, k, marked) => {
          if (!marked) return
          const owner = columns[(owners[p * kinds.length + k] ?? 0) - 1]
          lose(owner === undefined || owner === 'read' ? 'show' : owner, p, k)
        })
        shown = beforeShow
        return
      }
      const already = shown
      each(judged, (p, k, marked) => {
        if (marked && !(already && already[p] & (1 << k))) lose(column, p, k)
      })
      shown = already ? already.map((m, p) => m | judged[p]) : judged
    },
    lostBy: (column) => marks.get(column) ?? new Uint8Array(count),
    close: () =>
      new Map(
        [...lost].map(([column, counts]) => [
          column,
          { clipped: counts[0] / count, crushed: counts[1] / count, outOfGamut: counts[2] / count },
        ]),
      ),
  }
}

/** What the whole Passage loses. */
export function totalLoss(losses: Iterable<StationLoss>): StationLoss {
  let clipped = 0
  let crushed = 0
  let outOfGamut = 0
  for (const loss of losses) {
    clipped += loss.clipped
    crushed += loss.crushed
    outOfGamut += loss.outOfGamut
  }
  return { clipped, crushed, outOfGamut }
}

/**
 * One byte per pixel of the frame's rows `from` up to `to`: not zero where the station lost it for good. By direct
 * evaluation of every pixel.
 */
export function lostPixels(chain: Chain, frame: Frame, station: StationId, from: number, to: number): Uint8Array {
  const count = (to - from) * frame.width
  const pixels = new Float64Array(count * 3)
  const scale = (frame.high - frame.low) / 65535
  for (let i = 0, at = from * frame.width * 3; i < pixels.length; i++, at++)
    pixels[i] = chain.decode(frame.low + frame.data[at] * scale)
  const places = positionsIn(chain, frame, 1, from * frame.width, count, true)
  const ledger = openLedger(chain, count)
  eachColumn(chain, (link, column, _last, asks, at) => {
    applyPlaced(link, pixels, places, chain, at)
    if (asks) ledger.after(link, column, pixels)
  })
  return ledger.lostBy(station)
}

/**
 * Every link with its column in the Meridian, whether it is the column's last, and whether the ledger is to be asked
 * after it. Steps on the display side stand in Finish.
 */
export function eachColumn(
  chain: Chain,
  act: (link: Link, column: StationId, last: boolean, asks: boolean, at: number) => void,
): void {
  const shown = shownAt(chain)
  chain.links.forEach((link, i) => {
    const last = chain.links[i + 1]?.station !== link.station || i === shown
    act(link, i > shown ? 'finish' : link.station, last, last || i > shown, i)
  })
}
