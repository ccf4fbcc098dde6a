// The channels of a tone curve: one for all, and one for each.
import type { CurvePoint, Step } from '@core/grade'
import { text } from '../text'

const toneChannels = ['points', 'red', 'green', 'blue'] as const
export type ToneChannel = (typeof toneChannels)[number]

/** The channels to choose from; those whose points do anything are marked. */
export const toneChannelChoices = (
  step: Step | null,
): readonly { readonly value: ToneChannel; readonly name: string; readonly changed: boolean }[] =>
  toneChannels.map((value) => ({
    value,
    name: text.curve.channels[value],
    changed: ((step?.params[value] ?? []) as readonly CurvePoint[]).some(({ x, y }) => x !== y),
  }))
