// Long: the machine, the model of a server and the random sequences belong together.
import fc from 'fast-check'
import { restMs, savingMachine } from './machine'
import {
  isAtRest,
  newSaving,
  standingOf,
  type Draft,
  type Revision,
  type SavingEffect,
  type SavingEvent,
  type SavingState,
} from './state'

/** Documents of these tests: every edit leaves a mark of its own, so that one that is lost is seen. */
type Marks = Readonly<Record<string, number>>
type Event = SavingEvent<Marks, string, Revision<Marks>>
type State = SavingState<Marks, string, Revision<Marks>>
type Effect = SavingEffect<Marks, string>

const same = (a: Marks, b: Marks): boolean =>
  Object.keys(a).length === Object.keys(b).length && Object.entries(a).every(([key, value]) => b[key] === value)
/** Three ways: what mine changed of the base, on top of theirs. */
function merge(base: Marks, mine: Marks, theirs: Marks): Marks {
  const out: Record<string, number> = { ...theirs }
  for (const key of new Set([...Object.keys(base), ...Object.keys(mine)]))
    if (mine[key] !== base[key]) {
      if (mine[key] === undefined) delete out[key]
      else out[key] = mine[key]
    }
  return out
}
const transition = savingMachine<Marks, string, Revision<Marks>>({ same, merge })

/** A server that keeps one shot: revisions that stand on each other, and a head. */
class Server {
  readonly revisions: {
    readonly id: string
    readonly parent: string | null
    readonly grade: Marks
    readonly byItself: boolean
  }[] = []
  head = ''
  tip = ''
  /** A shared look that this shot lacks is put on it right behind the next save. */
  lookComes = false
  constructor() {
    this.append({ start: 1 })
  }
  append(grade: Marks, byItself = false): void {
    const id = `r${this.revisions.length}`
    this.revisions.push({ id, parent: this.head || null, grade, byItself })
    this.head = this.tip = id
  }
  at(id: string): (typeof this.revisions)[number] {
    return this.revisions.find((r) => r.id === id)!
  }
  state(): Revision<Marks> {
    const { grade, parent, byItself } = this.at(this.head)
    return { headId: this.head, grade, canUndo: parent !== null, canRedo: this.tip !== this.head, byItself }
  }
  save(parentId: string, grade: Marks): boolean {
    if (parentId !== this.head) return false
    this.append(grade)
    if (this.lookComes) this.append({ ...grade, look: this.revisions.length })
    this.lookComes = false
    return true
  }
  undo(expectedId: string): boolean {
    const { parent } = this.at(this.head)
    if (expectedId !== this.head || parent === null) return false
    this.head = parent
    return true
  }
  has(grade: Marks): boolean {
    return this.revisions.some((r) => same(r.grade, grade))
  }
}

type Request = Extract<Effect, { do: 'save' | 'move' }>
/** A tab: its machine, its timer, and what it has under way. */
class Tab {
  state: State = newSaving()
  timer = false
  readonly sent: Request[] = []
  readonly answers: Event[] = []
  gesture: number | null = null
  constructor(
    readonly name: string,
    readonly drafts: Map<string, { readonly draft: Draft<Marks, string>; readonly edits: number }>,
    readonly server: Server,
  ) {}
  dispatch(event: Event): void {
    const { state, effects } = transition(this.state, event)
    this.state = state
    for (const effect of effects) this.run(effect)
  }
  private run(effect: Effect): void {
    switch (effect.do) {
      case 'wait':
        this.timer = true
        break
      case 'stop waiting':
        this.timer = false
        break
      case 'keep draft':
        this.drafts.set(this.name, { draft: effect.draft, edits: effect.edits })
        break
      case 'drop draft':
        if ((this.drafts.get(this.name)?.edits ?? Infinity) <= effect.edits) this.drafts.delete(this.name)
        break
      case 'save':
      case 'move':
        this.sent.push(effect)
        break
      case 'save on leaving':
        this.server.save(effect.body.parentId, effect.body.grade)
        break
      case 'find draft':
        break
    }
  }
  /** The server hears a request; its answer is under way. */
  deliver(request: Request): void {
    const { server } = this
    const done =
      request.do === 'save' ? server.save(request.body.parentId, request.body.grade) : server.undo(request.expectedId)
    this.answers.push(
      done
        ? { type: 'answered', id: request.id, revision: server.state() }
        : { type: 'clashed', id: request.id, newer: server.state(), message: 'changed elsewhere' },
    )
  }
  open(): void {
    this.dispatch({ type: 'opened', shotId: 'shot', revision: this.server.state() })
  }
}

