// What a row of the aims shows.
import type { Aim, AimResult } from '@core/aims'

export interface AimRowFacts {
  readonly id: string
  readonly stage: string
  readonly aim: Aim | null
  readonly name: string
  readonly evidence: string
  readonly result: AimResult | null
  readonly unsure: boolean
}
