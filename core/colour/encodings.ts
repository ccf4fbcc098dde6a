// Camera encodings as declarations: a curve, the gamuts it is used with, and where its numbers come from.
import cameraLogs from './camera-logs.json'
import { acesCc, acesCct, bt709Camera, filmDensity, hlg, linear, pq, srgb } from './standard-curves'
import {
  cubeRootLog,
  gamma,
  lifted,
  linLog,
  tableCurve,
  tangentToe,
  type LinLogParameters,
  type TableEntry,
  type TransferCurve,
} from './transfer'

/**
 * log: camera and working logs; display: made for a display as it is; flat: display-like with little contrast; hdr: HLG
 * and PQ.
 */
export type EncodingGroup = 'log' | 'display' | 'flat' | 'hdr' | 'linear'

export interface Encoding {
  readonly id: string
  /** Camera logs are named by their 10-bit codes of grey and black. */
  readonly name: string
  readonly tip: string
  readonly group: EncodingGroup
  readonly source: string
  readonly curve: TransferCurve
  /** The gamuts this encoding is used with; the first is the usual one. */
  readonly gamutIds: readonly [string, ...string[]]
}

type CameraLog = (typeof cameraLogs.curves)[keyof typeof cameraLogs.curves]

function logName(id: string): string {
  const [, grey, black, variant] = id.split('-')
  return `Log ${grey}/${black}${variant ? ` ${variant.toUpperCase()}` : ''}`
}

function cameraLogEncoding(id: string, declared: CameraLog): Encoding {
  const curve = declared.family === 'cube-root-log' ? cubeRootLog() : linLog(declared as LinLogParameters)
  const grey = Math.round(curve.encode(0.18) * 1023)
  const black = Math.round(curve.encode(0) * 1023)
  return {
    id,
    name: logName(id),
    tip: `A camera log that puts 18 % grey at code ${grey} and black at code ${black} of 1023.`,
    group: 'log',
    source: 'published numbers, camera-logs.json',
    curve,
    gamutIds: declared.gamuts as [string, ...string[]],
  }
}

export const encodings: readonly Encoding[] = [
  ...Object.entries(cameraLogs.curves).map(([id, declared]) => cameraLogEncoding(id, declared)),
  {
    id: 'bt709-camera',
    name: 'BT.709 camera curve',
    tip: 'Standard video straight from a camera, without a log.',
    group: 'display',
    source: 'ITU-R BT.709-6, item 1.2',
    curve: bt709Camera,
    gamutIds: ['bt709', 'bt2020'],
  },
  {
    id: 'gamma-2.2',
    name: 'Gamma 2.2',
    tip: 'A picture made for a display of gamma 2.2.',
    group: 'display',
    source: 'a pure power',
    curve: gamma(2.2),
    gamutIds: ['bt709', 'p3-d65', 'bt2020'],
  },
  {
    id: 'gamma-2.4',
    name: 'Gamma 2.4',
    tip: 'A picture made for a studio display in a dim room (BT.1886 with zero black).',
    group: 'display',
    source: 'ITU-R BT.1886, annex 1',
    curve: gamma(2.4),
    gamutIds: ['bt709', 'p3-d65', 'bt2020'],
  },
  {
    id: 'gamma-2.6',
    name: 'Gamma 2.6',
    tip: 'A picture made for a cinema projector.',
    group: 'display',
    source: 'SMPTE RP 431-2',
    curve: gamma(2.6),
    gamutIds: ['p3-d65', 'bt709'],
  },
  {
    id: 'srgb',
    name: 'sRGB',
    tip: 'A picture made for a computer display.',
    group: 'display',
    source: 'IEC 61966-2-1',
    curve: srgb,
    gamutIds: ['bt709', 'p3-d65'],
  },
  {
    id: 'hlg',
    name: 'HLG',
    tip: 'Hybrid log-gamma, as phones and broadcast cameras record high range.',
    group: 'hdr',
    source: 'ITU-R BT.2100-2, table 5',
    curve: hlg,
    gamutIds: ['bt2020', 'p3-d65'],
  },
  {
    id: 'pq',
    name: 'PQ',
    tip: 'A finished picture of high range in absolute light; diffuse white is 203 cd/m².',
    group: 'hdr',
    source: 'ITU-R BT.2100-2, table 4',
    curve: pq,
    gamutIds: ['bt2020', 'p3-d65'],
  },
  {
    id: 'flat-gamma',
    name: 'Flat gamma',
    tip: 'A low-contrast profile of our own definition: black at 8 %, grey near 40 %, 1.5 stops over white.',
    group: 'flat',
    source: 'this program: 0.08 + 0.62 · a power of 1/2.6 with a straight toe',
    curve: lifted(tangentToe(2.6, 0.099), 0.08, 0.62),
    gamutIds: ['bt709', 'bt2020'],
  },
  {
    id: 'film-density',
    name: 'Film density 685/95',
    tip: 'Scanned negative: black at code 95, white at 685, 0.002 density a code.',
    group: 'log',
    source: 'SMPTE ST 268, printing density',
    curve: filmDensity,
    gamutIds: ['bt709', 'ap1'],
  },
  {
    id: 'acescc',
    name: 'ACEScc',
    tip: 'Pure log of the ACES family, without a toe.',
    group: 'log',
    source: 'AMPAS S-2014-003',
    curve: acesCc,
    gamutIds: ['ap1'],
  },
  {
    id: 'acescct',
    name: 'ACEScct',
    tip: 'The working log of this program, as a file encoding.',
    group: 'log',
    source: 'AMPAS S-2016-001',
    curve: acesCct,
    gamutIds: ['ap1'],
  },
  {
    id: 'linear',
    name: 'Linear',
    tip: 'Scene light as it is, without a curve: ACEScg with AP1, ACES2065-1 with AP0.',
    group: 'linear',
    source: 'AMPAS S-2014-004; SMPTE ST 2065-1',
    curve: linear,
    gamutIds: ['ap1', 'ap0', 'bt709', 'bt2020'],
  },
]

