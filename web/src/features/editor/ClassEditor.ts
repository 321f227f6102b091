import type { StoreApi } from 'zustand'
import { createStore } from 'zustand'
import type { Booking, ClassView, Evaluation, Plan, Session } from '../../api/client'
import { answer, api, Refused } from '../../api/client'
import { withIds, withoutLost } from '../../plan/ids'
import { client } from '../../save/client'
import type { Draft as Kept } from '../../save/Saver'
import { Saver } from '../../save/Saver'
import { Looker } from './Looker'
import type { UndoSteps } from './undoSteps'
import { keepSteps, keptSteps } from './undoSteps'

/** A class and the bookings of its sessions, as one thing that is changed and undone together. */
export interface State {
  plan: Plan
  bookings: Record<string, Booking>
}

export interface Preview {
  plan: Plan
  evaluation: Evaluation
}

export interface EditorState {
  now: State
  past: State[]
  future: State[]
  /** A class that is looked at on the tape before it is taken. */
  preview: Preview | null
}

const JOIN_WITHIN = 900
const MOST_STEPS = 200

/** One class while it is open in this tab: undo, autosave, and what it adds up to. It stays when its screens are left. */
export class ClassEditor {
  readonly id: string
  readonly store: StoreApi<EditorState>
  readonly planSaver: Saver<Plan>
  private readonly bookingSavers = new Map<string, Saver<Booking>>()
  readonly looker: Looker
  private left: UndoSteps | null
  private last = { label: '', at: 0 }

  constructor(loaded: ClassView) {
    this.id = loaded.id
    const steps = keptSteps(loaded.id)
    const goesOn = steps !== null && same(steps.now.plan, loaded.plan)
    this.left = goesOn ? null : steps
    this.store = createStore<EditorState>(() => ({
      now: { plan: loaded.plan, bookings: {} },
      past: goesOn ? steps.past : [],
      future: goesOn ? steps.future : [],
      preview: null,
    }))
    this.planSaver = new Saver<Plan>({
      kind: 'class',
      name: 'This class',
      id: loaded.id,
      version: loaded.version,
      saved: loaded.plan,
      send: (plan, version, change) =>
        answer(
          api.PUT('/api/classes/{id}', {
            params: { path: { id: loaded.id } },
            headers: { 'If-Match': `"${version}"`, 'Change-Id': change },
            body: { plan },
          }),
        ),
      theirs: (current) => {
        const view = current as ClassView | null
        return view ? { value: view.plan, version: view.version } : null
      },
      onTheirs: ({ value }) => this.became({ ...this.store.getState().now, plan: value }),
      onMine: ({ value }) => this.besides({ ...this.store.getState().now, plan: value }),
      onSaved: refreshLists,
    })
    this.looker = new Looker(loaded.plan, loaded.evaluation ?? null, loaded.faults, () => ({
      plan: this.store.getState().now.plan,
      version: this.planSaver.base,
    }))
    this.sessions(loaded.sessions)
    // Undo outlives a reload of the page.
    this.store.subscribe((state) => keepSteps(loaded.id, state))
  }

  /** Takes in sessions that are new here. */
  sessions(all: Session[]) {
    const bookings = { ...this.store.getState().now.bookings }
    for (const session of all) {
      if (this.bookingSavers.has(session.id)) continue
      bookings[session.id] = session.booking
      this.bookingSavers.set(
        session.id,
        new Saver<Booking>({
          kind: 'session',
          name: 'This class date',
          id: session.id,
          version: session.revision,
          saved: session.booking,
          send: (booking, revision, change) => this.sendBooking(session.id, booking, revision, change),
          theirs: (current) => {
            const other = current as Session | null
            return other ? { value: other.booking, version: other.revision } : null
          },
          onTheirs: ({ value }) => this.became(this.with(session.id, value)),
          onMine: ({ value }) => this.besides(this.with(session.id, value)),
          onSaved: refreshLists,
        }),
      )
    }
    this.store.setState((s) => ({ now: { ...s.now, bookings } }))
  }

