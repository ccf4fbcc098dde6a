// Why a reading may well stay outside its standard: said only where the scene itself gives the reason.
import { printValue } from './kinds'
import type { Finding } from './reading'

/** A black surface in light lies about 2.5 stops under grey, in shade 4; darker than this, something is black. */
const darkestGreyStops = -4.5
/** A white surface lies 2.3 stops over grey. */
const whiteStops = 2.3

/**
 * A reason, in words, to leave what `outside` says as it is; empty where the findings give none and a person has to.
 *
 * @param findings all of the same frame through the same grade
 */
export function reasonToStay(
  outside: Finding & { readonly verdict: string | null },
  findings: readonly Finding[],
): string {
  const stops = (id: 'noBlack' | 'noWhite'): number => findings.find((f) => f.id === id)?.value ?? Number.NaN
  if (outside.id === 'black' && outside.verdict === 'high' && stops('noBlack') > darkestGreyStops)
    return `The darkest half percent lies ${printValue(-stops('noBlack'), 'stops')} stops under grey: dark, not black.`
  if (outside.id === 'white' && outside.verdict === 'low' && stops('noWhite') < whiteStops)
    return (
      `The brightest half percent lies ${printValue(stops('noWhite'), 'stops', true)} stops from grey: ` +
      'nothing is white.'
    )
  return ''
}
