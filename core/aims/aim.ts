// Aims: what the picture should measure. Aims of a shot are solved together.
import { printNumber } from '../numbers'
import type { Area } from '../readings'

/** At most the value, or at least it. */
export type Bound = 'most' | 'least'

/** What is wanted. Levels, lumas and chromas are shares (0..1) of the display signal, as the readings give them. */
export type Want =
  /** The level that a share of the picture lies below: of luma, or of one channel (0 red, 1 green, 2 blue). */
  | {
      readonly kind: 'level'
      readonly share: number
      readonly value: number
      readonly channel?: 0 | 1 | 2
      /** Not to be passed, rather than to be met. */ readonly bound?: Bound
    }
  /** Scene light of a place after Level, in stops from middle grey. */
  | { readonly kind: 'light'; readonly areas: readonly Area[]; readonly stops: number }
  /** Scene light of places after Level, averaged as light, without colour. */
  | { readonly kind: 'neutral'; readonly areas: readonly Area[] }
  /** Mean luma of a place. */
  | { readonly kind: 'luma'; readonly areas: readonly Area[]; readonly value: number }
  /** Mean colour of a place: luma, Cb, Cr. */
  | {
      readonly kind: 'colour'
      readonly areas: readonly Area[]
      readonly luma: number
      readonly cb: number
      readonly cr: number
    }
  /**
   * The skin in an area; what is left out is not asked for. Hue in degrees as on the vectorscope, chroma 1 being the
   * largest possible.
   */
  | {
      readonly kind: 'skin'
      readonly area: Area
      readonly hueDegrees?: number
      readonly luma?: number
      readonly chroma?: number
    }
  /** Mean chroma of the picture. */
  | { readonly kind: 'chroma'; readonly value: number }

export interface Aim {
  readonly id: string
  /** In a person's words: "Black", "Card, white", "Skin, Ember". */
  readonly name: string
  readonly want: Want
  /** Another frame of the clip than the one that is looked at. */
  readonly frame?: number
  /** Of aims that cannot all be met, those of higher rank (1 is highest) give way last. */
  readonly rank: 1 | 2 | 3
}

/** One number that an aim asks for. */
export interface Goal {
  readonly quantity: Quantity
  readonly value: number
  readonly bound?: Bound
}
export type Quantity = 'level' | 'stops' | 'mired' | 'duv' | 'luma' | 'cb' | 'cr' | 'hue' | 'chroma'

/** How near is met: 0.3 % of level, half a degree, and alike for the others. */
export const tolerances: Readonly<Record<Quantity, number>> = {
  level: 0.003,
  stops: 0.02,
  mired: 1,
  duv: 0.0005,
  luma: 0.003,
  cb: 0.002,
  cr: 0.002,
  hue: 0.5,
  chroma: 0.003,
}

export function goalsOf(want: Want): readonly Goal[] {
  switch (want.kind) {
    case 'level':
      return [{ quantity: 'level', value: want.value, ...(want.bound ? { bound: want.bound } : {}) }]
    case 'light':
      return [{ quantity: 'stops', value: want.stops }]
    case 'neutral':
      return [
        { quantity: 'mired', value: 0 },
        { quantity: 'duv', value: 0 },
      ]
    case 'luma':
      return [{ quantity: 'luma', value: want.value }]
    case 'colour':
      return [
        { quantity: 'luma', value: want.luma },
        { quantity: 'cb', value: want.cb },
        { quantity: 'cr', value: want.cr },
      ]
    case 'skin':
      return [
        ...(want.hueDegrees === undefined ? [] : [{ quantity: 'hue' as const, value: want.hueDegrees }]),
        ...(want.luma === undefined ? [] : [{ quantity: 'luma' as const, value: want.luma }]),
        ...(want.chroma === undefined ? [] : [{ quantity: 'chroma' as const, value: want.chroma }]),
      ]
    case 'chroma':
      return [{ quantity: 'chroma', value: want.value }]
  }
}

const decimals: Readonly<Record<Quantity, number>> = {
  level: 1,
  luma: 1,
  chroma: 1,
  cb: 1,
  cr: 1,
  stops: 2,
  mired: 0,
  duv: 1,
  hue: 1,
}
const share = { scale: 100, unit: ' %' }
const printed: Readonly<Record<Quantity, { readonly scale: number; readonly unit: string }>> = {
  level: share,
  luma: share,
  chroma: share,
  cb: share,
  cr: share,
  stops: { scale: 1, unit: ' stops' },
  mired: { scale: 1, unit: ' mired' },
  duv: { scale: 1000, unit: ' Duv ×10³' },
  hue: { scale: 1, unit: '°' },
}
/** A quantity as it is shown, with its unit. */
export function printQuantity(quantity: Quantity, value: number): string {
  const { scale, unit } = printed[quantity]
  return `${printNumber(value * scale, decimals[quantity])}${unit}`
}

/** "Black at 4.0 %", "Card, white neutral". */
export function aimWords({ name, want }: Aim): string {
  if (want.kind === 'neutral') return `${name} neutral`
  return `${name} at ${goalsOf(want)
    .map((g) => `${g.bound ? `${g.bound} ` : ''}${printQuantity(g.quantity, g.value)}`)
    .join(', ')}`
}