  /**
   * Saves a booking. Where the desk changed who comes in that very moment, both are kept: nobody has to choose between a time that
   * was typed and a person who has booked.
   */
  private async sendBooking(
    id: string,
    booking: Booking,
    revision: number,
    change: string,
  ): Promise<{ version: number }> {
    const put = (body: Booking, version: number, as = change) =>
      answer(
        api.PUT('/api/sessions/{id}', {
          params: { path: { id } },
          headers: { 'If-Match': `"${version}"`, 'Change-Id': as },
          body: { booking: body },
        }),
      )
    try {
      return { version: (await put(booking, revision)).revision }
    } catch (error) {
      const base = this.bookingSavers.get(id)?.arrived
      const theirs = error instanceof Refused && error.status === 412 ? (error.problem.current as Session) : null
      if (!theirs || !base || !differInPeopleOnly(base, theirs.booking)) throw error
      const saved = await put(withDifference(booking, base, theirs.booking), theirs.revision, crypto.randomUUID())
      this.spread(id, base, theirs.booking)
      this.save()
      return { version: saved.revision }
    }
  }

  bookingSaver(session: string): Saver<Booking> | undefined {
    return this.bookingSavers.get(session)
  }

  /** Drafts that an earlier tab left behind: a step that can be undone, saved against the version it was made from. */
  restore(plan: Kept<Plan> | undefined, bookings: { id: string; value: Kept<Booking> }[]) {
    if (plan) {
      // The steps that led to it are known, unless it is another tab's.
      if (this.left && same(this.left.now.plan, plan.value)) {
        const { past, future } = this.left
        this.store.setState((s) => ({ now: { ...s.now, plan: plan.value }, past, future }))
      } else this.step({ ...this.store.getState().now, plan: withIds(plan.value) })
      this.planSaver.restore({ ...plan, value: this.store.getState().now.plan })
    }
    for (const { id, value } of bookings) {
      const { now } = this.store.getState()
      this.step({ ...now, bookings: { ...now.bookings, [id]: value.value } })
      this.bookingSavers.get(id)?.restore(value)
    }
    this.looker.look()
  }

  /**
   * Changes the class; changes under one label in quick succession undo as one. What is added or taken away is an act of its own: two
   * stations removed with two quick presses come back one by one.
   */
  change = (label: string, next: (now: State) => State, evaluation?: Evaluation) => {
    const at = Date.now()
    const quick = this.last.label === label && at - this.last.at < JOIN_WITHIN
    this.last = { label, at }
    const { now } = this.store.getState()
    const changed = next(now)
    if (changed === now) return
    const joins = quick && placesIn(changed.plan) === placesIn(now.plan)
    const state = { ...changed, plan: withoutLost(withIds(changed.plan)) }
    this.step(state, joins)
    if (evaluation && state.plan === changed.plan) this.looker.take(state.plan, evaluation)
    this.save()
  }

  undo = () => {
    this.last = { label: '', at: 0 }
    this.store.setState((s) =>
      s.past.length === 0
        ? s
        : { now: s.past.at(-1)!, past: s.past.slice(0, -1), future: [s.now, ...s.future], preview: null },
    )
    this.save()
  }

  redo = () => {
    this.last = { label: '', at: 0 }
    this.store.setState((s) =>
      s.future.length === 0
        ? s
        : { now: s.future[0]!, past: [...s.past, s.now], future: s.future.slice(1), preview: null },
    )
    this.save()
  }

  setPreview = (preview: Preview | null) => this.store.setState({ preview })

  /** Saves what is not saved yet; false where that could not be done. */
  flush = async (): Promise<boolean> => {
    const all = await Promise.all([this.planSaver.flush(), ...[...this.bookingSavers.values()].map((s) => s.flush())])
    return all.every(Boolean)
  }

  private with(session: string, booking: Booking): State {
    const { now } = this.store.getState()
    return { ...now, bookings: { ...now.bookings, [session]: booking } }
  }

  /** What was changed elsewhere is taken, as a step that can be undone. */
  private became(state: State) {
    this.step(state)
    this.looker.look()
  }

