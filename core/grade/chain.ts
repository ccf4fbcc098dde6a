// The chain: a grade document as an ordered list of operations on linear and encoded light, the reference for all else.
import {
  displayById,
  encodingById,
  encodingFromDefinition,
  fromWorkingLog,
  gamutById,
  gamutToGamut,
  logPerStop,
  middleGreyLog,
  toWorkingLog,
  workingGamut,
  type Display,
  type Encoding,
} from '../colour'
import type { Lut } from '../luts'
import type { Region } from '../regions'
import { lutTakesSide, type GradeDocument, type ReadSettings, type ShowSettings, type Step } from './document'
import { prepareShow } from './show'
import { stations, type StationId } from './stations'
import { intoDomain, lutOperations } from './lut-operation'
import {
  curveOperation,
  matrixOperation,
  mixedRun,
  operate,
  pixelsOperation,
  type Light,
  type Operation,
} from './operation'
import { stepKindById } from './steps'
import { type Domain, carriedBy, displaySide, type SideContext, lightOf, conversion } from './side-context'

/** Finds a LUT by its content hash among those at hand. */
export type LutFinder = (hash: string) => Lut | undefined

export interface Link {
  readonly station: StationId
  readonly operations: readonly Operation[]
  readonly leaves: Light
  /** Says all that the operations depend on, so that equal signatures mean equal effects. */
  readonly signature: string
  /** The link's result is mixed over its input by this region's matte; input and output are encoded. */
  readonly region?: Region
}

export interface Chain {
  /** Per channel: code value → what the first link takes. */
  readonly decode: (code: number) => number
  readonly decodeSignature: string
  readonly links: readonly Link[]
  /**
   * What the last link leaves: light as the display's signal carries it, still to be held and encoded, or the signal
   * itself.
   */
  readonly leaves: 'displayLinear' | 'displaySignal'
  readonly displayId: string
  readonly regions: readonly Region[]
  /** Scene-linear → display-linear before anything is held to the display's ends; absent where a LUT shows. */
  readonly showLight?: readonly Operation[]
}

/** The station a step acts in. */
export function stationOf(step: Step): StationId {
  if (step.regionId !== undefined) return 'regions'
  return step.lookId === undefined ? stepKindById(step.kind).station : 'look'
}

/** True when the step would change nothing, whatever it stands in. */
export const isNeutralStep = ({ kind, params }: Step): boolean => stepKindById(kind).isNeutral(params)

/** True when the step does something to the picture. */
export function isActive(step: Step, document: GradeDocument, lut: LutFinder): boolean {
  if (!step.enabled || step.strength === 0) return false
  const kind = stepKindById(step.kind)
  if (kind.isNeutral(step.params)) return false
  if (step.kind === 'lut' && !lut(String(step.params['lutHash']))) return false
  return (
    step.regionId === undefined || document.regions.some((r) => r.id === step.regionId && r.enabled && r.strength > 0)
  )
}

/**
 * Builds the chain of a document. LUTs that are not at hand are left out (see missingLuts). Throws RangeError for
 * unknown ids.
 */
