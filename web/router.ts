// The addresses: what should survive a reload or be sent to a colleague.
import { createRouter, createWebHistory } from 'vue-router'
import { prepareBenchWorker } from './workers/prepared'

const bench = () => import('./views/bench/BenchView.vue')

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', name: 'projects', component: () => import('./views/projects/ProjectsView.vue') },
    {
      path: '/projects/:projectId/reel',
      name: 'reel',
      component: () => import('./views/reel/ReelView.vue'),
      props: true,
    },
    {
      path: '/projects/:projectId/continuity',
      name: 'continuity',
      component: () => import('./views/continuity/ContinuityView.vue'),
      props: true,
    },
    { path: '/shots/:shotId/cut', name: 'cut', component: () => import('./views/reel/CutView.vue'), props: true },
    {
      path: '/shots/:shotId/bench',
      name: 'bench',
      component: bench,
      props: true,
    },
    {
      path: '/shots/:shotId/dispatch',
      name: 'dispatch',
      component: () => import('./views/dispatch/DispatchView.vue'),
      props: true,
    },
    {
      path: '/cameras/:part(encodings|lookup|measure|estimate|chart|compare)?',
      name: 'cameras',
      component: () => import('./views/cameras/CamerasView.vue'),
      props: (route) => ({ part: String(route.params['part'] || 'encodings') }),
    },
    {
      path: '/luts/:part(inspect|sheet)?',
      name: 'luts',
      component: () => import('./views/luts/LutsView.vue'),
      props: (route) => ({ part: String(route.params['part'] || 'inspect') }),
    },
    {
      path: '/instruments/:instrument',
      name: 'instrument',
      component: () => import('./views/detached/InstrumentWindow.vue'),
      props: true,
    },
    { path: '/picture', name: 'picture', component: () => import('./views/detached/PictureWindow.vue') },
    {
      path: '/standards/:standardId?',
      name: 'standards',
      component: () => import('./views/standards/StandardsView.vue'),
      props: true,
    },
    {
      path: '/shots/:shotId/record',
      name: 'record',
      component: () => import('./views/record/RecordView.vue'),
      props: true,
    },
    {
      path: '/shots/:shotId/sheet',
      name: 'sheet',
      component: () => import('./views/record/SheetView.vue'),
      props: (route) => ({ of: 'shots', id: String(route.params['shotId']) }),
    },
    {
      path: '/projects/:projectId/sheet',
      name: 'project-sheet',
      component: () => import('./views/record/SheetView.vue'),
      props: (route) => ({ of: 'projects', id: String(route.params['projectId']) }),
    },
    { path: '/glossary', name: 'glossary', component: () => import('./views/glossary/GlossaryView.vue') },
    { path: '/:rest(.*)*', name: 'nowhere', component: () => import('./views/NowhereView.vue') },
  ],
})

/** Whoever looks at a list will open a shot: the Bench is there before the click, once nothing else is to be done. */
router.afterEach(({ name }) => {
  if (name === 'bench') return
  const idle = window.requestIdleCallback ?? ((then: () => void) => setTimeout(then, 500))
  idle(() => {
    prepareBenchWorker()
    void bench().catch(() => undefined)
  })
})
