// A colour picked in the picture becomes a hump of a curve over hue, or a point of another; dragging moves it.
import { onBeforeUnmount, shallowRef, watch, type Ref, type ShallowRef } from 'vue'
import {
  addCurvePoint,
  amountAt,
  colourCurve,
  colourCurves,
  setPush,
  type ColourCurveId,
  type ColourPush,
  type CurvePoint,
  type Step,
} from '@core/grade'
import { clamp } from '@core/numbers'
import type { PlaceColour } from '@core/instruments'
import { useGesture } from '../../../composables/useGesture'
import { usePicking } from '../../../stores/picking'
import { colourFields } from './colour-field'

export interface ColourPicking {
  /** The hump that was made last, while it can be shaped. */
  readonly push: ShallowRef<ColourPush | null>
  readonly shape: (change: Partial<ColourPush>) => void
  /** Starts and ends picking in the picture. */
  readonly toggle: () => void
}

export function useColourPicking(
  step: () => Step,
  curveId: Readonly<Ref<ColourCurveId>>,
  points: Readonly<Ref<readonly CurvePoint[]>>,
  chosen: Ref<number>,
  set: (points: readonly CurvePoint[]) => void,
): ColourPicking {
  const picking = usePicking()
  const gesture = useGesture()
  const push = shallowRef<ColourPush | null>(null)
  const withinY = (y: number): number => clamp(y, colourCurves[curveId.value].y.min, colourCurves[curveId.value].y.max)

  function shape(change: Partial<ColourPush>): void {
    if (!push.value) return
    push.value = { ...push.value, ...change }
    set(setPush(curveId.value, points.value, push.value))
  }
  /** The amount that the curve over hue has at a colour, from which a drag goes. */
  function beginHump({ degrees }: PlaceColour): number {
    const amount = amountAt(curveId.value, points.value, degrees)
    push.value = {
      degrees,
      widthDegrees: push.value?.widthDegrees ?? 45,
      softness: push.value?.softness ?? 1,
      amount,
    }
    const humped = setPush(curveId.value, points.value, push.value)
    set(humped)
    chosen.value = Math.max(
      0,
      humped.findIndex((p) => Math.abs(p.x - degrees) < 0.01),
    )
    return amount
  }
  /** The height of the point at or near a colour, which is added where there is none. */
  function beginPoint(colour: PlaceColour): number {
    const { x, neutral } = colourCurves[curveId.value]
    const at = clamp(curveId.value === 'saturationByLightness' ? colour.stops : colour.purity, x.min, x.max)
    const near = (x.max - x.min) / 40
    let taken = points.value
    let index = taken.findIndex((p) => Math.abs(p.x - at) < near)
    if (index < 0) {
      const curve = colourCurve(curveId.value, taken) ?? (() => neutral)
      taken = addCurvePoint(taken, { x: at, y: withinY(curve(at)) })
      index = taken.findIndex((p) => p.x === at)
      set(taken)
    }
    chosen.value = index
    return taken[index]?.y ?? neutral
  }

  function toggle(): void {
    const byHue = 'periodic' in colourCurves[curveId.value]
    const { reach } = colourFields[curveId.value]
    let from = 0
    picking.toggle({
      id: curveId.value,
      station: 'hue',
      side: step().side,
      begin: (colour) => {
        gesture.begin()
        from = byHue ? beginHump(colour) : beginPoint(colour)
      },
      drag: (up) => {
        const to = from + up * reach
        if (byHue) shape({ amount: to })
        else if (points.value[chosen.value])
          set(points.value.map((p, i) => (i === chosen.value ? { x: p.x, y: withinY(to) } : p)))
      },
      end: gesture.end,
    })
  }

  watch(curveId, () => {
    push.value = null
    picking.stop()
  })
  watch(
    () => step().side,
    (side) => {
      picking.wanted = { station: 'hue', side }
    },
    { immediate: true },
  )
  onBeforeUnmount(() => {
    picking.stop()
    picking.wanted = null
  })
  return { push, shape, toggle }
}
