// Everything on the Bench that Escape closes.
import { useEscape } from '../../../composables/useEscape'
import { useAims } from '../../../stores/aims'
import { useBalance } from '../../../stores/balance'
import { usePicking } from '../../../stores/picking'
import { usePlacing } from '../../../stores/placing'
import { useRegions } from '../../../stores/regions'
import { useTracking } from '../../../stores/tracking'
import { useView } from '../../../stores/view'

export function useBenchClosing(): void {
  const aims = useAims()
  const balance = useBalance()
  const picking = usePicking()
  const placing = usePlacing()
  const regions = useRegions()
  const tracking = useTracking()
  const view = useView()
  useEscape(
    () => aims.pending,
    () => aims.takeBack(),
  )
  useEscape(
    () => balance.open,
    () => balance.close(),
  )
  useEscape(
    () => placing.recipe !== null,
    () => placing.leave(),
  )
  useEscape(
    () => tracking.painting,
    () => {
      tracking.painting = false
    },
  )
  useEscape(
    () => regions.drawing !== null || regions.sampling !== null,
    () => regions.leavePicture(),
  )
  useEscape(
    () => picking.picker !== null,
    () => picking.stop(),
  )
  useEscape(
    () => view.showKeys,
    () => {
      view.showKeys = false
    },
  )
}
