// Asks the Cameras worker.
import { onScopeDispose } from 'vue'
import { connect, type Calls } from '../workers/calls'
import type { CameraFunctions } from '../workers/camera-worker'

export function useCameraWorker(): Calls<CameraFunctions> {
  const calls = connect<CameraFunctions>(
    () => new Worker(new URL('../workers/camera-worker.ts', import.meta.url), { type: 'module' }),
    'The measuring thread',
  )
  onScopeDispose(calls.close)
  return calls
}