class World {
  readonly server = new Server()
  readonly drafts = new Map<string, { readonly draft: Draft<Marks, string>; readonly edits: number }>()
  tabs: Tab[] = []
  edits = 0
  opened = 0
  /** Somebody chose their own state over a newer one. */
  overridden = false
  /** Marks that somebody chose to give up. */
  readonly givenUp = new Set<string>()
  constructor() {
    this.openTab()
    this.openTab()
  }
  openTab(): void {
    const tab = new Tab(`tab ${this.opened++}`, this.drafts, this.server)
    this.tabs.push(tab)
    tab.open()
    const alive = new Set(this.tabs.map((t) => t.name))
    const left = [...this.drafts].find(([name]) => !alive.has(name))
    if (!left) return
    tab.dispatch({ type: 'draft found', shotId: 'shot', draft: left[1].draft })
    this.drafts.delete(left[0])
  }
  edit(tab: Tab): void {
    const mark = `e${++this.edits}`
    const document = { ...tab.state.document, [mark]: this.edits }
    tab.dispatch({ type: 'edited', document, summary: mark })
  }
  giveUp(tab: Tab): void {
    const newer = tab.state.trouble?.kind === 'conflict' ? tab.state.trouble.newer.grade : {}
    for (const mark of Object.keys(tab.state.document ?? {})) if (!(mark in newer)) this.givenUp.add(mark)
    tab.dispatch({ type: 'take newer' })
  }
  /** What may happen next, told by a number. */
  happen(what: number, which: number): void {
    const tab = this.tabs[which % this.tabs.length]!
    const request = tab.sent[0]
    switch (what) {
      case 0:
      case 1:
      case 2:
        return this.edit(tab)
      case 3:
        tab.gesture = (tab.gesture ?? 0) + 1
        return tab.dispatch({ type: 'gesture began', gesture: tab.gesture })
      case 4:
        if (tab.gesture !== null) tab.dispatch({ type: 'gesture ended', gesture: tab.gesture })
        return
      case 5:
      case 6:
        if (!tab.timer) return
        tab.timer = false
        return tab.dispatch({ type: 'rested' })
      case 7:
      case 8:
        if (request) tab.deliver(tab.sent.shift()!)
        return
      case 9:
      case 10: {
        const answer = tab.answers.shift()
        return answer && tab.dispatch(answer)
      }
      case 11:
        // Answers in another order, or one that is lost: the page hears of no server.
        tab.answers.reverse()
        return
      case 12: {
        const lost = tab.answers.shift()
        if (lost && 'id' in lost) tab.dispatch({ type: 'failed', id: lost.id, again: true, message: 'away' })
        return
      }
      case 13: {
        const lost = tab.sent.shift()
        if (lost) tab.dispatch({ type: 'failed', id: lost.id, again: which % 5 > 0, message: 'away' })
        return
      }
      case 14:
        return tab.dispatch({ type: 'commit' })
      case 15:
        return tab.dispatch({ type: 'move', direction: 'undo' })
      case 16:
        // Another hand, or a linked shot, or the program by itself.
        return this.server.append(
          { ...this.server.state().grade, [`other${this.server.revisions.length}`]: 1 },
          which % 3 === 0,
        )
      case 17:
        this.server.lookComes = true
        return
      case 18:
        this.overridden ||= which % 2 === 1 && standingOf(tab.state) === 'conflict'
        return tab.dispatch({ type: which % 2 ? 'keep mine' : 'merge' })
      case 19:
        return which % 3 ? undefined : this.giveUp(tab)
      case 20:
        // The page goes, with or without its last words; what it sent may still arrive.
        if (which % 2) tab.dispatch({ type: 'leaving' })
        for (const sent of tab.sent) if (which % 3) tab.deliver(sent)
        this.tabs = this.tabs.filter((t) => t !== tab)
        return this.openTab()
      default:
        // The same shot is opened again, as by a way there and back.
        tab.dispatch({ type: 'commit' })
        if (isAtRest(tab.state) && standingOf(tab.state) === 'saved') tab.open()
    }
  }
  /** Everything that is under way arrives, everyone decides, and nobody edits. */
  settle(): void {
    for (let round = 0; round < 200; round++) {
      for (const tab of this.tabs) {
        if (tab.gesture !== null) tab.dispatch({ type: 'gesture ended', gesture: tab.gesture })
        while (tab.sent.length > 0) tab.deliver(tab.sent.shift()!)
        while (tab.answers.length > 0) tab.dispatch(tab.answers.shift()!)
        if (standingOf(tab.state) === 'conflict') tab.dispatch({ type: 'merge' })
        tab.dispatch({ type: 'commit' })
      }
      const quiet = this.tabs.every((t) => t.sent.length + t.answers.length === 0 && standingOf(t.state) === 'saved')
      if (!quiet) continue
      const alive = new Set(this.tabs.map((t) => t.name))
      if ([...this.drafts.keys()].every((name) => alive.has(name))) return
      // What a dead page left is taken up by the next one that opens the shot.
      this.openTab()
    }
    throw new Error('It never comes to rest.')
  }
  check(): void {
    for (const { name, state } of this.tabs) {
      if (state.document === null) continue
      const draft = this.drafts.get(name)?.draft.grade
      const safe =
        standingOf(state) === 'saved' ? this.server.has(state.document) : draft && same(draft, state.document)
      // Not an expectation of its own: it is asked half a million times.
      if (!safe) throw new Error(`${name} is ${standingOf(state)}: ${JSON.stringify({ state, draft })}`)
    }
  }
}

