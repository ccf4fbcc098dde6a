// How a shot stands against its house standard with a grade that is kept or proposed: what lies outside, and what would
// be lost that is not lost now.
import type { OutsideReading, ShotDetail } from '@contracts/responses'
import { lossFirst } from '@core/aims'
import { gradeAt, type GradeDocument } from '@core/grade'
import {
  judge,
  outside,
  pointedAt,
  readingKey,
  reasonToStay,
  standardById,
  waivedKeys,
  type Finding,
  type HouseStandard,
} from '@core/readings'
import type { ServerContext } from '../context'
import { listStandards } from '../db/standards'

/** What a frame of the medium measures, with a grade and with another one. */
export interface BeforeAndAfter {
  readonly frame: number
  readonly before: readonly Finding[]
  readonly after: readonly Finding[]
}
export interface StandingReader {
  readonly standardOf: (shot: ShotDetail) => Promise<HouseStandard>
  /** What the lead frame measures with a grade. */
  readonly measure: (shot: ShotDetail, grade: GradeDocument) => Promise<readonly Finding[]>
  /** What lies outside on the lead frame and is not waived, what is lost first. */
  readonly outsideOf: (
    shot: ShotDetail,
    grade: GradeDocument,
    standard: HouseStandard,
  ) => Promise<readonly OutsideReading[]>
}

export function standingReader({ pool, findings }: Pick<ServerContext, 'pool' | 'findings'>): StandingReader {
  const measure: StandingReader['measure'] = (of, grade) => {
    const { media, leadFrame: frame } = of
    const pointed = pointedAt(frame, of)
    return findings({ hash: media.hash, frame, bitDepth: media.bitDepth, grade: gradeAt(grade, frame), pointed }, true)
  }
  return {
    measure,
    standardOf: async (shot) => standardById(shot.standardId, await listStandards(pool)),
    outsideOf: async (shot, grade, standard) => {
      const waived = waivedKeys(shot.waivers)
      const findings = await measure(shot, grade)
      return outside(judge(findings, standard))
        .filter((r) => !waived.has(readingKey(r)))
        .sort(lossFirst)
        .map((r) => ({
          reading: r.id,
          subject: r.of ?? '',
          sentence: r.sentence,
          reason: reasonToStay(r, findings),
        }))
    },
  }
}

/** A share of the picture that nobody would miss. */
const leastLoss = 0.0005

/** What would be lost beyond the standard that is not lost now, in words: each where the shot loses most of it. */
export function newLosses(
  shot: ShotDetail,
  ends: readonly BeforeAndAfter[],
  standard: HouseStandard,
): readonly string[] {
  const waived = waivedKeys(shot.waivers)
  const lost = (of: Finding | undefined): number => of?.counted ?? of?.value ?? 0
  const fresh = ends.flatMap(({ frame, before, after }) =>
    outside(judge(after, standard)).flatMap((reading) => {
      const share = lost(after.find((f) => f.id === reading.id))
      const isNew = share > lost(before.find((f) => f.id === reading.id)) + leastLoss
      return isNew && !waived.has(readingKey(reading)) ? [{ frame, reading, share }] : []
    }),
  )
  return fresh
    .filter((one) => fresh.every((o) => o.reading.id !== one.reading.id || o.share <= one.share))
    .map(({ frame, reading }) => `Frame ${frame - shot.firstFrame}: ${reading.sentence}`)
}
