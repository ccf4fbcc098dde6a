// The chain: a grade document as an ordered list of operations on linear and encoded light, the reference for all else.
import { displayById, encodingById, fromWorkingLog, gamutById, gamutToGamut, logPerStop, middleGrey, middleGreyLog, toWorkingLog, transformPixels, workingGamut } from '../colour'
import type { Lut } from '../luts'
import type { Region } from '../regions'
import type { GradeDocument, Side, Step } from './document'
import { stations, type StationId } from './stations'
import type { PixelOperation, StepSurroundings } from './step-kind'
import { stepKindById } from './steps'

/** Finds a LUT by its content hash among those at hand. */
export type LutFinder = (hash: string) => Lut | undefined

/** What kind of values a link leaves behind. */
export type Light = 'sceneLinear' | 'workingLog' | 'displayLinear' | 'displaySignal'

export interface Link {
  readonly station: StationId
  readonly apply: PixelOperation
  readonly leaves: Light
  /** Says all that `apply` depends on, so that equal signatures mean equal effects. */
  readonly signature: string
  /** The link's result is mixed over its input by this region's matte; input and output are encoded. */
  readonly region?: Region
}

export interface Chain {
  /** Per channel: code value → camera-linear. */
  readonly decode: (code: number) => number
  readonly encodingId: string
  /** From camera-linear RGB on. */
  readonly links: readonly Link[]
  /** What the last link leaves: display-linear light still to be clipped and encoded, or the display signal itself. */
  readonly leaves: 'displayLinear' | 'displaySignal'
  readonly displayId: string
}

type Domain = 'linear' | 'encoded'

/** The station a step acts in. */
export function stationOf(step: Step): StationId {
  return step.regionId === undefined ? stepKindById(step.kind).station : 'regions'
}

/** True when the step does something to the picture. */
export function isActive(step: Step, document: GradeDocument, lut: LutFinder): boolean {
  if (!step.enabled || step.strength === 0) return false
  const kind = stepKindById(step.kind)
  if (kind.isNeutral(step.params)) return false
  if (step.kind === 'lut' && !lut(String(step.params['lutHash']))) return false
  return step.regionId === undefined || document.regions.some((r) => r.id === step.regionId && r.enabled)
}

/** Builds the chain of a document. LUTs that are not at hand are left out (see missingLuts). Throws RangeError for unknown ids. */
export function buildChain(document: GradeDocument, lut: LutFinder): Chain {
  const encoding = encodingById(document.read.encodingId)
  const display = displayById(document.show.displayId)
  const displayGamut = gamutById(display.gamutId)
  const active = document.steps.filter((s) => isActive(s, document, lut))

  const toWorking = gamutToGamut(gamutById(document.read.gamutId), workingGamut)
  const links: Link[] = [{ station: 'read', leaves: 'sceneLinear', signature: `read ${document.read.gamutId}`, apply: (p) => transformPixels(toWorking, p) }]

  const sceneSteps = active.filter((s) => s.side === 'scene')
  const scene: SideContext = {
    side: 'scene',
    surroundings: { gamut: workingGamut, greyEncoded: middleGreyLog, stopEncoded: logPerStop, lut },
    encode: perComponent(toWorkingLog),
    decode: perComponent(fromWorkingLog),
    regions: document.regions,
  }
  const afterScene = appendSide(links, scene, sceneSteps, 'linear')
  if (afterScene === 'encoded') links.push(conversion('show', scene, 'linear'))

  const toDisplay = gamutToGamut(workingGamut, displayGamut)
  links.push({ station: 'show', leaves: 'displayLinear', signature: `show ${display.id}`, apply: (p) => transformPixels(toDisplay, p) })

  const displaySteps = active.filter((s) => s.side === 'display')
  if (displaySteps.length === 0) return { decode: encoding.curve.decode, encodingId: encoding.id, links, leaves: 'displayLinear', displayId: display.id }

  const { encode, decode } = display.eotf
  const displaySide: SideContext = {
    side: 'display',
    surroundings: { gamut: displayGamut, greyEncoded: encode(middleGrey), stopEncoded: (encode(2 * middleGrey) - encode(middleGrey / 2)) / 2, lut },
    encode: perComponent((v) => encode(Math.min(Math.max(v, 0), 1))),
    decode: perComponent(decode),
    regions: document.regions,
  }
  links.push(conversion('show', displaySide, 'encoded'))
  const afterDisplay = appendSide(links, displaySide, displaySteps, 'encoded')
  if (afterDisplay === 'linear') links.push(conversion('finish', displaySide, 'encoded'))
  return { decode: encoding.curve.decode, encodingId: encoding.id, links, leaves: 'displaySignal', displayId: display.id }
}

interface SideContext {
  readonly side: Side
  readonly surroundings: StepSurroundings
  readonly encode: PixelOperation
  readonly decode: PixelOperation
  readonly regions: readonly Region[]
}

function perComponent(f: (v: number) => number): PixelOperation {
  return (pixels) => {
    for (let i = 0; i < pixels.length; i++) pixels[i] = f(pixels[i]!)
  }
}

function lightOf(side: Side, domain: Domain): Light {
  if (side === 'scene') return domain === 'linear' ? 'sceneLinear' : 'workingLog'
  return domain === 'linear' ? 'displayLinear' : 'displaySignal'
}

function conversion(station: StationId, { side, encode, decode }: SideContext, to: Domain): Link {
  return { station, leaves: lightOf(side, to), signature: `${side} to ${to}`, apply: to === 'encoded' ? encode : decode }
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

function stepLink(station: StationId, { side, surroundings }: SideContext, step: Step): Link {
  const kind = stepKindById(step.kind)
  const operate = kind.prepare(step.params, surroundings)
  const leaves = lightOf(side, kind.domain)
  const { strength } = step
  const signature = JSON.stringify([side, surroundings.gamut.id, surroundings.greyEncoded, step.kind, strength, step.params])
  if (strength === 1) return { station, leaves, signature, apply: operate }
  return {
    station,
    leaves,
    signature,
    apply: (pixels) => {
      const before = pixels.slice()
      operate(pixels)
      for (let i = 0; i < pixels.length; i++) pixels[i] = before[i]! + (pixels[i]! - before[i]!) * strength
    },
  }
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
    apply: (pixels) => {
      for (const link of inner) link.apply(pixels)
    },
  }
}

/** The hashes of LUTs that enabled steps ask for and that are not at hand. */
export function missingLuts(document: GradeDocument, lut: LutFinder): readonly string[] {
  const wanted = document.steps.filter((s) => s.kind === 'lut' && s.enabled).map((s) => s.params['lutHash'])
  return [...new Set(wanted.filter((h): h is string => typeof h === 'string' && !lut(h)))]
}
