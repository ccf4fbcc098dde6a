// Evidence becomes choices: exposure first, then the rendering's shoulder, then the colour of the light.
import { controlOf, printControl, tidy, withControlsAt, type ControlId, type Move } from '../aims'
import { findCards } from '../cards'
import {
  addKeyframe,
  buildChain,
  gradeAt,
  sceneMaximumLimits,
  sceneMaximumOf,
  setParameterAt,
  setShowParameter,
  type GradeDocument,
} from '../grade'
import { clamp } from '../numbers'
import type { Area } from '../readings'
import {
  byCard,
  byGreys,
  byTones,
  isNothing,
  tonesOf,
  withControls,
  type BalanceQuestion,
  type Evidence,
} from './evidence'
import { eyeMeasures, smallForEye, worse } from './eye'
import { lookCast } from './look-cast'

export interface BalanceChoice {
  readonly id: 'evidence' | 'least' | 'brighter' | 'darker' | 'ramp' | 'card' | 'picture'
  readonly name: string
  readonly grade: GradeDocument
  readonly moves: readonly Move[]
  /** Exposure at frames of the clip, where no one value serves all of it. */
  readonly ramp?: readonly Mark[]
  readonly sentence: string
  readonly sure: boolean
}
interface Mark {
  readonly frame: number
  readonly value: number
}
export interface BalanceAnswer {
  /** One where it is sure, else up to three; the first is the one that is advised. */
  readonly choices: readonly BalanceChoice[]
  /** What it rests on, or what was found to be withdrawn. */
  readonly note: string
}

/** How much brighter or darker a reading is that is offered beside the advised one. */
const besideStops = 2 / 3
const none: Evidence = { values: {}, sentence: '', sure: false }

/** With a look behind, it also says whose the cast is, and offers the balance that makes the picture neutral. */
export function balance(question: BalanceQuestion): BalanceAnswer {
  const answer = byLight(question)
  const cast = lookCast(question)
  if (!cast) return answer
  const picture = choiceOf(question, 'picture', 'Picture neutral', cast.neutral, cast.sentence, false)
  const [advised, ...others] = answer.choices
  const offered = picture.moves.length > 0 && !eyeOf(question)(picture) ? [picture] : []
  return { choices: [...(advised ? [advised] : []), ...offered, ...others], note: `${answer.note} ${cast.sentence}` }
}

function byLight(question: BalanceQuestion): BalanceAnswer {
  const { grade } = question
  const objectionTo = eyeOf(question)
  const exposed = byCard(question) ?? byTones(tonesOf(question)) ?? none
  const exposure = exposed.values.exposure ?? controlOf(grade, 'exposure')?.value ?? 0
  const white = exposed.values.temperature === undefined ? byGreys(question, exposure) : null
  const found: Evidence = {
    values: { ...exposed.values, ...white?.values },
    sentence: [exposed.sentence, white?.sentence ?? ''].filter((s) => s !== '').join(' '),
    sure: exposed === none ? white?.sure === true : exposed.sure,
  }
  const least = choiceOf(question, 'least', 'As it is', {}, 'Nothing is changed.', false)
  const evidence = isNothing(found, grade)
    ? null
    : kept(question, objectionTo, found, (values) =>
        choiceOf(question, 'evidence', 'By the evidence', values, found.sentence, found.sure),
      )
  if (evidence && 'withdrawn' in evidence)
    return {
      choices: evidence.ramp ? [evidence.ramp, least] : [least],
      note: evidence.ramp?.sentence ?? evidence.withdrawn,
    }
  if (found.sure && exposed.sure)
    return evidence
      ? { choices: [evidence], note: found.sentence }
      : { choices: [least], note: `${found.sentence} Nothing is needed.` }
  const advised = evidence ?? least
  const base = { ...(evidence ? found.values : {}) }
  const beside = (id: 'brighter' | 'darker', stops: number): readonly BalanceChoice[] => {
    const made = choiceOf(
      question,
      id,
      id === 'brighter' ? 'Brighter' : 'Darker',
      { ...base, exposure: exposure + stops },
      `${id === 'brighter' ? 'Two thirds of a stop more' : 'Two thirds of a stop less'}, if the scene was meant so.`,
      false,
    )
    return objectionTo(made) ? [] : [made]
  }
  return {
    choices: [advised, ...beside('brighter', besideStops), ...beside('darker', -besideStops)],
    note:
      found.sentence === ''
        ? 'No card and no grey that is sure: exposure and balance are left, as the camera was probably right.'
        : found.sentence,
  }
}

