// What is asked about regions of the last picture: their mattes, what keys read, and what a matte is worth.
import {
  compileMattes,
  dragSize,
  drawMatte,
  neighbourFrames,
  gradeAt,
  missingLuts,
  placeRegion,
  matteCache,
  planesAt,
  restSize,
  type GradeDocument,
  type MatteSource,
  type PlanCache,
} from '@core/grade'
import type { Frame } from '@core/image'
import {
  largestIsland,
  placeByKey,
  placeByLook,
  settledRegion,
  stopsBetween,
  judgeMatte,
  matteMoved,
  type KeyPlanes,
  type KeyTap,
  type Region,
} from '@core/regions'
import { frameWithAround, loadFrame, loadLut, lutAtHand } from '../frame-source'
import type { LastPicture } from './questions'
import type { GradedFrame, MatteWorth, RegionFound, Viewing } from '../messages'
import type { TileJob } from '../tile'

const built: PlanCache = new Map()
let kept: { readonly grade: GradeDocument; readonly low: number; readonly source: MatteSource } | null = null

function sourceFor(grade: GradeDocument, frame: Frame): MatteSource {
  if (kept?.grade === grade && kept.low === frame.low) return kept.source
  kept = { grade, low: frame.low, source: compileMattes(grade, lutAtHand, frame, dragSize, built) }
  return kept.source
}

/** What a picture's threads need of mattes for a way of looking. */
export function mattesFor(
  grade: GradeDocument,
  asShot: boolean,
  frame: Frame,
  { matte, part }: Viewing,
): Pick<TileJob, 'mattes' | 'matte'> {
  const wanted = !asShot && (matte !== null || part?.kind === 'region')
  return { mattes: wanted ? sourceFor(grade, frame) : null, matte: asShot ? null : matte }
}

/** The whole matte of a region by its id. */
export function wholeMatte(grade: GradeDocument, frame: Frame): (regionId: string) => Float32Array | null {
  return (regionId) => {
    const source = sourceFor(grade, frame)
    const region = grade.regions.find((r) => r.id === regionId)
    return region ? drawMatte(source, region, frame, { from: 0, to: frame.height }, cache) : null
  }
}
const cache = matteCache()

export const keyedPlanes = ({ grade, frame }: Pick<LastPicture, 'grade' | 'frame'>, tap: KeyTap): KeyPlanes =>
  planesAt(sourceForTap(grade, frame, tap), frame, tap)

/** A key that has just been made reads at its tap though no region does yet. */
function sourceForTap(grade: GradeDocument, frame: Frame, tap: KeyTap): MatteSource {
  const reading: GradeDocument = {
    ...grade,
    regions: [
      {
        id: 'reading',
        name: '',
        enabled: true,
        invert: false,
        strength: 1,
        components: [
          {
            id: 'key',
            mode: 'add',
            invert: false,
            opacity: 1,
            source: {
              kind: 'key',
              key: { tap, groups: [], samples: [] },
              cleaning: { calm: 0, specks: 0, holes: 0, grow: 0, follow: 0, blur: 0, low: 0, high: 1, steady: 0 },
            },
          },
        ],
      },
    ],
  }
  return compileMattes(reading, lutAtHand, frame, restSize, built)
}

/**
 * What a region's matte is worth on the last picture, with the next frame's where it can be had; and how far it moved
 * since another grade.
 */
export async function judgeRegion(
  last: LastPicture | null,
  regionId: string,
  then: GradeDocument | null,
): Promise<MatteWorth> {
  if (!last || last.asShot) return null
  const { frame, whole, medium, frameIndex } = last
  const address = { mediaHash: medium.hash, range: last.grade.read.range }
  const matte = (grade: GradeDocument, of: Frame): Float32Array | null => {
    const region = grade.regions.find((r) => r.id === regionId)
    return region
      ? drawMatte(compileMattes(grade, lutAtHand, of, restSize, built), region, of, { from: 0, to: of.height }, cache)
      : null
  }
  const now = matte(last.grade, frame)
  if (!now) return null
  const { first, last: end } = medium.span
  const later = frameIndex + 1
  const looked = neighbourFrames(whole, later, first, end)
  const next =
    later > end
      ? null
      : await loadFrame({ ...address, index: later })
          .then((of) => frameWithAround(of, { ...address, index: later }, looked))
          .catch(() => null)
  const after = next && next.width === frame.width ? matte(gradeAt(whole, frameIndex + 1), next) : null
  const before = then && matte(gradeAt(then, frameIndex), frame)
  const plane = (values: Float32Array) => ({ width: frame.width, height: frame.height, values })
  return { ...judgeMatte(plane(now), after && plane(after)), moved: before && matteMoved(before, now) }
}

/**
 * Where a region of another shot would sit in the last picture: by its key where it has one, else by its look; and how
 * its light differs there.
 */
export async function findRegion(
  last: LastPicture | null,
  from: GradedFrame,
  regionId: string,
): Promise<RegionFound | null> {
  if (!last || last.asShot) return null
  const there = gradeAt(from.grade, from.frameIndex)
  const region = there.regions.find((r) => r.id === regionId)
  const frame = await loadFrame({ mediaHash: from.medium.hash, index: from.frameIndex, range: there.read.range })
  await Promise.all(missingLuts(there, lutAtHand).map(loadLut))
  if (!region) return null
  const drawn = (grade: GradeDocument, own: Region, others: readonly Region[], of: Frame): Float32Array =>
    drawMatte(
      compileMattes(
        { ...grade, regions: [own, ...others.filter((r) => r.id !== own.id)] },
        lutAtHand,
        of,
        restSize,
        new Map(),
      ),
      own,
      of,
      { from: 0, to: of.height },
    )
  const planesThere = keyedPlanes({ grade: there, frame }, 'hue')
  const planesHere = keyedPlanes(last, 'hue')
  const matte = drawn(there, region, there.regions, frame)
  const keys = region.components.filter((p) => p.source.kind === 'key')
  const lightness = ({ width, height, l }: KeyPlanes) => ({ width, height, values: l })
  const plane = (values: Float32Array, of: Frame) => ({ width: of.width, height: of.height, values })
  const keyOnly: Region = { ...region, invert: false, components: keys.map((p) => ({ ...p, mode: 'add' })) }
  const how = keys.length > 0 ? 'key' : 'look'
  const place =
    how === 'key'
      ? placeByKey(plane(matte, frame), plane(drawn(last.grade, keyOnly, [], last.frame), last.frame))
      : placeByLook(lightness(planesThere), matte, lightness(planesHere))
  const was = largestIsland(plane(matte, frame))
  if (!place || !was) return { by: null, how, sure: 0, stops: null }
  const by = { x: place.x - was.x, y: place.y - was.y, size: place.size }
  // A region sits about its shapes' middles: they move as the middle of what it held does.
  const brought = placeRegion(settledRegion(region, from.frameIndex), last.frame.width / last.frame.height, by)
  return {
    by,
    how,
    sure: place.sure,
    stops: stopsBetween(planesHere, drawn(last.grade, brought, there.regions, last.frame), planesThere, matte),
  }
}