const byId = new Map(encodings.map((e) => [e.id, e]))

export function isEncodingId(id: unknown): id is string {
  return typeof id === 'string' && byId.has(id)
}

/** Throws RangeError for an unknown id. */
export function encodingById(id: string): Encoding {
  const found = byId.get(id)
  if (!found) throw new RangeError(`There is no encoding "${id}".`)
  return found
}

/** A curve that a person measured or typed: the seven numbers, or pairs of code and light. */
export type CurveDefinition =
  | ({ readonly family: 'lin-log' } & Omit<LinLogParameters, 'negative'>)
  | { readonly family: 'table'; readonly entries: readonly TableEntry[] }

/**
 * An encoding of the user's own. It travels inside the grade that reads by it, so that no grade ever lacks its
 * encoding.
 */
export interface EncodingDefinition {
  readonly id: string
  readonly name: string
  readonly gamutId: string
  /** How it came about: measured from what, looked up where. */
  readonly source: string
  readonly curve: CurveDefinition
}

/** The seven numbers' bounds, wide of any camera. */
export const curveBounds = { a: 10, b: 1e5, c: 1e5, d: 10, e: 1e4, f: 10, cut: 1e3 } as const

/** Ids of user encodings cannot meet those that ship. */
export const ownEncodingId = /^own-[A-Za-z0-9-]{1,40}$/

/** Throws RangeError with a sentence when the numbers do not make a rising curve. */
export function curveOf(definition: CurveDefinition): TransferCurve {
  if (definition.family === 'table') return tableCurve(definition.entries)
  const { a, b, c, d, e, f, cut } = definition
  const given = { a, b, c, d, cut, ...(e === null ? {} : { e }), ...(f === null ? {} : { f }) }
  for (const [name, value] of Object.entries(given))
    if (!Number.isFinite(value) || Math.abs(value) > curveBounds[name as keyof typeof curveBounds])
      throw new RangeError(`${name} must be a number within ±${curveBounds[name as keyof typeof curveBounds]}.`)
  if (a * b <= 0) throw new RangeError('a and b must have the same sign, or the curve falls.')
  if (b * cut + c <= 0) throw new RangeError('b·cut + c must lie above zero, or there is no logarithm to take.')
  if ((e === null) !== (f === null)) throw new RangeError('e and f belong together: give both or neither.')
  if (e !== null && e <= 0) throw new RangeError('e must be positive, or the straight part falls.')
  const curve = linLog(definition)
  if (e !== null && f !== null && Math.abs(e * cut + f - curve.encode(cut)) > 0.005)
    throw new RangeError('The two parts do not meet at the cut.')
  return curve
}

/** A definition as an encoding. Throws RangeError when its curve is impossible. */
export function encodingFromDefinition({ id, name, gamutId, source, curve }: EncodingDefinition): Encoding {
  return { id, name, tip: `Your own: ${source}`, group: 'log', source, curve: curveOf(curve), gamutIds: [gamutId] }
}