export interface CardChoice extends BalanceChoice {
  /** Inside the grey of the card that was found. */
  readonly area: Area
}
/**
 * A choice by a grey card that is seen in the picture though nobody pointed at it: offered beside the others, never
 * advised. Null where there is none, or one that is right already.
 */
export function byFoundCard(question: BalanceQuestion): CardChoice | null {
  const { grade, frame, lut, pointed } = question
  if (pointed.card) return null
  const [found] = findCards({ source: frame, chain: buildChain(grade, lut) })
  const evidence = found && byCard({ ...question, pointed: { ...pointed, card: found.area } })
  if (!found || !evidence || isNothing(evidence, grade)) return null
  const sentence = `What looks like a grey card was found ${placeWords(found.area)}. ${evidence.sentence}`
  const choice = choiceOf(question, 'card', 'By a card', evidence.values, sentence, false)
  return { ...choice, area: found.area }
}
function placeWords({ left, right, top, bottom }: Area): string {
  const third = (low: number, high: number, names: readonly [string, string]): string => {
    const at = (low + high) / 2
    if (at < 1 / 3) return names[0]
    return at > 2 / 3 ? names[1] : ''
  }
  const words = [third(top, bottom, ['top', 'bottom']), third(left, right, ['left', 'right'])].filter((w) => w !== '')
  return words.length > 0 ? `at the ${words.join(' ')}` : 'in the middle'
}

/** A choice on a document whose controls may change along the clip: what it was made for is what `frame` shows. */
export function applyChoice(
  document: GradeDocument,
  { moves, ramp, grade: { show } }: Pick<BalanceChoice, 'moves' | 'ramp' | 'grade'>,
  frame: number,
): GradeDocument {
  const moved = withControlsAt(document, moves, frame)
  return setShowParameter(ramp ? withRamp(moved, ramp) : moved, 'sceneMaximumStops', show.params.sceneMaximumStops)
}

function withRamp(document: GradeDocument, ramp: readonly Mark[]): GradeDocument {
  const exposure = controlOf(document, 'exposure')
  if (!exposure) return document
  const { stepId, key, parameter } = exposure
  const marked = ramp.reduce((next, { frame }) => addKeyframe(next, stepId, key, frame), document)
  return ramp.reduce((next, { frame, value }) => setParameterAt(next, stepId, key, value, frame, parameter), marked)
}

/** What the eye has against a choice, on the frame it was made for and on the clip's other moments. */
interface Objection {
  readonly words: string
  /** False where only other moments object. */
  readonly here: boolean
}
type Eye = (choice: BalanceChoice) => Objection | null

function eyeOf({ grade, frame, lut, clip }: BalanceQuestion): Eye {
  const small = smallForEye(frame)
  const before = eyeMeasures(grade, small, lut)
  const moments = (clip?.moments ?? []).map(({ index, frame: whole }) => {
    const there = smallForEye(whole)
    return { index, frame: there, before: eyeMeasures(gradeAt(clip?.document ?? grade, index), there, lut) }
  })
  return (choice) => {
    const words = worse(before, eyeMeasures(choice.grade, small, lut))
    if (words !== '' || !clip) return words === '' ? null : { words, here: true }
    const after = applyChoice(clip.document, choice, clip.index)
    for (const moment of moments) {
      const there = worse(moment.before, eyeMeasures(gradeAt(after, moment.index), moment.frame, lut))
      if (there !== '') return { words: `at frame ${moment.index} ${there}`, here: false }
    }
    return null
  }
}

