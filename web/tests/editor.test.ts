import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import type { Booking, ClassView, Plan, Session } from '../src/api/client'
import { ClassEditor } from '../src/features/editor/ClassEditor'
import { keptSteps } from '../src/features/editor/undoSteps'
import { client } from '../src/save/client'
import { reached } from '../src/api/connection'
import type { Draft } from '../src/save/Saver'
import { kept } from '../src/save/kept'
import { network } from './network'

const block = (name: string) => ({ id: `b${name}`, name, phase: 'main' as const, format: 'talk' as const, seconds: 60 })
const planOf = (...names: string[]): Plan =>
  ({ format: 'halterion-class', version: 1, title: 'Class', slotMinutes: 30, blocks: names.map(block) }) as Plan
const booking: Booking = { startsAt: '2026-12-01T18:00', zone: 'UTC', headCount: 9, expected: [] }

/** A server with one class and one date of it. */
function server() {
  const at = {
    plan: planOf('A'),
    version: 1,
    session: { id: 's1', revision: 1, booking } as Session,
    there: true,
  }
  network.asked = []
  network.answers = ({ path, method, headers, body }) => {
    if (path === '/api/plans/look') return { lines: [] }
    if (!at.there) return 'nobody'
    if (path === '/api/health') return {}
    expect(method).toBe('PUT')
    const base = Number(headers.get('If-Match')!.replaceAll('"', ''))
    if (path.startsWith('/api/classes/')) {
      if (base !== at.version)
        return { status: 412, json: { title: 'Changed.', current: { plan: at.plan, version: at.version } } }
      at.plan = (body as { plan: Plan }).plan
      return { json: { version: ++at.version } }
    }
    if (base !== at.session.revision) return { status: 412, json: { title: 'Changed.', current: at.session } }
    at.session = { ...at.session, revision: at.session.revision + 1, booking: (body as { booking: Booking }).booking }
    return { json: at.session }
  }
  return at
}

const really = globalThis.setTimeout
let made = 0
function open(at: ReturnType<typeof server>, id = `c${++made}`) {
  const view = { id, plan: at.plan, version: at.version, evaluation: null, faults: [], sessions: [at.session] }
  return new ClassEditor(view as unknown as ClassView)
}

const names = (plan: Plan) => plan.blocks.map((b) => b.name).join(' ')
const now = (editor: ClassEditor) => names(editor.store.getState().now.plan)
const named = (editor: ClassEditor, label: string, ...to: string[]) =>
  editor.change(label, (state) => ({ ...state, plan: planOf(...to) }))
const wait = (ms: number) => vi.advanceTimersByTimeAsync(ms)

beforeEach(() => {
  vi.useFakeTimers()
  localStorage.clear()
  sessionStorage.clear()
  client.mount()
  reached()
})
afterEach(async () => {
  await wait(1000)
  client.unmount()
  client.clear()
  vi.useRealTimers()
})

test('each change is a step; those under one label in quick succession are one', async () => {
  const at = server()
  const editor = open(at)
  named(editor, 'name', 'A', 'B')
  await wait(200)
  named(editor, 'name', 'A', 'Bo')
  await wait(200)
  named(editor, 'add', 'A', 'Bo', 'C')
  await wait(2000)
  named(editor, 'add', 'A', 'Bo', 'C', 'D')
  const back = [now(editor)]
  while (editor.store.getState().past.length > 0) {
    editor.undo()
    back.push(now(editor))
  }
  expect(back).toEqual(['A Bo C D', 'A Bo C', 'A Bo', 'A'])
  editor.redo()
  editor.redo()
  expect(now(editor)).toBe('A Bo C')
  await wait(2000)
  expect(names(at.plan)).toBe('A Bo C')
})

test('what is removed or doubled with two quick presses comes back one by one', async () => {
  const editor = open(server())
  named(editor, 'start', 'A', 'B', 'C')
  await wait(2000)
  named(editor, 'remove', 'A', 'C')
  named(editor, 'remove', 'A')
  named(editor, 'double', 'A', 'A')
  named(editor, 'double', 'A', 'A', 'A')
  const back = []
  for (let i = 0; i < 4; i++) {
    editor.undo()
    back.push(now(editor))
  }
  expect(back).toEqual(['A A', 'A', 'A C', 'A B C'])
})

