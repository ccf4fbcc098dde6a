// Finding where one shot ends and the next begins: hard cuts by a jump of histogram and structure between neighbours,
// dissolves by frames that are a straight blend of two unlike pictures (after Zhang, Kankanhalli and Smoliar 1993, and
// Lienhart 1999).
import { sketchSize, type Sketch } from './sketch'

export interface Cut {
  /** First frame of the later shot; of a dissolve, the middle frame. */
  readonly frame: number
  readonly kind: 'cut' | 'dissolve'
  /** Frames over which one picture turns into the other; 1 for a cut. */
  readonly length: number
  /** How clear it is, 0..1. */
  readonly certainty: number
}

const mean = (values: readonly number[]): number => values.reduce((a, b) => a + b, 0) / Math.max(1, values.length)

function colourDistance(a: Uint8Array, b: Uint8Array): number {
  let sum = 0
  for (let i = 0; i < sketchSize; i++) sum += Math.abs(a[i] - b[i])
  return sum / sketchSize / 255
}

function histogramDistance(a: Float32Array, b: Float32Array): number {
  let sum = 0
  for (let i = 0; i < a.length; i++) sum += Math.abs(a[i] - b[i])
  // Three histograms, each of total difference at most 2.
  return sum / 6
}

/** Neighbours looked at on each side to know what is usual. */
const reach = 6
/** Jumps smaller than this are never a cut. */
const least = 0.055
/** A cut's jump over what is usual around it. */
const times = 3.2

/**
 * Cuts and dissolves of a whole clip, in order. Flashes (one frame or two, then the same picture again) are no cuts.
 */
export function findCuts(sketches: readonly Sketch[]): readonly Cut[] {
  const jumps = sketches.map((s, i) => {
    const before = sketches[i - 1]
    return before ? histogramDistance(before.histogram, s.histogram) + colourDistance(before.colours, s.colours) : 0
  })
  const cuts = hardCuts(sketches, jumps)
  const soft = dissolves(sketches).filter((d) => !cuts.some((c) => Math.abs(c.frame - d.frame) <= d.length))
  return [...cuts, ...soft].sort((a, b) => a.frame - b.frame)
}

function hardCuts(sketches: readonly Sketch[], jumps: readonly number[]): Cut[] {
  const cuts: Cut[] = []
  for (let i = 1; i < jumps.length; i++) {
    const jump = jumps[i]
    if (jump < least) continue
    const around = [...jumps.slice(Math.max(1, i - reach), i), ...jumps.slice(i + 1, i + 1 + reach)]
    // The largest neighbour may be another cut; it does not count as usual.
    const usual = mean(around.toSorted((a, b) => a - b).slice(0, Math.max(1, around.length - 1)))
    if (jump < usual * times + least / 2 || isFlash(sketches, i, jump)) continue
    cuts.push({ frame: i, kind: 'cut', length: 1, certainty: Math.min(1, (jump - usual) / (4 * least)) })
  }
  return cuts
}

function isFlash(sketches: readonly Sketch[], i: number, jump: number): boolean {
  const before = sketches[i - 1]
  for (const after of [i + 1, i + 2]) {
    const later = sketches[after]
    if (
      later &&
      histogramDistance(before.histogram, later.histogram) + colourDistance(before.colours, later.colours) < jump * 0.3
    )
      return true
  }
  // The way back from a flash.
  for (const earlier of [i - 2, i - 3]) {
    const old = sketches[earlier]
    if (
      old &&
      histogramDistance(old.histogram, sketches[i].histogram) + colourDistance(old.colours, sketches[i].colours) <
        jump * 0.3
    )
      return true
  }
  return false
}

const dissolveLengths = [6, 8, 12, 16, 24, 36, 48, 72] as const
/** How unlike the two pictures must be. */
const unlike = 0.05
/** How straight the blend must be, as a share of how unlike its ends are. */
const straight = 0.22

/**
 * How much the pictures before and after may still move, as a share of how unlike they are: a slow roll of exposure
 * goes on at a quarter.
 */
const still = 0.16

function dissolves(sketches: readonly Sketch[]): Cut[] {
  const found: (Cut & { readonly fault: number })[] = []
  for (const length of dissolveLengths)
    for (let from = 0; from + length < sketches.length; from++) {
      const a = sketches[from].colours
      const b = sketches[from + length].colours
      const apart = colourDistance(a, b)
      if (apart < unlike || correlation(a, b) > 0.85) continue
      const fault =
        Math.max(
          ...[0.25, 0.5, 0.75].map((t) =>
            blendFault(a, b, sketches[Math.round(from + length * t)].colours, Math.round(length * t) / length),
          ),
        ) / apart
      if (fault > straight) continue
      // Before and after it the picture stays what it was.
      const rest = Math.max(2, Math.floor(length / 4))
      const earlier = sketches[from - rest]
      const later = sketches[from + length + rest]
      if (!earlier || !later) continue
      const before = colourDistance(earlier.colours, a)
      const after = colourDistance(b, later.colours)
      if (before > apart * still || after > apart * still) continue
      found.push({
        frame: from + Math.round(length / 2),
        kind: 'dissolve',
        length,
        certainty: Math.min(1, 1 - fault),
        fault: fault + (before + after) / apart,
      })
    }
  // Of overlapping finds the straightest with the stillest surroundings stays.
  const kept: (typeof found)[number][] = []
  for (const cut of found.toSorted((x, y) => x.fault - y.fault))
    if (!kept.some((k) => Math.abs(k.frame - cut.frame) < (k.length + cut.length) / 2)) kept.push(cut)
  return kept.map(({ fault: _, ...cut }) => cut)
}

function blendFault(a: Uint8Array, b: Uint8Array, middle: Uint8Array, t: number): number {
  let sum = 0
  for (let i = 0; i < sketchSize; i++) sum += Math.abs(middle[i] - (a[i] * (1 - t) + b[i] * t))
  return sum / sketchSize / 255
}

/** Likeness of two pictures that an even change of exposure leaves at 1. */
function correlation(a: Uint8Array, b: Uint8Array): number {
  const n = sketchSize / 3
  let ma = 0
  let mb = 0
  for (let i = 0; i < n; i++) {
    ma += a[i] / n
    mb += b[i] / n
  }
  let ab = 0
  let aa = 0
  let bb = 0
  for (let i = 0; i < n; i++) {
    ab += (a[i] - ma) * (b[i] - mb)
    aa += (a[i] - ma) ** 2
    bb += (b[i] - mb) ** 2
  }
  if (aa === 0 || bb === 0) return aa === bb ? 1 : 0
  return ab / Math.sqrt(aa * bb)
}