/** What the eye objects to is tried with half the exposure, twice; then along the clip; then it is withdrawn. */
function kept(
  question: BalanceQuestion,
  objectionTo: Eye,
  { values, sure }: Evidence,
  make: (values: Evidence['values']) => BalanceChoice,
): BalanceChoice | { readonly withdrawn: string; readonly ramp: BalanceChoice | null } {
  const now = controlOf(question.grade, 'exposure')?.value ?? 0
  const first = make(values)
  const objection = objectionTo(first)
  if (!objection) return first
  if (sure && objection.here) return { ...first, sentence: `${first.sentence} Its price: ${objection.words}.` }
  if (!objection.here) {
    const ramp = rampOf(question, first)
    if (ramp && !objectionTo(ramp)) return { withdrawn: objection.words, ramp }
  }
  for (const share of [1 / 2, 1 / 4]) {
    const choice = make({ ...values, exposure: now + ((values.exposure ?? now) - now) * share })
    if (!objectionTo(choice)) return choice
  }
  if (sure) return { ...first, sentence: `${first.sentence} Its price: ${objection.words}.` }
  return { withdrawn: `A proposal was withdrawn: ${objection.words}.`, ramp: null }
}

/** The choice on its own frame, and at each other moment as much of its exposure as the eye allows there. */
function rampOf({ grade, lut, clip }: BalanceQuestion, choice: BalanceChoice): BalanceChoice | null {
  const from = controlOf(grade, 'exposure')?.value ?? 0
  const to = controlOf(choice.grade, 'exposure')?.value ?? from
  if (!clip || to === from) return null
  const full = applyChoice(clip.document, choice, clip.index)
  const marks = clip.moments.map(({ index, frame: whole }): Mark => {
    const frame = smallForEye(whole)
    const before = eyeMeasures(gradeAt(clip.document, index), frame, lut)
    const there = gradeAt(full, index)
    const most = controlOf(there, 'exposure')?.value ?? to
    const value =
      [1, 3 / 4, 1 / 2, 1 / 4, 0]
        .map((share) => most - (to - from) * (1 - share))
        .find((v) => worse(before, eyeMeasures(withControls(there, { exposure: v }), frame, lut)) === '') ??
      most - (to - from)
    return { frame: index, value: Math.round(value * 100) / 100 }
  })
  const ramp = [{ frame: clip.index, value: to }, ...marks].sort((a, b) => a.frame - b.frame)
  const said = ramp.map(({ frame, value }) => `${value < 0 ? '−' : '+'}${Math.abs(value).toFixed(2)} at ${frame}`)
  return {
    ...choice,
    id: 'ramp',
    name: 'Along the clip',
    ramp,
    sure: false,
    sentence: `No one exposure serves the whole clip: stops ${said.join(', ')}.`,
  }
}

function choiceOf(
  { grade }: BalanceQuestion,
  id: BalanceChoice['id'],
  name: string,
  values: Evidence['values'],
  sentence: string,
  sure: boolean,
): BalanceChoice {
  const neat = Object.fromEntries(
    Object.entries(values).flatMap(([control, value]) => {
      const found = controlOf(grade, control as ControlId)
      return found ? [[control, tidy(found, value)]] : []
    }),
  )
  const balanced = withShoulder(withControls(grade, neat), neat['exposure'])
  const moves = Object.entries(neat).flatMap(([control, to]): Move[] => {
    const found = controlOf(grade, control as ControlId)
    if (!found || found.value === to) return []
    const words = `${found.parameter.label} ${printControl(found, found.value)} → ${printControl(found, to)}`
    return [{ control: found.id, label: found.parameter.label, from: found.value, to, words }]
  })
  return { id, name, grade: balanced, moves, sentence, sure }
}

/** The shoulder ends at the clip's brightest light, brighter or darker by what exposure makes of it. */
function withShoulder(grade: GradeDocument, exposure = 0): GradeDocument {
  const maximum = sceneMaximumOf(grade.read)
  if (maximum === null || grade.show.method !== 'rendered') return grade
  const { least, most } = sceneMaximumLimits
  return setShowParameter(grade, 'sceneMaximumStops', clamp(Math.round((maximum + exposure) * 10) / 10, least, most))
}