  /** What was changed elsewhere gives way: undo brings it back. */
  private besides(theirs: State) {
    this.store.setState((s) => ({ past: [...s.past, theirs].slice(-MOST_STEPS), future: [] }))
  }

  /** What was once is the class again: saved already, and a step that can be undone. */
  restored(view: ClassView) {
    this.planSaver.at(view.plan, view.version)
    this.step({ ...this.store.getState().now, plan: view.plan })
    if (view.evaluation) this.looker.take(view.plan, view.evaluation)
    this.looker.look()
  }

  /** Whether a booking was changed elsewhere, and nothing of it here that is still on its way. */
  isBehind(session: string, revision: number): boolean {
    const saver = this.bookingSavers.get(session)
    return saver !== undefined && saver.base < revision && saver.store.getState().state === 'saved'
  }

  /** The desk changed who is expected: it counts for every step, so that undo here does not take somebody's booking away. */
  follow(theirs: Session) {
    const was = this.store.getState().now.bookings[theirs.id]
    if (!was || !this.isBehind(theirs.id, theirs.revision)) return
    this.bookingSavers.get(theirs.id)!.at(theirs.booking, theirs.revision)
    this.spread(theirs.id, was, theirs.booking)
  }

  /** What was changed in a booking elsewhere is so in every step. */
  private spread(id: string, was: Booking, is: Booking) {
    const on = (state: State): State => {
      const booking = state.bookings[id]
      return booking ? { ...state, bookings: { ...state.bookings, [id]: withDifference(booking, was, is) } } : state
    }
    this.store.setState((s) => ({ now: on(s.now), past: s.past.map(on), future: s.future.map(on) }))
  }

  /** Whether everything typed here has arrived, so that a fresh reading of the class may take this one's place. */
  get clean(): boolean {
    return this.planSaver.store.getState().state === 'saved'
  }

  private step(now: State, joins = false) {
    this.store.setState((s) => ({
      now,
      past: joins && s.past.length > 0 ? s.past : [...s.past, s.now].slice(-MOST_STEPS),
      future: [],
      preview: null,
    }))
  }

  private save() {
    const { plan, bookings } = this.store.getState().now
    this.planSaver.put(plan)
    for (const [id, saver] of this.bookingSavers) {
      if (bookings[id]) saver.put(bookings[id])
    }
    this.looker.look()
  }
}

/** A booking with what was changed between two others. */
function withDifference(booking: Booking, was: Booking, is: Booking): Booking {
  const [before, after] = [was.expected ?? [], is.expected ?? []]
  const kept = (booking.expected ?? []).filter((p) => !before.includes(p) || after.includes(p))
  const expected = [...kept, ...after.filter((p) => !before.includes(p) && !kept.includes(p))]
  const headCount = Math.max(expected.length, booking.headCount + is.headCount - was.headCount)
  const start = is.startsAt !== was.startsAt || is.zone !== was.zone ? is : booking
  return { ...booking, startsAt: start.startsAt, zone: start.zone, expected, headCount }
}

const differInPeopleOnly = (a: Booking, b: Booking) =>
  a.startsAt === b.startsAt && a.zone === b.zone && !same(a.expected ?? [], b.expected ?? [])

const refreshLists = () => {
  void client.invalidateQueries({ queryKey: ['classes'] })
  void client.invalidateQueries({ queryKey: ['sessions'] })
}

const open = new Map<string, { editor: ClassEditor; version: number }>()

/** The editor of a class: the one this tab has, with its undo, unless the class was changed elsewhere meanwhile. */
export function editorOf(loaded: ClassView): ClassEditor {
  const known = open.get(loaded.id)
  if (known && (!known.editor.clean || same(known.editor.store.getState().now.plan, loaded.plan))) {
    known.editor.sessions(loaded.sessions)
    return known.editor
  }
  const editor = new ClassEditor(loaded)
  open.set(loaded.id, { editor, version: loaded.version })
  return editor
}

/** Blocks, stations, options and parts. */
const placesIn = (plan: Plan) =>
  plan.blocks
    .flatMap((block) => block.stations ?? [])
    .reduce((sum, station) => sum + 1 + station.options.length + station.dose.length, plan.blocks.length)

const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b)