export function buildChain(document: GradeDocument, lut: LutFinder): Chain {
  const display = displayById(document.show.displayId)
  const active = document.steps.filter((s) => isActive(s, document, lut))
  const { links, ...input } = readLinks(document.read, lut)
  const scene: SideContext = {
    id: 'scene',
    side: 'scene',
    surroundings: {
      gamut: workingGamut,
      greyEncoded: middleGreyLog,
      stopEncoded: logPerStop,
      encode: toWorkingLog,
      decode: fromWorkingLog,
      lut,
    },
    encode: toWorkingLog,
    decode: fromWorkingLog,
    regions: document.regions,
  }
  const showLut =
    document.show.method === 'lut' && document.show.lutHash !== null && document.show.lutStrength > 0
      ? lut(document.show.lutHash)
      : undefined
  const wanted = showLut ? 'encoded' : 'linear'
  const afterScene = appendSide(
    links,
    scene,
    active.filter((s) => s.side === 'scene'),
    'linear',
  )
  if (afterScene !== wanted) links.push(conversion('show', scene, wanted))
  if (showLut) links.push(showLutLink(document.show, showLut, display, scene))
  else links.push(showLink(document.show, display))
  const shown = {
    ...input,
    links,
    displayId: display.id,
    regions: document.regions,
    ...(showLut ? {} : { showLight: prepareShow(document.show, display) }),
  }

  const steps = active.filter((s) => s.side === 'display')
  if (steps.length === 0) return { ...shown, leaves: showLut ? 'displaySignal' : 'displayLinear' }
  const context = displaySide(display, document.regions, lut)
  if (!showLut) links.push(conversion('show', context, 'encoded'))
  const afterDisplay = appendSide(links, context, steps, 'encoded')
  if (afterDisplay === 'linear') links.push(conversion('finish', context, 'encoded'))
  return { ...shown, leaves: 'displaySignal' }
}

/**
 * From code values to scene-linear AP1: by formula per channel and then the matrix, or through a supplied LUT first.
 */
function readLinks(read: ReadSettings, lut: LutFinder): Pick<Chain, 'decode' | 'decodeSignature'> & { links: Link[] } {
  const { decode } = encodingOf(read).curve
  const matrix = matrixOperation(gamutToGamut(gamutById(read.gamutId), workingGamut))
  const curveSignature = read.own ? JSON.stringify(read.own.curve) : read.encodingId
  const table = read.method === 'lut' && read.lutHash !== null && read.lutStrength > 0 ? lut(read.lutHash) : undefined
  const link = (signature: string, operations: readonly Operation[]): Link => ({
    station: 'read',
    leaves: 'sceneLinear',
    signature: `read ${signature} ${read.gamutId}`,
    operations,
  })
  if (!table) return { decode, decodeSignature: curveSignature, links: [link('', [matrix])] }
  // A table returns codes as well; they are curved like signal, so a lattice may hold them as they are.
  const through = mixedRun(lutOperations(table, 'tetrahedral', 'code'), read.lutStrength, 'code')
  return {
    decode: (code) => code,
    decodeSignature: 'code',
    links: [
      link(`lut ${read.lutHash} ${read.lutStrength} ${curveSignature}`, [...through, curveOperation(decode), matrix]),
    ],
  }
}

function showLink(show: ShowSettings, display: Display): Link {
  return {
    station: 'show',
    leaves: 'displayLinear',
    signature: `show ${JSON.stringify(show)}`,
    operations: [...prepareShow(show, display), ...carriedBy(display)],
  }
}

/** A table's signal, mixed over that of the straight conversion where it does not count whole. */
function showLutLink(show: ShowSettings, table: Lut, display: Display, { surroundings }: SideContext): Link {
  const { lutTakes, lutStrength, lutHash } = show
  const through = [
    ...intoDomain(lutTakes, surroundings).into,
    ...lutOperations(table, 'tetrahedral', lutTakes === lutTakesSide ? 'workingLog' : 'code', 'displaySignal'),
  ]
  const whole: Link = {
    station: 'show',
    leaves: 'displaySignal',
    signature: `show lut ${lutHash} ${lutTakes}`,
    operations: through,
  }
  if (lutStrength === 1) return whole
  const {
    eotf: { encode },
    carriedPeak,
  } = display
  const straight = [
    curveOperation(surroundings.decode),
    ...prepareShow({ ...show, method: 'straight' }, display),
    ...carriedBy(display),
    curveOperation((v) => encode(Math.min(Math.max(v, 0), carriedPeak))),
  ]
  const mix = (pixels: Float64Array): void => {
    const plain = pixels.slice()
    for (const operation of straight) operate(operation, plain)
    for (const operation of through) operate(operation, pixels)
    for (let i = 0; i < pixels.length; i++) pixels[i] = plain[i] + (pixels[i] - plain[i]) * lutStrength
  }
  return {
    ...whole,
    signature: `${whole.signature} ${lutStrength} ${JSON.stringify(show)}`,
    operations: [pixelsOperation(mix, 'workingLog', 'displaySignal')],
  }
}

