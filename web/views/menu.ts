// The views that the header offers, in their order: a view is a route, and one line here.
import type { RouteLocationRaw } from 'vue-router'
import type { ShotDetail } from '@contracts/responses'

/** What stands open while the header is drawn. */
export interface HeaderContext {
  readonly project: { readonly id: string } | null
  readonly shot: ShotDetail | null
  readonly frame: number
  /** The query of the present address. */
  readonly query: Readonly<Record<string, unknown>>
}
export interface MenuEntry {
  /** The route's name. */
  readonly route: string
  readonly name: string
  /** Where it leads; null where it needs what is not open. */
  readonly to: (context: HeaderContext) => RouteLocationRaw | null
}

const ofShot = (route: string, query: (context: HeaderContext) => object = () => ({})): MenuEntry['to'] => {
  return (context) =>
    context.shot && ({ name: route, params: { shotId: context.shot.id }, query: query(context) } as RouteLocationRaw)
}
/** A view about no shot in particular, which may look at the open one. */
const withShot = ({ shot, frame }: HeaderContext) => (shot ? { shot: shot.id, frame } : {})

export const menu: readonly MenuEntry[] = [
  { route: 'reel', name: 'Reel', to: ({ project }) => project && { name: 'reel', params: { projectId: project.id } } },
  {
    route: 'continuity',
    name: 'Continuity',
    to: ({ project, query }) =>
      project && {
        name: 'continuity',
        params: { projectId: project.id },
        query: Object.fromEntries(
          ['scene', 'shot', 'ref', 'at'].flatMap((k) => (query[k] ? [[k, String(query[k])]] : [])),
        ),
      },
  },
  { route: 'bench', name: 'Bench', to: ofShot('bench', ({ query }) => query) },
  { route: 'dispatch', name: 'Dispatch', to: ofShot('dispatch', ({ frame }) => ({ frame })) },
  { route: 'record', name: 'Record', to: ofShot('record') },
  { route: 'luts', name: 'LUTs', to: (c) => ({ name: 'luts', params: { part: 'inspect' }, query: withShot(c) }) },
  { route: 'cameras', name: 'Cameras', to: (c) => ({ name: 'cameras', query: withShot(c) }) },
  {
    route: 'standards',
    name: 'Standards',
    to: ({ shot }) => ({ name: 'standards', params: { standardId: shot?.standardId ?? '' } }),
  },
]
