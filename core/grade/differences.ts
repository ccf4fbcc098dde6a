// What changed from one grade to another, in words and numbers; and two hands' changes put together.
import { printNumber } from '../numbers'
import { displayById, encodingById, gamutById } from '../colour'
import { encodingOf, stationOf } from './chain'
import { same } from './same'
import { lutTakesSide, type GradeDocument, type Keyframes, type ParameterValue, type Step } from './document'
import { showParameters } from './show'
import type { NumberParameter, Parameter } from './step-kind'
import type { Region } from '../regions'
import { stepKindById } from './steps'

export interface Difference {
  /** What it is about, in a form that two differences of the same thing share. */
  readonly key: string
  readonly words: string
}

/** A number as its control shows it. */
export function printParameter({ decimals, unit, shownFactor = 1, signed }: NumberParameter, value: number): string {
  const number = printNumber(value * shownFactor, decimals, signed)
  return unit ? `${number} ${unit}` : number
}

function printValueOf(parameter: Parameter | undefined, value: ParameterValue | undefined): string {
  if (parameter?.type === 'number' && typeof value === 'number') return printParameter(parameter, value)
  if (parameter?.type === 'choice') return parameter.options.find((o) => o.id === value)?.name ?? String(value)
  if (parameter?.type === 'lut') return typeof value === 'string' ? `LUT ${value.slice(0, 8)}` : 'none'
  if (Array.isArray(value)) return `${value.length} points`
  return value === undefined || value === null ? 'none' : String(value)
}

const percent = (v: number): string => `${Math.round(v * 100)} %`

/** Every difference, in the order of the Passage. Equal documents have none. */
export function differences(before: GradeDocument, after: GradeDocument): readonly Difference[] {
  const out: Difference[] = []
  const say = (key: string, words: string): void => {
    out.push({ key, words })
  }
  const change = (key: string, name: string, from: string, to: string): void => say(key, `${name} ${from} → ${to}`)
  const { read: a, show: c } = before
  const { read: b, show: d } = after
  if (a.encodingId !== b.encodingId || !same(a.own, b.own))
    change('read.encodingId', 'Encoding', encodingOf(a).name, encodingOf(b).name)
  if (a.gamutId !== b.gamutId)
    change('read.gamutId', 'Camera gamut', gamutById(a.gamutId).name, gamutById(b.gamutId).name)
  if (a.range !== b.range) change('read.range', 'Code range', a.range, b.range)
  if (a.method !== b.method || a.lutHash !== b.lutHash)
    change(
      'read.method',
      'Read by',
      a.lutHash ? `LUT ${a.lutHash.slice(0, 8)}` : a.method,
      b.lutHash ? `LUT ${b.lutHash.slice(0, 8)}` : b.method,
    )
  if (a.lutStrength !== b.lutStrength)
    change('read.lutStrength', 'Read by its LUT', percent(a.lutStrength), percent(b.lutStrength))
  for (const step of before.steps) {
    const now = after.steps.find((s) => s.id === step.id)
    if (now) stepDifferences(step, now, out, nameIn(before, step))
    else if (after.regions.some((r) => r.id === step.regionId) || step.regionId === undefined)
      say(`step.${step.id}`, `${nameIn(before, step)} removed`)
  }
  for (const step of after.steps)
    if (!before.steps.some((s) => s.id === step.id) && !isTool(before, step))
      say(`step.${step.id}`, `${nameIn(after, step)} added${settingsOf(step)}`)
  // Stations follow one another whatever the order of the list: only within one does it tell.
  const inBoth = (a: GradeDocument, b: GradeDocument): readonly string[] =>
    a.steps
      .filter((s) => b.steps.some((o) => o.id === s.id))
      .map((s) => ({ id: s.id, station: stationOf(s) }))
      .sort((s, o) => s.station.localeCompare(o.station))
      .map((s) => s.id)
  if (out.length === 0 && !same(inBoth(before, after), inBoth(after, before))) say('steps.order', 'Order of steps')
  for (const was of before.animation)
    if (
      !after.animation.some((m) => m.stepId === was.stepId && m.key === was.key) &&
      after.steps.some((s) => s.id === was.stepId)
    )
      say(`animation.${was.stepId}.${was.key}`, `${animatedName(after, was)} the same along the clip`)
  for (const keyframes of after.animation) {
    const was = before.animation.find((m) => m.stepId === keyframes.stepId && m.key === keyframes.key)
    if (!same(was, keyframes)) say(`animation.${keyframes.stepId}.${keyframes.key}`, animationWords(after, keyframes))
  }
  for (const region of before.regions) {
    const now = after.regions.find((r) => r.id === region.id)
    if (!now) say(`region.${region.id}`, `${region.name} removed`)
    else if (!same(region, now)) say(`region.${region.id}`, regionWords(region, now))
  }
  for (const region of after.regions)
    if (!before.regions.some((r) => r.id === region.id)) say(`region.${region.id}`, `${region.name} added`)
  if (c.displayId !== d.displayId)
    change('show.displayId', 'Display', displayById(c.displayId).name, displayById(d.displayId).name)
  if (c.method !== d.method || c.lutHash !== d.lutHash) change('show.method', 'Shown', c.method, d.method)
  if (c.lutTakes !== d.lutTakes)
    change('show.lutTakes', 'Shown by a LUT made for', takesName(c.lutTakes), takesName(d.lutTakes))
  if (c.lutStrength !== d.lutStrength)
    change('show.lutStrength', 'Shown by its LUT', percent(c.lutStrength), percent(d.lutStrength))
  if (c.gamutMethod !== d.gamutMethod) change('show.gamutMethod', 'Gamut', c.gamutMethod, d.gamutMethod)
  for (const [key, parameter] of Object.entries(showParameters)) {
    const from = c.params[key]
    const to = d.params[key]
    if (from !== to) change(`show.${key}`, parameter.label, printValueOf(parameter, from), printValueOf(parameter, to))
  }
  if (before.working !== after.working) change('working', 'Steps act on', before.working, after.working)
  return out
}