/**
 * The encoding a grade reads by: one that ships, or the user's own that the grade carries. Throws RangeError for
 * unknown ids.
 */
export function encodingOf({ encodingId, own }: Pick<ReadSettings, 'encodingId' | 'own'>): Encoding {
  return own && own.id === encodingId ? encodingFromDefinition(own) : encodingById(encodingId)
}

/** Appends the steps of one side in station order and returns the domain they leave. */
function appendSide(links: Link[], context: SideContext, steps: readonly Step[], start: Domain): Domain {
  let domain = start
  for (const { id: station } of stations) {
    const here = steps.filter((s) => stationOf(s) === station)
    if (station === 'regions') {
      for (const region of context.regions) {
        const carried = here.filter((s) => s.regionId === region.id)
        if (carried.length === 0) continue
        if (domain !== 'encoded') links.push(conversion(station, context, 'encoded'))
        domain = 'encoded'
        links.push(regionLink(context, region, carried))
      }
      continue
    }
    for (const step of here) {
      const wanted = stepKindById(step.kind).domain
      if (domain !== wanted) links.push(conversion(station, context, wanted))
      domain = wanted
      links.push(stepLink(station, context, step))
    }
  }
  return domain
}

function stepLink(station: StationId, { id, side, surroundings }: SideContext, step: Step): Link {
  const kind = stepKindById(step.kind)
  const leaves = lightOf(side, kind.domain)
  const effect = kind.prepare(step.params, surroundings)
  const found = typeof effect === 'function' ? effect(leaves) : effect
  const run = 'kind' in found ? [found] : found
  const signature = JSON.stringify([id, step.kind, step.strength, step.params])
  return { station, leaves, signature, operations: mixedRun(run, step.strength, leaves) }
}

/** All steps of one region are one layer: their joint result is mixed over the picture once, in the encoded domain. */
function regionLink(context: SideContext, region: Region, steps: readonly Step[]): Link {
  const inner: Link[] = []
  let domain: Domain = 'encoded'
  for (const step of steps) {
    const wanted = stepKindById(step.kind).domain
    if (domain !== wanted) inner.push(conversion('regions', context, wanted))
    domain = wanted
    inner.push(stepLink('regions', context, step))
  }
  if (domain === 'linear') inner.push(conversion('regions', context, 'encoded'))
  return {
    station: 'regions',
    leaves: lightOf(context.side, 'encoded'),
    region,
    signature: inner.map((l) => l.signature).join('\n'),
    operations: inner.flatMap((l) => l.operations),
  }
}

/** Runs a link in double precision, in place; a region's matte is the caller's business. */
export function applyLink(link: Link, pixels: Float64Array): void {
  for (const operation of link.operations) operate(operation, pixels)
}

/** The hashes of the LUTs that a document uses, in Read, in enabled steps and in Show. */
export function lutsOf({ read, steps, show }: GradeDocument): readonly string[] {
  const wanted = [
    read.method === 'lut' ? read.lutHash : null,
    ...steps.filter((s) => s.kind === 'lut' && s.enabled).map((s) => s.params['lutHash']),
    show.method === 'lut' ? show.lutHash : null,
  ]
  return [...new Set(wanted.filter((h): h is string => typeof h === 'string'))]
}

/** The hashes of LUTs that a document asks for and that are not at hand. */
export const missingLuts = (document: GradeDocument, lut: LutFinder): readonly string[] =>
  lutsOf(document).filter((h) => !lut(h))

/** The index of the link with which Show ends; steps after it stand on the display side. */
export const shownAt = (chain: Chain): number =>
  chain.links.findLastIndex((l) => l.station === 'show' && l.leaves !== 'workingLog' && l.leaves !== 'sceneLinear')
