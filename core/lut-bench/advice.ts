// Where a LUT belongs in a grade, by what it was made for; and what is wrong with where it stands.
import { encodingById, encodings } from '../colour'
import { lutTakesSide, setParameter, setShow, setStep, type GradeDocument, type Step } from '../grade'
import type { Expectation } from './expects'

export interface LutPlace {
  /** show: it makes the display picture itself; look: it changes one that is there. */
  readonly place: 'show' | 'look'
  /** What it is given: the side as it is, or a camera's encoding. */
  readonly takes: string
  readonly sentence: string
}

const name = (id: string): string => (encodings.some((e) => e.id === id) ? encodingById(id).name : id)

/** The right place in this grade. */
export function placeFor(
  { kind, sources: [source], alike, certain }: Expectation,
  { read }: Pick<GradeDocument, 'read'>,
): LutPlace {
  if (kind === 'technical')
    return {
      place: 'look',
      takes: lutTakesSide,
      sentence: 'It only changes how a signal is written: Read and Show do that here, so it is seldom needed.',
    }
  if (kind === 'look' || !source)
    return { place: 'look', takes: lutTakesSide, sentence: 'A look: it takes the display picture, after Show.' }
  // Where several fit, this shot's own encoding is as good as any of them.
  const takes = alike.includes(read.encodingId) ? read.encodingId : source.encodingId
  const own = takes === read.encodingId
  const others = alike.filter((id) => id !== takes).map(name)
  let doubt = ''
  if (!certain) doubt = alike.length > 1 ? ` It could as well be for ${others.join(', ')}.` : ' That is not certain.'
  const converted = `this shot is ${name(read.encodingId)}: converted on the way in`
  return {
    place: 'show',
    takes,
    sentence:
      `Made for ${name(takes)}${own ? ', as this shot is' : `; ${converted}`}. ` +
      `It contains the conversion, so it stands in Show.${doubt}`,
  }
}

/** The grade with the LUT in its place. In Look it goes into the grade's own LUT step. */
export function placeLut(
  grade: GradeDocument,
  hash: string,
  { place, takes }: Pick<LutPlace, 'place' | 'takes'>,
): GradeDocument {
  if (place === 'show') return setShow(grade, { method: 'lut', lutHash: hash, lutTakes: takes })
  return ['lutHash', 'takes'].reduce(
    (g, key) => setParameter(g, 'lut', key, key === 'takes' ? takes : hash),
    setStep(grade, 'lut', { enabled: true, side: 'display' }),
  )
}

/** What is wrong with a LUT step, as a sentence; null where it is given what it expects. */
export function stepFault(
  { side, params }: Pick<Step, 'side' | 'params'>,
  { kind, certainty, sources: [source] }: Expectation,
): string | null {
  if (certainty < 0.8) return null
  if (kind === 'conversion' && source)
    return (
      `This LUT contains a conversion, made for ${name(source.encodingId)}. Here the picture is ` +
      'converted again: put it in Show instead.'
    )
  return side === 'scene' && params['takes'] === lutTakesSide
    ? 'This LUT expects a display picture. Here it is given working log: put it after Show.'
    : null
}

/** The same for a LUT in Show. */
export function showFault(
  { lutTakes }: Pick<GradeDocument['show'], 'lutTakes'>,
  { kind, certainty, alike, sources: [source] }: Expectation,
): string | null {
  if (certainty < 0.8) return null
  if (kind === 'technical')
    return 'This LUT only changes how a signal is written: it contains no conversion, and Show needs one.'
  if (kind === 'look')
    return 'This LUT is a look: it contains no conversion. Show needs one that does; put this one in Look, after Show.'
  if (!source || alike.includes(lutTakes) || source.encodingId === lutTakes) return null
  return (
    `This LUT was made for ${name(source.encodingId)}, and is given ` +
    `${lutTakes === lutTakesSide ? 'working log' : name(lutTakes)}.`
  )
}