test('a new change forgets what could be done again', () => {
  const editor = open(server())
  named(editor, 'one', 'A', 'B')
  editor.undo()
  named(editor, 'two', 'A', 'C')
  editor.redo()
  expect([now(editor), editor.store.getState().future.length]).toEqual(['A C', 0])
})

test('a change that changes nothing is no step', () => {
  const editor = open(server())
  editor.change('nothing', (state) => state)
  expect(editor.store.getState().past).toHaveLength(0)
  editor.undo()
  editor.redo()
  expect(now(editor)).toBe('A')
})

test('what is new gets an id, and a walk-through loses what has gone', async () => {
  const at = server()
  const editor = open(at)
  const station = { dose: [{ kind: 'time', amount: 20 }], options: [{ tier: 'main', move: 'squat' }] }
  editor.change('add', (state) => ({
    ...state,
    plan: {
      ...planOf('A'),
      blocks: [
        { ...block('A'), show: [{ station: 'gone' }] },
        { name: 'Work', phase: 'main', stations: [station] },
      ],
    } as unknown as Plan,
  }))
  const [talk, work] = editor.store.getState().now.plan.blocks
  expect(talk!.show).toBeUndefined()
  expect([work!.id, work!.stations![0]!.id, work!.stations![0]!.options[0]!.id].every(Boolean)).toBe(true)
})

test('mine over theirs: what stands there is mine, and undo brings theirs back', async () => {
  const at = server()
  const editor = open(at)
  at.plan = planOf('A', 'Theirs')
  at.version = 4
  named(editor, 'mine', 'A', 'Mine')
  await wait(1000)
  expect(editor.planSaver.store.getState().state).toBe('conflict')
  editor.planSaver.keepMine()
  await wait(1000)
  expect([names(at.plan), at.version]).toEqual(['A Mine', 5])
  editor.undo()
  await wait(1000)
  expect([now(editor), names(at.plan)]).toEqual(['A Theirs', 'A Theirs'])
})

test('theirs over mine: it is on the screen, and undo brings mine back', async () => {
  const at = server()
  const editor = open(at)
  at.plan = planOf('A', 'Theirs')
  at.version = 4
  named(editor, 'mine', 'A', 'Mine')
  await wait(1000)
  editor.planSaver.takeTheirs()
  await wait(1000)
  expect([now(editor), names(at.plan), at.version]).toEqual(['A Theirs', 'A Theirs', 4])
  editor.undo()
  await wait(1000)
  expect([now(editor), names(at.plan)]).toEqual(['A Mine', 'A Mine'])
})

test('the desk books somebody while a time is typed: both are kept, without a question', async () => {
  const at = server()
  const editor = open(at)
  at.session = { ...at.session, revision: 2, booking: { ...booking, expected: ['ida'], headCount: 10 } }
  editor.change('time', (state) => ({
    ...state,
    bookings: { s1: { ...state.bookings.s1!, startsAt: '2026-12-01T19:30' } },
  }))
  await wait(2000)
  expect(at.session.booking).toEqual({ ...booking, startsAt: '2026-12-01T19:30', expected: ['ida'], headCount: 10 })
  expect(editor.store.getState().now.bookings.s1).toEqual(at.session.booking)
  // Undo takes the time back, not the person.
  editor.undo()
  await wait(2000)
  expect(at.session.booking).toEqual({ ...booking, expected: ['ida'], headCount: 10 })
})

test('two times for one date are a question', async () => {
  const at = server()
  const editor = open(at)
  at.session = { ...at.session, revision: 2, booking: { ...booking, startsAt: '2026-12-01T17:00' } }
  editor.change('time', (state) => ({
    ...state,
    bookings: { s1: { ...state.bookings.s1!, startsAt: '2026-12-01T19:30' } },
  }))
  await wait(2000)
  expect(editor.bookingSaver('s1')!.store.getState().state).toBe('conflict')
  expect(at.session.booking.startsAt).toBe('2026-12-01T17:00')
})