test('after 10,000 sequences of any kind, what is called saved is on the server and nothing is lost', () => {
  const happenings = fc.array(fc.tuple(fc.nat(21), fc.nat(60)), { minLength: 5, maxLength: 45 })
  fc.assert(
    fc.property(happenings, (list) => {
      const world = new World()
      for (const [what, which] of list) {
        world.happen(what, which)
        world.check()
      }
      world.settle()
      world.check()
      // Nobody's save takes away what the revision before it had: edits here only ever add.
      for (const { parent, grade } of world.overridden ? [] : world.server.revisions)
        for (const mark of Object.keys(parent === null ? {} : world.server.at(parent).grade))
          if (!(mark in grade)) throw new Error(`${mark} was taken away by another save.`)
      const kept = new Set(world.server.revisions.flatMap((r) => Object.keys(r.grade)))
      for (let n = 1; n <= world.edits; n++)
        if (!world.givenUp.has(`e${n}`)) expect([`e${n}`, kept.has(`e${n}`)]).toEqual([`e${n}`, true])
    }),
    { numRuns: 10_000 },
  )
})

const openedTab = (): { readonly tab: Tab; readonly server: Server } => {
  const server = new Server()
  const tab = new Tab('tab', new Map(), server)
  tab.open()
  return { tab, server }
}
const edit = (tab: Tab, mark: string): void =>
  tab.dispatch({ type: 'edited', document: { ...tab.state.document, [mark]: 1 }, summary: mark })

