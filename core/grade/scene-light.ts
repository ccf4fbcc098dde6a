// Scene light on its way: what camera codes are after a station, before Show.
import { fromWorkingLog } from '../colour'
import { applyLink, type Chain, type Link } from './chain'
import { applyPlaced, type Positions } from './direct'
import { stations, type StationId } from './stations'

const orderOf = new Map<StationId, number>(stations.map((s, i) => [s.id, i]))

/** True for links that act on scene light. */
export const onScene = (link: Link): boolean => link.leaves === 'sceneLinear' || link.leaves === 'workingLog'

/** The links on the scene side up to and including a station. */
export const sceneLinks = (chain: Chain, station: StationId): readonly Link[] =>
  chain.links.filter((l) => onScene(l) && (orderOf.get(l.station) ?? 0) <= (orderOf.get(station) ?? 0))

/**
 * Scene-linear AP1 of camera codes after all scene-side steps up to and including a station, in place of `codes` (RGB
 * triples of signal). Steps that stand after Show have not acted yet. Regions act where `place` says where the pixels
 * lie, and nowhere without it.
 */
export function sceneLight(chain: Chain, station: StationId, codes: Float64Array, place?: Positions): Float64Array {
  for (let i = 0; i < codes.length; i++) codes[i] = chain.decode(codes[i])
  const links = sceneLinks(chain, station)
  for (const link of links) {
    if (place) applyPlaced(link, codes, place, chain, chain.links.indexOf(link))
    else if (!link.region) applyLink(link, codes)
  }
  if (links.at(-1)?.leaves === 'workingLog') for (let i = 0; i < codes.length; i++) codes[i] = fromWorkingLog(codes[i])
  return codes
}
