// The reel as an edit list: its shots one behind the other, with the colour decisions that stand in their grades.
import { cdlOf } from '@core/grade'
import { printEdl, printOtio, type EditEvent } from '@core/formats'
import type { FrameRate } from '@core/footage'
import type { Queryable } from '../db/pool'

interface Row {
  readonly name: string
  readonly frameCount: number
  readonly rateNumerator: number
  readonly rateDenominator: number
  readonly params: Readonly<Record<string, unknown>> | null
}

/** The whole list counts at the rate of the first shot; undefined for an empty reel. */
export async function editListOf(
  db: Queryable,
  projectId: string,
  title: string,
  kind: 'edl' | 'otio',
): Promise<string | undefined> {
  const { rows } = await db.query<Row>(
    `
      SELECT
        s.name,
        s.frame_count AS "frameCount",
        (m.facts ->> 'rateNumerator')::int AS "rateNumerator",
        (m.facts ->> 'rateDenominator')::int AS "rateDenominator",
        jsonb_path_query_first(r.grade, '$.steps[*] ? (@.kind == "cdl" && @.enabled == true).params') AS params
      FROM
        shots s
        JOIN media m ON m.hash = s.media_hash
        JOIN revisions r ON r.id = s.head_id
      WHERE
        s.project_id = $1
      ORDER BY
        s.position
    `,
    [projectId],
  )
  const [rate] = rows as readonly (Row & FrameRate)[]
  if (!rate) return undefined
  let first = 0
  const events = rows.map(({ name, frameCount: count, params }): EditEvent => {
    const event = { name, first, count, transition: 0, ...(params ? { cdl: cdlOf(params) } : {}) }
    first += count
    return event
  })
  return kind === 'edl'
    ? printEdl(title, events, rate)
    : printOtio(title, events, rate.rateNumerator / rate.rateDenominator)
}
