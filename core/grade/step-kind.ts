// What a step kind declares. The interface, the validator and the compiler all read the declaration.
import type { Gamut } from '../colour'
import type { Lut } from '../luts'
import type { CurvePoint, ParameterValue, Side, StepParameters } from './document'
import type { Curve, Light, Operation } from './operation'
import type { StationId } from './stations'

export interface NumberParameter {
  readonly type: 'number'
  readonly label: string
  readonly tip: string
  /** Shown after the number: "stops", "mired", "%", "°" or nothing. */
  readonly unit: string
  readonly min: number
  readonly max: number
  /** The part of the range that a scale shows; typing reaches the rest. */
  readonly scale?: readonly [number, number]
  readonly default: number
  /** One press of an arrow key. */
  readonly step: number
  readonly decimals: number
  /** Factor from the stored value to the shown one (100 for shares shown in %). */
  readonly shownFactor?: number
  /** A plus sign before positive values. */
  readonly signed?: boolean
}
export interface CurveAxis {
  readonly min: number
  readonly max: number
  readonly unit: 'log' | '°' | '×' | 'stops' | 'purity'
}
export interface CurveParameter {
  readonly type: 'curve'
  readonly label: string
  readonly tip: string
  readonly default: readonly CurvePoint[]
  readonly x: CurveAxis
  readonly y: CurveAxis
  /** The y that changes nothing; without one the straight line y = x changes nothing. */
  readonly neutral?: number
  /** The end of x meets its beginning. */
  readonly periodic?: true
  readonly maxPoints: number
}
export interface LutParameter {
  readonly type: 'lut'
  readonly label: string
  readonly tip: string
  readonly default: null
}
export interface ChoiceParameter {
  readonly type: 'choice'
  readonly label: string
  readonly tip: string
  readonly default: string
  readonly options: readonly { readonly id: string; readonly name: string }[]
}
export type Parameter = NumberParameter | CurveParameter | LutParameter | ChoiceParameter

/** What a step is told about the side of the Passage it stands on. */
export interface StepSurroundings {
  /** The gamut of the linear light here: AP1 on the scene side, the display's on the display side. */
  readonly gamut: Gamut
  /** Middle grey in the encoded domain of this side. */
  readonly greyEncoded: number
  /** One stop around grey in the encoded domain of this side. */
  readonly stopEncoded: number
  /** Linear light here → the encoded domain of this side, and back. */
  readonly encode: Curve
  readonly decode: Curve
  /** The LUT of that content hash, or undefined while it is not at hand. */
  readonly lut: (hash: string) => Lut | undefined
}

export interface StepKind<P extends StepParameters = StepParameters> {
  readonly id: string
  readonly name: string
  readonly tip: string
  readonly station: StationId
  /**
   * 'linear': scene-linear AP1, or display-linear light after Show.
   * 'encoded': working log, or the display signal after Show.
   */
  readonly domain: 'linear' | 'encoded'
  /**
   * Each output pixel depends on its input pixel alone, so that the step can be fused with others; else it looks at
   * neighbours.
   */
  readonly pixelByPixel: boolean
  /** Kinds of a station act, and stand, from the smallest to the largest; leave room between. */
  readonly order: number
  /** The page of its station that its controls stand on; see stations.ts. */
  readonly page: string
  /** The side it stands on at first; "working" is the side that the grade works on. */
  readonly firstSide: Side | 'working'
  /**
   * In the whole picture: every grade has one from the start, or it is added. A kind that always stands is put,
   * neutral, into every stored grade that lacks it. `many`: more than one may stand.
   */
  readonly stands: 'always' | 'added'
  readonly many: boolean
  /** In regions: every region has one from the start, one may be added, or none may be carried. */
  readonly inRegions: 'always' | 'added' | 'never'
  readonly parameters: { readonly [K in keyof P & string]: Parameter }
  /** True when the step would change nothing. */
  readonly isNeutral: (params: P) => boolean
  /**
   * A curve or a matrix where the step is one, as these stay exact when compiled; else what it is in the light it will
   * stand in.
   */
  readonly prepare: (
    params: P,
    surroundings: StepSurroundings,
  ) => Operation | ((at: Light) => Operation | readonly Operation[])
}

/** Gives a declaration its parameter types; the registry holds kinds by their general type. */
export function defineStepKind<P extends StepParameters>(kind: StepKind<P>): StepKind {
  return kind as unknown as StepKind
}

export function defaultParameters(kind: StepKind): StepParameters {
  return Object.fromEntries(Object.entries(kind.parameters).map(([key, p]) => [key, p.default]))
}

/** True when the curve changes nothing. */
export function isNeutralCurve({ neutral }: CurveParameter, points: readonly CurvePoint[]): boolean {
  return points.every(({ x, y }) => y === (neutral ?? x))
}

const isPoint = (p: unknown): p is CurvePoint =>
  typeof p === 'object' && p !== null && Number.isFinite((p as CurvePoint).x) && Number.isFinite((p as CurvePoint).y)

/** A sentence about what is wrong with a value for a parameter, or null when it may be used. */
export function parameterFault(parameter: Parameter, value: ParameterValue | undefined): string | null {
  switch (parameter.type) {
    case 'number':
      return typeof value === 'number' && value >= parameter.min && value <= parameter.max
        ? null
        : `${parameter.label} must be a number from ${parameter.min} to ${parameter.max}.`
    case 'choice':
      return parameter.options.some((o) => o.id === value)
        ? null
        : `${parameter.label} must be one of ${parameter.options.map((o) => o.id).join(', ')}.`
    case 'lut':
      return value === null || (typeof value === 'string' && /^[0-9a-f]{64}$/.test(value))
        ? null
        : `${parameter.label} must be empty or the SHA-256 of a LUT.`
    case 'curve':
      return curveFault(parameter, value)
  }
}

function curveFault(parameter: CurveParameter, value: ParameterValue | undefined): string | null {
  if (!Array.isArray(value) || !value.every(isPoint))
    return `${parameter.label} must be a list of points with finite x and y.`
  const points = value as readonly CurvePoint[]
  if (points.length < 2 || points.length > parameter.maxPoints)
    return `${parameter.label} takes 2 to ${parameter.maxPoints} points.`
  const { x: across, y: up } = parameter
  const within = points.every(({ x, y }) => x >= across.min && x <= across.max && y >= up.min && y <= up.max)
  if (!within)
    return (
      `${parameter.label} takes points from ${across.min} to ${across.max} across and from ${up.min} to ` +
      `${up.max} upward.`
    )
  const rising = points.every((p, i) => i === 0 || p.x - points[i - 1].x >= 1e-4)
  if (!rising) return `${parameter.label} needs points whose x rises by at least 0.0001.`
  const [first] = points
  const last = points.at(-1)
  return parameter.periodic && first && last && last.x - first.x > across.max - across.min - 1e-4
    ? `${parameter.label} goes round: its last point must lie before the first comes again.`
    : null
}
