// What shots have of their scene and project: the display, and the rendering that brings scene light to it.
import { inheritedShow, type GradeDocument, type InheritedShow, type ReadSettings, type ShowSettings } from './document'
import { isSceneReferred } from './opening-show'
import { firstRendering, type DefaultRendering, type ShowMethodId } from './show/parameters'

export interface ShowDefaults {
  readonly displayId: string
  readonly rendering: DefaultRendering
}
/** Where nothing was said. */
export const firstShowDefaults: ShowDefaults = { displayId: 'bt709-2.4', rendering: firstRendering }

/** What a reading is shown by: scene light through the rendering, a finished picture as it is. */
const methodOf = (read: ReadSettings, { rendering }: ShowDefaults): ShowMethodId =>
  isSceneReferred(read) ? rendering : 'straight'

/** Whether a grade has this of its defaults: no hand chose it, and it is what they say. */
export function follows({ read, show }: GradeDocument, key: InheritedShow, defaults: ShowDefaults): boolean {
  if (show.own?.includes(key)) return false
  return key === 'displayId' ? show.displayId === defaults.displayId : show.method === methodOf(read, defaults)
}

/** Gives a grade what its defaults say, as though no hand had chosen otherwise. */
export function asDefaultsSay(grade: GradeDocument, key: InheritedShow, defaults: ShowDefaults): GradeDocument {
  const { read, show } = grade
  const value = key === 'displayId' ? defaults.displayId : methodOf(read, defaults)
  if (show[key] === value && !show.own?.includes(key)) return grade
  const { own, ...rest } = show
  const left = own?.filter((k) => k !== key) ?? []
  const set: ShowSettings = { ...rest, ...(left.length ? { own: left } : {}), [key]: value }
  return { ...grade, show: set }
}

/** A grade after its defaults changed: what followed the old ones follows the new. The same where nothing moves. */
export function withDefaults(grade: GradeDocument, before: ShowDefaults, after: ShowDefaults): GradeDocument {
  let now = grade
  for (const key of inheritedShow) if (follows(grade, key, before)) now = asDefaultsSay(now, key, after)
  return now
}
