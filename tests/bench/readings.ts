// Readings and casts, judged on photographs.
import { judgeCasts, judgeReadings } from '../guess/judge-readings'
import { judgingPhotographs, photographsAreThere } from '../guess/photographs'
import { smoke } from './effort'
import { median } from './median'

export function measureReadingsOnPhotographs(): readonly string[] {
  if (!photographsAreThere()) return ['The photographs are not installed (Debian package opencv-doc): not measured.']
  const names = smoke ? judgingPhotographs.slice(0, 1) : judgingPhotographs
  const { outside, named } = judgeReadings(smoke ? 1 : 6, names)
  const casts = judgeCasts(smoke ? 3 : 24, names)
  const percent = (part: number, of: number): string =>
    of === 0 ? 'none' : `${((100 * part) / of).toFixed(0)} % (${part} of ${of})`
  return [
    'readings outside in a finished photograph: ' +
      `median ${median(outside)} (bar 1), most ${Math.max(...outside)} (bar 3)`,
    'the one fault named first (bar 90 %):',
    ...named.map(({ name, first, of }) => `    ${name}: ${percent(first, of)}`),
    `casts judged: ${percent(casts.judged, casts.all)} (bar 50 %)`,
    `    within 8 mired and 3 Duv, the photograph taken for neutral: ${percent(casts.near, casts.judged)} (bar 95 %)`,
    `    within them of the photograph's own colour, the bound: ${percent(casts.nearItsOwn, casts.judged)}`,
    `    untouched and called wrong: ${percent(casts.untouchedCalledWrong, casts.untouched)} (bar 3 %)`,
  ]
}
