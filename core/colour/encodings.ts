// Camera encodings as declarations: a curve, the gamuts it is used with, and where its numbers come from.
import cameraLogs from './camera-logs.json'
import { acesCct, bt709Camera, cubeRootLog, gamma, hlg, linear, linLog, srgb, type LinLogParameters, type TransferCurve } from './transfer'

export interface Encoding {
  readonly id: string
  /** Camera logs are named by their 10-bit codes of grey and black. */
  readonly name: string
  readonly tip: string
  readonly group: 'log' | 'display' | 'hdr' | 'linear'
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
  const grey = Math.round(curve.encode(0.18) * 1023), black = Math.round(curve.encode(0) * 1023)
  return {
    id,
    name: logName(id),
    tip: `A camera log that puts 18 % grey at code ${grey} and black at code ${black} of 1023.`,
    group: 'log',
    source: 'camera-logs.json',
    curve,
    gamutIds: declared.gamuts as [string, ...string[]],
  }
}

export const encodings: readonly Encoding[] = [
  ...Object.entries(cameraLogs.curves).map(([id, declared]) => cameraLogEncoding(id, declared)),
  { id: 'bt709-camera', name: 'BT.709 camera curve', tip: 'Standard video straight from a camera, without a log.', group: 'display', source: 'ITU-R BT.709-6, item 1.2', curve: bt709Camera, gamutIds: ['bt709', 'bt2020'] },
  { id: 'gamma-2.2', name: 'Gamma 2.2', tip: 'A picture made for a display of gamma 2.2.', group: 'display', source: 'a pure power', curve: gamma(2.2), gamutIds: ['bt709', 'p3-d65', 'bt2020'] },
  { id: 'gamma-2.4', name: 'Gamma 2.4', tip: 'A picture made for a studio display in a dim room (BT.1886 with zero black).', group: 'display', source: 'ITU-R BT.1886, annex 1', curve: gamma(2.4), gamutIds: ['bt709', 'p3-d65', 'bt2020'] },
  { id: 'gamma-2.6', name: 'Gamma 2.6', tip: 'A picture made for a cinema projector.', group: 'display', source: 'SMPTE RP 431-2', curve: gamma(2.6), gamutIds: ['p3-d65', 'bt709'] },
  { id: 'srgb', name: 'sRGB', tip: 'A picture made for a computer display.', group: 'display', source: 'IEC 61966-2-1', curve: srgb, gamutIds: ['bt709', 'p3-d65'] },
  { id: 'hlg', name: 'HLG', tip: 'Hybrid log-gamma, as phones and broadcast cameras record high range.', group: 'hdr', source: 'ITU-R BT.2100-2, table 5', curve: hlg, gamutIds: ['bt2020', 'p3-d65'] },
  { id: 'acescct', name: 'ACEScct', tip: 'The working log of this program, as a file encoding.', group: 'log', source: 'AMPAS S-2016-001', curve: acesCct, gamutIds: ['ap1'] },
  { id: 'linear', name: 'Linear', tip: 'Scene light as it is, without a curve.', group: 'linear', source: 'the identity', curve: linear, gamutIds: ['ap1', 'ap0', 'bt709', 'bt2020'] },
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
