// The working space (scene-linear AP1), and its log.
import { gamutById, luminanceWeights } from './gamuts'
import { acesCct } from './standard-curves'

export const workingGamut = gamutById('ap1')
export const workingLuminance = luminanceWeights(workingGamut)

/** Scene-linear value of middle grey. */
export const middleGrey = 0.18
/** One stop in working log. */
export const logPerStop = 1 / 17.52
const zeroLog = acesCct.encode(0)

/**
 * Scene-linear → working log: ACEScct, continued below zero light as its own mirror image, so that strongly negative
 * components stay near instead of running far down the straight toe. Equal to ACEScct from −0.0078 up; odd about zero;
 * C1.
 */
export function toWorkingLog(linear: number): number {
  return linear >= 0 ? acesCct.encode(linear) : 2 * zeroLog - acesCct.encode(-linear)
}
export function fromWorkingLog(log: number): number {
  return log >= zeroLog ? acesCct.decode(log) : -acesCct.decode(2 * zeroLog - log)
}

/** Middle grey in working log: 0.413588. */
export const middleGreyLog = acesCct.encode(middleGrey)

/** Working log of a value that lies `stops` over middle grey, and the reverse. */
export const logAtStops = (stops: number): number => middleGreyLog + stops * logPerStop
export const stopsAtLog = (log: number): number => (log - middleGreyLog) / logPerStop