describe('one thing at a time', () => {
  test('nothing is sent while a hand is at work, and a gesture that ends twice ends once', () => {
    const { tab } = openedTab()
    tab.dispatch({ type: 'gesture began', gesture: 1 })
    edit(tab, 'a')
    expect(tab.timer).toBe(false)
    tab.dispatch({ type: 'gesture ended', gesture: 1 })
    expect(tab.timer).toBe(true)
    tab.dispatch({ type: 'gesture began', gesture: 2 })
    expect(tab.timer).toBe(false)
    tab.dispatch({ type: 'gesture ended', gesture: 1 })
    expect(tab.timer).toBe(false)
    tab.dispatch({ type: 'gesture ended', gesture: 2 })
    expect([tab.timer, restMs]).toEqual([true, 350])
  })

  test('opening a shot ends the gestures of the one before', () => {
    const { tab } = openedTab()
    tab.dispatch({ type: 'gesture began', gesture: 1 })
    tab.open()
    edit(tab, 'a')
    expect(tab.timer).toBe(true)
  })

  test('a revision that the server put behind a save is kept, and what was edited meanwhile goes on top', () => {
    const { tab, server } = openedTab()
    edit(tab, 'a')
    tab.dispatch({ type: 'commit' })
    edit(tab, 'b')
    server.lookComes = true
    tab.deliver(tab.sent.shift()!)
    tab.dispatch(tab.answers.shift()!)
    expect(tab.state.document).toMatchObject({ a: 1, b: 1, look: expect.any(Number) })
    tab.dispatch({ type: 'commit' })
    tab.deliver(tab.sent.shift()!)
    expect(server.state().grade).toMatchObject({ a: 1, b: 1, look: expect.any(Number) })
  })

  test('an edit made while an undo is under way is not thrown away with it', () => {
    const { tab, server } = openedTab()
    edit(tab, 'a')
    tab.dispatch({ type: 'move', direction: 'undo' })
    tab.deliver(tab.sent.shift()!)
    tab.dispatch(tab.answers.shift()!)
    expect(tab.sent[0]).toMatchObject({ do: 'move', direction: 'undo' })
    edit(tab, 'b')
    tab.deliver(tab.sent.shift()!)
    tab.dispatch(tab.answers.shift()!)
    expect(tab.state.document).toEqual({ start: 1, b: 1 })
    expect(standingOf(tab.state)).toBe('unsaved')
    expect(server.has({ start: 1, a: 1 })).toBe(true)
  })

  test('a late answer for a shot that was left changes nothing here, and puts its draft away', () => {
    const { tab, server } = openedTab()
    edit(tab, 'a')
    tab.dispatch({ type: 'commit' })
    tab.dispatch({ type: 'opened', shotId: 'other', revision: { ...server.state(), grade: { other: 1 } } })
    const before = tab.state.document
    tab.deliver(tab.sent.shift()!)
    tab.dispatch(tab.answers.shift()!)
    expect([tab.state.document, tab.state.shotId, tab.drafts.size]).toEqual([before, 'other', 0])
  })

  test('a save that is refused keeps its draft, and the next edit tries again', () => {
    const { tab } = openedTab()
    edit(tab, 'a')
    tab.dispatch({ type: 'commit' })
    tab.dispatch({ type: 'failed', id: tab.sent.shift()!.id, again: false, message: 'No.' })
    expect([standingOf(tab.state), tab.state.message, tab.drafts.size, tab.timer]).toEqual(['refused', 'No.', 1, false])
    edit(tab, 'b')
    expect([standingOf(tab.state), tab.timer]).toEqual(['unsaved', true])
  })

  test('it tries again later and later while the server is away', () => {
    const { tab } = openedTab()
    edit(tab, 'a')
    tab.dispatch({ type: 'commit' })
    const waits: number[] = []
    for (let i = 0; i < 6; i++) {
      const { state, effects } = transition(tab.state, {
        type: 'failed',
        id: tab.state.request!.id,
        again: true,
        message: 'away',
      })
      waits.push(...effects.flatMap((e) => (e.do === 'wait' ? [e.ms] : [])))
      tab.state = state
      tab.dispatch({ type: 'rested' })
    }
    expect(waits).toEqual([500, 1000, 2000, 4000, 8000, 8000])
  })

  test('what the program found by itself meanwhile and an edit are put together without a question', () => {
    const { tab, server } = openedTab()
    edit(tab, 'a')
    server.append({ start: 1, opening: 1 }, true)
    tab.dispatch({ type: 'commit' })
    tab.deliver(tab.sent.shift()!)
    tab.dispatch(tab.answers.shift()!)
    expect(standingOf(tab.state)).not.toBe('conflict')
    tab.deliver(tab.sent.shift()!)
    tab.dispatch(tab.answers.shift()!)
    expect([standingOf(tab.state), server.state().grade, tab.state.message]).toEqual([
      'saved',
      { start: 1, opening: 1, a: 1 },
      '',
    ])
  })

  test('where both changed the same, the hand is right', () => {
    const { tab, server } = openedTab()
    tab.dispatch({ type: 'edited', document: { start: 2 }, summary: 'start' })
    server.append({ start: 3 }, true)
    tab.dispatch({ type: 'commit' })
    for (let n = 0; n < 2; n++) {
      tab.deliver(tab.sent.shift()!)
      tab.dispatch(tab.answers.shift()!)
    }
    expect([standingOf(tab.state), server.state().grade]).toEqual(['saved', { start: 2 }])
  })

  test('a clash with the very same state is no clash', () => {
    const { tab, server } = openedTab()
    edit(tab, 'a')
    tab.dispatch({ type: 'commit' })
    const sent = tab.sent.shift()!
    tab.deliver(sent)
    tab.answers.length = 0
    tab.dispatch({ type: 'failed', id: sent.id, again: true, message: 'away' })
    tab.dispatch({ type: 'rested' })
    tab.deliver(tab.sent.shift()!)
    tab.dispatch(tab.answers.shift()!)
    expect([standingOf(tab.state), server.revisions.length]).toEqual(['saved', 2])
  })
})
