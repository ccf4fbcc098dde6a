// pale lookup: from a data sheet's numbers to an encoding.
import { lookUpEncoding, lookupToleranceCodes, parseSheetValue } from '@core/measure'
import { textOf, type Command } from '../command'
import { choiceOption } from '../usage'

export const lookupCommand: Command = {
  name: 'lookup',
  summary: 'find an encoding by what a data sheet says of black, grey and white',
  usage: 'pale lookup [--black VALUE] [--grey VALUE] [--white VALUE] [--range full|legal] [--json]',
  notes: ['VALUE is 41.1%, 420/1023 (or /255, /4095), or 0.411. A percentage is a share of the given range.'],
  options: {
    black: { type: 'string' },
    grey: { type: 'string' },
    white: { type: 'string' },
    range: { type: 'string', default: 'full' },
  },
  run: async (values) => {
    const range = choiceOption(textOf(values, 'range') ?? 'full', 'range', ['full', 'legal'])
    const level = (option: string): number | undefined => {
      const text = textOf(values, option)
      return text === undefined ? undefined : parseSheetValue(text, range)
    }
    const black = level('black')
    const grey = level('grey')
    const white90 = level('white')
    const { matches, fitted } = lookUpEncoding({
      ...(black === undefined ? {} : { black }),
      ...(grey === undefined ? {} : { grey }),
      ...(white90 === undefined ? {} : { white90 }),
    })
    const best = matches.slice(0, 5)
    const lines = best.map(
      (m) =>
        `${m.errorCodes.toFixed(2).padStart(7)} codes  ${m.encoding.name}  ` +
        `(${m.encoding.id})${m.withinTolerance ? '  within tolerance' : ''}`,
    )
    if (!best[0]?.withinTolerance) lines.push(`No known encoding lies within ${lookupToleranceCodes} codes.`)
    if (fitted)
      lines.push(
        `Fitted: a ${fitted.a.toFixed(6)}, b ${fitted.b}, c ${fitted.c.toFixed(6)}, d ` +
          `${fitted.d.toFixed(6)}, e ${fitted.e?.toFixed(6)}, f ${fitted.f?.toFixed(6)}, cut ${fitted.cut}`,
      )
    return {
      json: {
        matches: best.map((m) => ({
          id: m.encoding.id,
          name: m.encoding.name,
          errorCodes: m.errorCodes,
          withinTolerance: m.withinTolerance,
        })),
        fitted,
      },
      text: lines.join('\n'),
    }
  },
}