test('whoever the desk adds is followed in every step, and only where nothing is on its way here', async () => {
  const at = server()
  const editor = open(at)
  editor.change('heads', (state) => ({ ...state, bookings: { s1: { ...state.bookings.s1!, headCount: 12 } } }))
  await wait(2000)
  const theirs = { ...at.session, revision: 3, booking: { ...at.session.booking, expected: ['bo'], headCount: 13 } }
  expect(editor.isBehind('s1', 3)).toBe(true)
  editor.follow(theirs)
  expect(editor.store.getState().now.bookings.s1).toMatchObject({ expected: ['bo'], headCount: 13 })
  expect(editor.store.getState().past[0]!.bookings.s1).toMatchObject({ expected: ['bo'], headCount: 10 })
  // Older news, or news of nothing, changes nothing.
  editor.follow({ ...theirs, revision: 2, booking: { ...theirs.booking, headCount: 99 } })
  expect(editor.store.getState().now.bookings.s1!.headCount).toBe(13)
})

test('a reload goes on with undo, unless the class has become another one', async () => {
  const at = server()
  const editor = open(at, 'reloaded')
  named(editor, 'add', 'A', 'B')
  await wait(2000)
  expect(keptSteps('reloaded')?.past).toHaveLength(1)
  const again = open(at, 'reloaded')
  again.undo()
  expect(now(again)).toBe('A')
  at.plan = planOf('Z')
  expect(open(at, 'reloaded').store.getState().past).toHaveLength(0)
})

test('a draft of a tab that is gone is a step that can be undone, and is saved from what it was made of', async () => {
  const at = server()
  const first = open(at, 'left')
  at.there = false
  named(first, 'add', 'A', 'Left')
  await wait(1000)
  const draft = kept<Draft<Plan>>('class', 'left')!
  expect(names(draft.value)).toBe('A Left')
  sessionStorage.clear()
  client.clear()
  at.there = true
  reached()
  const next = open(at, 'left')
  next.restore(draft, [])
  await wait(2000)
  expect([now(next), names(at.plan)]).toEqual(['A Left', 'A Left'])
  next.undo()
  await wait(2000)
  expect(names(at.plan)).toBe('A')
})

test('a look that is asked for later ends the one before, and the version it is of goes with it', async () => {
  const at = server()
  const editor = open(at)
  const usual = network.answers
  let late: (answer: { lines: unknown[] }) => void = () => undefined
  network.answers = (asked) =>
    asked.path !== '/api/plans/look'
      ? usual(asked)
      : names((asked.body as { class: Plan }).class) === 'A B'
        ? new Promise((resolve) => (late = resolve))
        : { lines: [{ faults: [{ pointer: '/blocks', detail: 'new', right: '' }] }] }
  named(editor, 'one', 'A', 'B')
  await wait(50)
  named(editor, 'two', 'A', 'C')
  await wait(50)
  const faults = () => editor.looker.store.getState().faults.map((f) => f.detail)
  await vi.waitFor(() => expect(faults()).toEqual(['new']))
  late({ lines: [{ faults: [{ pointer: '/blocks', detail: 'old', right: '' }] }] })
  // A stream is read in the real time of the machine.
  await new Promise((resolve) => really(resolve, 100))
  expect(faults()).toEqual(['new'])
  const looks = network.asked.filter((a) => a.path === '/api/plans/look')
  expect(looks.map((a) => (a.body as { edit: number }).edit)).toEqual([1, 2])
})

test('a class without blocks has no faults, and nothing is asked', async () => {
  const at = server()
  const editor = open(at)
  editor.change('empty', (state) => ({ ...state, plan: planOf() }))
  await wait(500)
  expect(network.asked.some((a) => a.path === '/api/plans/look')).toBe(false)
  expect(editor.looker.store.getState().evaluation).toBeNull()
})