/** What became different about a region, the first that is. */
function regionWords(before: Region, after: Region): string {
  if (before.name !== after.name) return `${before.name} is now called ${after.name}`
  if (before.enabled !== after.enabled) return `${after.name} ${after.enabled ? 'on' : 'off'}`
  if (before.strength !== after.strength)
    return `${after.name}, strength ${percent(before.strength)} → ${percent(after.strength)}`
  if (before.components.length !== after.components.length)
    return `${after.name}: ${before.components.length} → ${after.components.length} components`
  const changed = after.components.filter((p, i) => !same(p, before.components[i]))
  const only = changed.length === 1 ? changed[0]?.source : undefined
  if (only?.kind === 'key') return `${after.name}: key`
  return `${after.name}: ${changed.length > 0 ? 'shape or edge' : 'turned inside out'}`
}

const takesName = (id: string): string => (id === lutTakesSide ? 'working log' : encodingById(id).name)
const animatedName = (grade: GradeDocument, { stepId, key }: Keyframes): string => {
  const step = grade.steps.find((s) => s.id === stepId)
  return step ? (stepKindById(step.kind).parameters[key]?.label ?? step.name) : key
}
/** "Exposure along the clip: +0.50 stops at frame 10, +1.50 stops at frame 30". */
export function animationWords(grade: GradeDocument, keyframes: Keyframes): string {
  const step = grade.steps.find((s) => s.id === keyframes.stepId)
  const parameter = step && stepKindById(step.kind).parameters[keyframes.key]
  const places = keyframes.keyframes.map(
    (m) => `${parameter ? printValueOf(parameter, m.value) : m.value} at frame ${m.frame}`,
  )
  const straight = keyframes.path === 'linear' ? ', straight' : ''
  return `${animatedName(grade, keyframes)} along the clip: ${places.join(', ')}${straight}`
}

