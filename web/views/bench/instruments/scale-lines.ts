// The lines of a level scale: where they lie on the signal and what they say, by scale, display and tap.
import { printNumber } from '@core/numbers'
import { displayById, logAtStops } from '@core/colour'
import { stations, type StationId } from '@core/grade'
import type { Graticules } from '../../../stores/kept-settings'

export interface ScaleLine {
  readonly at: number
  readonly label: string
}

const sceneStations: ReadonlySet<StationId> = new Set(['read', 'level', 'shape', 'hue', 'regions', 'look'])
export const onSceneSide = (tap: StationId): boolean => sceneStations.has(tap)
export const stationName = (id: StationId): string => stations.find((s) => s.id === id)?.name ?? id

const nitsWorthALine = [0, 1, 10, 50, 100, 203, 600, 1000, 4000]

/**
 * Lines at a quarter of the signal each; in light where the display's own values lie; before Show in stops from grey.
 */
export function scaleLines(scale: Graticules['scale'], displayId: string, tap: StationId): readonly ScaleLine[] {
  if (onSceneSide(tap))
    return [-6, -4, -2, 0, 2, 4, 6, 8].map((stops) => ({
      at: logAtStops(stops),
      label: printNumber(stops, 0, true),
    }))
  const quarters = [0, 0.25, 0.5, 0.75, 1]
  if (scale === 'percent') return quarters.map((at) => ({ at, label: String(at * 100) }))
  // Legal range of ten bits, as signals are delivered.
  if (scale === 'codes') return quarters.map((at) => ({ at, label: String(64 + at * 876) }))
  const { eotf, whiteNits, systemGamma = 1, carriedPeak, peak } = displayById(displayId)
  const top = peak * whiteNits
  const atNits = (nits: number): number =>
    eotf.encode(Math.min(carriedPeak, systemGamma === 1 ? nits / whiteNits : (nits / top) ** (1 / systemGamma)))
  return nitsWorthALine
    .filter((nits) => nits <= top * 1.001)
    .map((nits) => ({ at: atNits(nits), label: String(nits) }))
    .filter((line, i, all) => line.at - (all[i - 1]?.at ?? -Infinity) > 0.06)
}
