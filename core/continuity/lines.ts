// The course of a scene: what each of its shots measures, one line per measure, in the order of the reel.
import { readingKind, unitForm, type Finding, type ReadingId } from '../readings'

export type LineId = 'exposure' | 'white' | 'black' | 'contrast' | 'saturation' | 'warmth' | 'skinLuma' | 'skinHue'

export interface SceneLine {
  readonly id: LineId
  readonly name: string
  /** Whose skin it is. */
  readonly of?: string
  /** Printed behind a number. */
  readonly unit: string
  readonly decimals: number
  /** A difference that is seen at a cut, in the carried unit. */
  readonly step: number
  /** From the carried number to the printed one. */
  readonly scale: number
  /** By shot; null where it was not measured, or says too little. */
  readonly values: readonly (number | null)[]
}

interface LineKind {
  readonly id: LineId
  readonly name: string
  readonly reading: ReadingId
  readonly step: number
  /** Read from the finding where it is not its value. */
  readonly read?: (finding: Finding) => number | undefined
  readonly unit?: string
  readonly decimals?: number
  readonly scale?: number
}

/** A white balance step of so many mired is seen at a cut. */
const seenMired = 12
const leastConfidence = 1 / 3

const kinds: readonly LineKind[] = [
  { id: 'exposure', name: 'Exposure', reading: 'middle', step: 0.05 },
  { id: 'white', name: 'White', reading: 'white', step: 0.05 },
  { id: 'black', name: 'Black', reading: 'black', step: 0.02 },
  { id: 'contrast', name: 'Contrast', reading: 'contrastRange', step: 1 },
  { id: 'saturation', name: 'Saturation', reading: 'saturation', step: 0.04 },
  {
    id: 'warmth',
    name: 'Warmth',
    reading: 'neutrals',
    step: seenMired,
    read: ({ cast }) => cast?.mired,
    unit: 'mired',
    decimals: 0,
    scale: 1,
  },
]
const skinKinds: readonly LineKind[] = [
  { id: 'skinLuma', name: 'Skin luma', reading: 'skinLuma', step: 0.04 },
  { id: 'skinHue', name: 'Skin hue', reading: 'skinHue', step: 4 },
]

function lineOf(kind: LineKind, shots: readonly (readonly Finding[] | null)[], of?: string): SceneLine {
  const { unit } = readingKind(kind.reading)
  const form = unitForm(unit)
  const values = shots.map((findings) => {
    const found = findings?.find((f) => f.id === kind.reading && f.of === of && f.confidence >= leastConfidence)
    return found ? ((kind.read ? kind.read(found) : found.value) ?? null) : null
  })
  return {
    id: kind.id,
    name: kind.name,
    ...(of === undefined ? {} : { of }),
    unit: kind.unit ?? form.after,
    decimals: kind.decimals ?? form.decimals,
    scale: kind.scale ?? form.scale,
    step: kind.step,
    values,
  }
}

/** The lines of a scene; those of skins, one pair for each subject that was pointed out in any of the shots. */
export function sceneLines(shots: readonly (readonly Finding[] | null)[]): readonly SceneLine[] {
  const subjects = [
    ...new Set(shots.flatMap((f) => f?.flatMap(({ id, of }) => (id === 'skinLuma' && of ? [of] : [])) ?? [])),
  ]
  return [
    ...kinds.map((kind) => lineOf(kind, shots)),
    ...subjects.flatMap((of) => skinKinds.map((kind) => lineOf(kind, shots, of))),
  ]
}

/** A value of a line as it is printed, with its unit. */
export function printLine({ scale, decimals, unit }: SceneLine, value: number, signed = false): string {
  const shown = (value * scale).toFixed(decimals).replace(/^-(?=0(?:\.0*)?$)/, '')
  return `${signed && !shown.startsWith('-') ? '+' : ''}${shown.replace('-', '−')}${unit === '°' ? '' : ' '}${unit}`
}