/** A neutral step that came with its region. */
const isTool = (before: GradeDocument, step: Step): boolean =>
  step.regionId !== undefined &&
  !before.regions.some((r) => r.id === step.regionId) &&
  stepKindById(step.kind).isNeutral(step.params)

/** What a new step is set to, beyond the defaults. */
function settingsOf(step: Step): string {
  const set = Object.entries(stepKindById(step.kind).parameters)
    .filter(([key, p]) => !same(step.params[key], p.default))
    .map(([key, p]) => `${p.label.toLowerCase()} ${printValueOf(p, step.params[key])}`)
  return set.length > 0 ? `: ${set.join(', ')}` : ''
}

const nameIn = ({ regions }: GradeDocument, { name, regionId }: Step): string =>
  regionId === undefined ? name : `${regions.find((r) => r.id === regionId)?.name ?? 'Region'}, ${name.toLowerCase()}`

function stepDifferences(before: Step, after: Step, out: Difference[], name: string): void {
  const kind = stepKindById(after.kind)
  const { parameters } = kind
  const single = Object.keys(parameters).length === 1
  for (const [key, parameter] of Object.entries(parameters)) {
    if (same(before.params[key], after.params[key])) continue
    const label =
      single || parameter.label.startsWith(name) || (before.regionId === undefined && !kind.many)
        ? parameter.label
        : `${name}, ${parameter.label.toLowerCase()}`
    out.push({
      key: `step.${after.id}.${key}`,
      words: `${label} ${printValueOf(parameter, before.params[key])} → ${printValueOf(parameter, after.params[key])}`,
    })
  }
  if (before.enabled !== after.enabled)
    out.push({ key: `step.${after.id}.enabled`, words: `${name} ${after.enabled ? 'on' : 'off'}` })
  if (before.strength !== after.strength)
    out.push({
      key: `step.${after.id}.strength`,
      words: `${name}, strength ${percent(before.strength)} → ${percent(after.strength)}`,
    })
  if (before.side !== after.side)
    out.push({
      key: `step.${after.id}.side`,
      words: `${name} moved ${after.side === 'display' ? 'after' : 'before'} Show`,
    })
  if (before.name !== after.name)
    out.push({ key: `step.${after.id}.name`, words: `${before.name} is now called ${after.name}` })
}

/** The controls that do something, in the order of the steps, each with its value and unit. */
export function controlsInUse(grade: GradeDocument): readonly { readonly step: string; readonly words: string }[] {
  return grade.steps
    .filter((s) => s.enabled && s.strength > 0 && !stepKindById(s.kind).isNeutral(s.params))
    .flatMap((step) => {
      const name = nameIn(grade, step)
      const more = [
        step.strength < 1 ? `strength ${percent(step.strength)}` : '',
        step.side === 'display' ? 'after Show' : '',
      ]
        .filter(Boolean)
        .join(', ')
      return Object.entries(stepKindById(step.kind).parameters)
        .filter(([key, p]) => !same(step.params[key], p.default))
        .map(([key, p]) => ({
          step: more ? `${name} (${more})` : name,
          words: `${p.label} ${printValueOf(p, step.params[key])}`,
        }))
    })
}

export interface GradeMerge {
  /** Theirs with what was changed here put on top. */
  readonly grade: GradeDocument
  /** What both changed, each in its own way: ours stands. */
  readonly both: readonly string[]
}

