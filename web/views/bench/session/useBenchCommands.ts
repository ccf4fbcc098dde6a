// The Bench's commands: what each of them does, by its key or from the palette.
import { addStep, shippedRecipes, stations, type Recipe, type StationId } from '@core/grade'
import { cutTo } from '@core/names'
import { clamp01 } from '@core/numbers'
import { request } from '../../../api/client'
import { commands } from '../../../commands/declared'
import { closeLast } from '../../../composables/useEscape'
import { useAims } from '../../../stores/aims'
import { useBalance } from '../../../stores/balance'
import { useGrade } from '../../../stores/grade'
import { useKeys } from '../../../stores/keys'
import { useLuts } from '../../../stores/luts'
import { usePalette } from '../../../stores/palette'
import { unsettledEncodings, usePlacing } from '../../../stores/placing'
import { useView } from '../../../stores/view'
import { nextArrangement, nextMeridian } from '../layout/arranged'
import { nextZoom } from '../picture/useZoom'
import { isHeld, useBenchKeys, type BenchActions } from '../useBenchKeys'
import type { Bench } from './bench'
import { nextFilling, nextSurround } from './next-choice'

const panStep = 0.05

export function useBenchCommands(bench: Bench): void {
  const aims = useAims()
  const balance = useBalance()
  const grade = useGrade()
  const placing = usePlacing()
  const view = useView()
  const keys = useKeys()
  const luts = useLuts()
  const palette = usePalette()
  const { playback, marking } = bench
  // While choices stand open, the numbers of stations take them.
  const station = (id: StationId): void => {
    const at = stations.findIndex((s) => s.id === id)
    if (balance.choices[at]) balance.take(at)
    else bench.openStation(id)
  }
  const run: BenchActions['run'] = {
    'frame-back': () => bench.go(view.frame - 1),
    'frame-on': () => bench.go(view.frame + 1),
    'frames-back': () => bench.go(view.frame - 12),
    'frames-on': () => bench.go(view.frame + 12),
    lead: () => bench.go(bench.shot.value?.leadFrame ?? 0),
    'make-lead': () => void bench.makeLead(),
    'next-moment': bench.nextMoment,
    play: playback.toggle,
    'shuttle-back': () => playback.shuttle(-1),
    'shuttle-on': () => playback.shuttle(1),
    'range-begin': () => playback.setRange('first', view.frame),
    'range-end': () => playback.setRange('last', view.frame),
    loop: playback.toggleLoop,
    'as-shot': () => {
      view.asShot = !view.asShot
    },
    surround: () => {
      view.surround = nextSurround(view.surround)
    },
    zoom: () => {
      view.zoom = nextZoom(view.zoom)
    },
    fit: () => {
      view.zoom = { level: 0, x: 0.5, y: 0.5 }
    },
    gamma: () => {
      view.otherGamma = !view.otherGamma
    },
    instrument: () => {
      view.filling = nextFilling(view.slots, view.filling)
    },
    layout: () => {
      view.layout = nextArrangement(view.layout)
    },
    meridian: () => {
      view.layout = nextMeridian(view.layout)
    },
    alone: () => {
      view.pictureAlone = !view.pictureAlone
    },
    'live-moments': () => {
      view.liveMoments = !view.liveMoments
    },
    part: marking.togglePart,
    overlay: marking.nextOverlay,
    tap: () => {
      view.tap = view.tap === 'finish' ? view.station : 'finish'
    },
    reference: () => void bench.toggleReference('this'),
    compare: bench.comparing.next,
    'station-read': () => station('read'),
    'station-level': () => station('level'),
    'station-shape': () => station('shape'),
    'station-hue': () => station('hue'),
    'station-regions': () => station('regions'),
    'station-look': () => station('look'),
    'station-show': () => station('show'),
    'station-finish': () => station('finish'),
    balance: bench.balancing.ask,
    keep: () => {
      if (placing.recipe) placing.keep()
      else if (balance.open) balance.take()
      else aims.keep()
    },
    close: () => void closeLast(),
    undo: () => void grade.undo(),
    redo: () => void grade.redo(),
    'shot-before': () => bench.neighbour(-1),
    'shot-after': () => bench.neighbour(1),
    keys: () => {
      view.showKeys = !view.showKeys
    },
  }
  useBenchKeys({
    run,
    hold: { 'hold-as-shot': bench.holdAsShot, bypass: marking.bypassByKey },
    pan: (dx, dy) => {
      const { level, x, y } = view.zoom
      view.zoom = { level, x: clamp01(x + dx * panStep), y: clamp01(y + dy * panStep) }
    },
  })
  palette.offer(() =>
    commands.flatMap(({ id, group, name }) =>
      isHeld(id) ? [] : [{ id: `command ${id}`, group, name, key: keys.keys[id], run: run[id] }],
    ),
  )
  palette.offer(async () =>
    [...(await request<readonly Recipe[]>('/recipes')), ...shippedRecipes].map((recipe) => ({
      id: `recipe ${recipe.id}`,
      group: 'Recipe',
      name: recipe.name,
      run: () => {
        bench.openStation('look')
        const read = bench.present.value?.read.encodingId ?? ''
        placing.begin(recipe, unsettledEncodings(bench.shot.value?.guess ?? null, read))
      },
    })),
  )
  palette.offer(async () => {
    await luts.load()
    return luts.all.map(({ hash, name }) => ({
      id: `lut ${hash}`,
      group: 'LUT',
      name,
      run: () => {
        bench.openStation('look')
        grade.edit(cutTo(`LUT ${name}`, 200), (g) => addStep(g, 'lut', 'LUT', { lutHash: hash }))
      },
    }))
  })
}
