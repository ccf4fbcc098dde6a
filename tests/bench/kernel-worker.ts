// Runs the kernel's work in a worker of Chromium and reports it.
import { kernelSpeeds } from './kernel-work'

const scope = self as unknown as { postMessage: (m: unknown) => void }
scope.postMessage(kernelSpeeds(7))