/** Puts together what two hands made of one grade. */
export function mergeGrades(base: GradeDocument, ours: GradeDocument, theirs: GradeDocument): GradeMerge {
  const changedHere = differences(base, ours)
  const changedThere = new Set(differences(base, theirs).map((d) => d.key))
  const ourOwn = <T>(before: T, mine: T, other: T): T => (same(before, mine) ? other : mine)
  const stepOf = (grade: GradeDocument, id: string): Step | undefined => grade.steps.find((s) => s.id === id)
  const steps = theirs.steps.flatMap((other): Step[] => {
    const before = stepOf(base, other.id)
    const mine = stepOf(ours, other.id)
    if (!before) return [mine ?? other]
    // What was removed here goes.
    if (!mine) return []
    const params = Object.fromEntries(
      Object.keys(other.params).map((key) => [
        key,
        ourOwn<ParameterValue | undefined>(before.params[key], mine.params[key], other.params[key]) ?? null,
      ]),
    )
    return [
      {
        ...other,
        name: ourOwn(before.name, mine.name, other.name),
        enabled: ourOwn(before.enabled, mine.enabled, other.enabled),
        strength: ourOwn(before.strength, mine.strength, other.strength),
        side: ourOwn(before.side, mine.side, other.side),
        params,
      },
    ]
  })
  const added = ours.steps.filter((s) => !stepOf(base, s.id) && !stepOf(theirs, s.id))
  const regions = [
    ...theirs.regions.flatMap((other) => {
      const before = base.regions.find((r) => r.id === other.id)
      const mine = ours.regions.find((r) => r.id === other.id)
      if (!before) return [mine ?? other]
      if (mine) return [ourOwn(before, mine, other)]
      return []
    }),
    ...ours.regions.filter(
      (r) => !base.regions.some((b) => b.id === r.id) && !theirs.regions.some((t) => t.id === r.id),
    ),
  ]
  const kept = new Set(regions.map((r) => r.id))
  const whole = [...steps, ...added].filter((s) => s.regionId === undefined || kept.has(s.regionId))
  const keyframes = (of: GradeDocument, key: string): Keyframes | undefined =>
    of.animation.find((m) => `${m.stepId} ${m.key}` === key)
  const animation = [...new Set([...theirs.animation, ...ours.animation].map((m) => `${m.stepId} ${m.key}`))]
    .flatMap((key) => ourOwn(keyframes(base, key), keyframes(ours, key), keyframes(theirs, key)) ?? [])
    .filter((m) => whole.some((s) => s.id === m.stepId))
  const params = Object.fromEntries(
    Object.keys(theirs.show.params).map((k) => {
      const key = k
      return [key, ourOwn(base.show.params[key], ours.show.params[key], theirs.show.params[key])]
    }),
  ) as unknown as typeof base.show.params
  const show = {
    method: ourOwn(base.show.method, ours.show.method, theirs.show.method),
    displayId: ourOwn(base.show.displayId, ours.show.displayId, theirs.show.displayId),
    lutHash: ourOwn(base.show.lutHash, ours.show.lutHash, theirs.show.lutHash),
    lutTakes: ourOwn(base.show.lutTakes, ours.show.lutTakes, theirs.show.lutTakes),
    lutStrength: ourOwn(base.show.lutStrength, ours.show.lutStrength, theirs.show.lutStrength),
    gamutMethod: ourOwn(base.show.gamutMethod, ours.show.gamutMethod, theirs.show.gamutMethod),
    params,
  }
  // An encoding and what belongs to it go together.
  const grade: GradeDocument = {
    ...theirs,
    working: ourOwn(base.working, ours.working, theirs.working),
    read: ourOwn(base.read, ours.read, theirs.read),
    steps: whole,
    animation,
    regions,
    show,
  }
  return {
    grade,
    both: changedHere
      .filter((d) => changedThere.has(d.key) && !same(pick(ours, d.key), pick(theirs, d.key)))
      .map((d) => d.words),
  }
}

/** The value behind a key of a step's parameter; undefined for other keys, which then count as different. */
function pick(grade: GradeDocument, key: string): unknown {
  const [what, id, parameter] = key.split('.')
  if (what === 'step' && parameter) return grade.steps.find((s) => s.id === id)?.params[parameter]
  if (key === 'show.displayId') return grade.show.displayId
  return Symbol(key)
}
