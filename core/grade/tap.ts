// Taps: the signal at one station of the Passage, as codes that instruments can count and overlays can look at.
import { clamp01 } from '../numbers'
import { displayById, fromWorkingLog, toWorkingLog } from '../colour'
import { buildChain, shownAt, type Chain, type Link, type LutFinder } from './chain'
import { compileLinks, type CodeSpan, type LatticeSize, type PlanCache } from './compile'
import type { GradeDocument } from './document'
import { curveOperation, type SignedOperation } from './operation'
import { onScene, sceneLinks } from './scene-light'
import type { Passes } from './stage'
import type { StationId } from './stations'

/**
 * A station, after which the signal is taken; or "gamut": display-linear light before anything is held to the display's
 * ends.
 */
export type TapId = StationId | 'gamut'

/** Working log before Show, the display's own signal from Show on. */
export type TapScale = 'workingLog' | 'displaySignal' | 'gamut'
export interface Tap extends Passes {
  readonly scale: TapScale
}

/** The gamut tap carries light of −2 to 2 times display white; this code is no light. */
export const gamutTapZero = 32768
const gamutSpan = 4

/** The part of a chain that leads to a tap. */
function linksUpTo(chain: Chain, tap: StationId): readonly Link[] {
  if (tap === 'finish') return chain.links
  return tap === 'show' ? chain.links.slice(0, shownAt(chain) + 1) : sceneLinks(chain, tap)
}

/** Passes that end at a tap. Null for "gamut" where a LUT shows: what it does to light outside cannot be known. */
export function compileTap(
  document: GradeDocument,
  lut: LutFinder,
  span: CodeSpan,
  size: LatticeSize,
  tap: TapId,
  cache: PlanCache = new Map(),
): Tap | null {
  const chain = buildChain(document, lut)
  if (tap === 'gamut') return gamutTap(chain, span, size, cache)
  const links = linksUpTo(chain, tap)
  const leaves = links.at(-1)?.leaves ?? 'sceneLinear'
  const {
    eotf: { encode },
    carriedPeak,
  } = displayById(chain.displayId)
  switch (leaves) {
    case 'displayLinear':
      return {
        scale: 'displaySignal',
        ...compileLinks(
          chain,
          links,
          [
            {
              signature: `tap ${chain.displayId} linear`,
              operation: curveOperation((v) => encode(Math.min(Math.max(v, 0), carriedPeak))),
            },
          ],
          span,
          size,
          cache,
        ),
      }
    case 'displaySignal':
      return {
        scale: 'displaySignal',
        ...compileLinks(
          chain,
          links,
          [{ signature: 'tap signal', operation: curveOperation(clamp01) }],
          span,
          size,
          cache,
        ),
      }
    case 'workingLog':
      return {
        scale: 'workingLog',
        ...compileLinks(
          chain,
          links,
          [{ signature: 'tap log', operation: curveOperation(clamp01) }],
          span,
          size,
          cache,
        ),
      }
    case 'sceneLinear':
    case 'code':
      return {
        scale: 'workingLog',
        ...compileLinks(
          chain,
          links,
          [{ signature: 'tap linear', operation: curveOperation((v) => clamp01(toWorkingLog(v))) }],
          span,
          size,
          cache,
        ),
      }
  }
}

function gamutTap(chain: Chain, span: CodeSpan, size: LatticeSize, cache: PlanCache): Tap | null {
  if (!chain.showLight) return null
  const links = chain.links.filter(onScene)
  const ending: SignedOperation[] = [
    ...(links.at(-1)?.leaves === 'workingLog'
      ? [{ signature: 'to linear', operation: curveOperation(fromWorkingLog) }]
      : []),
    ...chain.showLight.map((operation, i) => ({
      signature: `light ${chain.links.find((l) => l.station === 'show')?.signature ?? ''} ${chain.displayId} ${i}`,
      operation,
    })),
    {
      signature: 'gamut',
      operation: curveOperation((v) => Math.min(1, Math.max(0, gamutTapZero / 65535 + v / gamutSpan))),
    },
  ]
  return { scale: 'gamut', ...compileLinks(chain, links, ending, span, size, cache) }
}
