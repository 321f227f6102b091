import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import { answer, api } from '../src/api/client'
import { client } from '../src/save/client'
import { reached } from '../src/api/connection'
import { kept } from '../src/save/kept'
import { Saver } from '../src/save/Saver'
import { network } from './network'

interface Note {
  name: string
}

/** A server with one document: it takes what was made from the version that stands there, and each change once. */
function server() {
  const at = { value: { name: 'first' } as Note, version: 1, changes: new Map<string, number>() }
  let fate: 'answers' | 'nobody' | 'lost' = 'answers'
  network.asked = []
  network.answers = ({ path, method, headers, body }) => {
    if (fate === 'nobody') return 'nobody'
    if (path === '/api/health') return {}
    expect(method).toBe('PUT')
    const change = headers.get('Change-Id')!
    const base = Number(headers.get('If-Match')!.replaceAll('"', ''))
    if (!at.changes.has(change)) {
      if (base !== at.version)
        return { status: 412, json: { title: 'Changed elsewhere.', current: { ...at.value, version: at.version } } }
      if ((body as Note).name === '')
        return {
          status: 422,
          json: { title: 'Not taken.', errors: [{ pointer: '/name', detail: 'It is empty.', right: 'a name' }] },
        }
      if ((body as Note).name === 'huge') return { status: 507, json: { title: 'The disk is full.' } }
      at.value = body as Note
      at.version++
      at.changes.set(change, at.version)
    }
    return fate === 'lost' ? 'lost' : { json: { version: at.changes.get(change) } }
  }
  return { at, set: (next: typeof fate) => (fate = next) }
}

let made = 0
function saverOf(theirs: Note[] = []) {
  const id = `n${++made}`
  const saver = new Saver<Note>({
    kind: 'note',
    id,
    name: 'this note',
    version: 1,
    saved: { name: 'first' },
    send: (value, version, change) =>
      answer(
        api.PUT('/api/people/{id}', {
          params: { path: { id } },
          headers: { 'If-Match': `"${version}"`, 'Change-Id': change },
          body: value as never,
        }),
      ) as unknown as Promise<{ version: number }>,
    theirs: (current) => {
      const { version, ...value } = current as Note & { version: number }
      return { value, version }
    },
    onTheirs: ({ value }) => theirs.push(value),
  })
  return { saver, id, state: () => saver.store.getState().state }
}

const puts = () => network.asked.filter((a) => a.method === 'PUT')
const wait = (ms: number) => vi.advanceTimersByTimeAsync(ms)

beforeEach(() => {
  vi.useFakeTimers()
  localStorage.clear()
  client.mount()
  reached()
})
afterEach(() => {
  client.unmount()
  client.clear()
  vi.useRealTimers()
})

test('saves once, a while after the last change, and keeps the draft until it has arrived', async () => {
  const { at } = server()
  const { saver, id, state } = saverOf()
  for (const name of ['a', 'ab', 'abc']) {
    saver.put({ name })
    await wait(300)
  }
  expect(puts()).toHaveLength(0)
  expect(kept<{ value: Note }>('note', id)?.value).toEqual({ name: 'abc' })
  await wait(700)
  expect(puts().map((p) => p.body)).toEqual([{ name: 'abc' }])
  expect([state(), at.value.name, saver.base, kept('note', id)]).toEqual(['saved', 'abc', 2, null])
})

test('what is put back as it was is not sent', async () => {
  server()
  const { saver, id, state } = saverOf()
  saver.put({ name: 'other' })
  saver.put({ name: 'first' })
  await wait(2000)
  expect([puts().length, state(), kept('note', id)]).toEqual([0, 'saved', null])
})

test('what is typed while a change is on its way follows it, made from what came of it', async () => {
  const { at } = server()
  const { saver } = saverOf()
  const usual = network.answers
  network.answers = async (asked) => {
    await new Promise((resolve) => setTimeout(resolve, 500))
    return usual(asked)
  }
  saver.put({ name: 'one' })
  await wait(700)
  saver.put({ name: 'two' })
  await wait(3000)
  expect(puts().map((p) => [p.body, p.headers.get('If-Match')])).toEqual([
    [{ name: 'one' }, '"1"'],
    [{ name: 'two' }, '"2"'],
  ])
  expect(new Set(puts().map((p) => p.headers.get('Change-Id'))).size).toBe(2)
  expect(at.value.name).toBe('two')
})

test('a change whose answer was lost is sent again under its own id, and counts once', async () => {
  const { at, set } = server()
  const { saver, state } = saverOf()
  set('lost')
  saver.put({ name: 'mine' })
  await wait(700)
  expect([at.version, state()]).toEqual([2, 'waiting'])
  set('answers')
  await wait(10_000)
  expect([at.version, state(), saver.base]).toEqual([2, 'saved', 2])
  expect(new Set(puts().map((p) => p.headers.get('Change-Id'))).size).toBe(1)
})

test('more typed after a lost answer goes over what had arrived, without a question', async () => {
  const { at, set } = server()
  const { saver, state } = saverOf()
  set('lost')
  saver.put({ name: 'mine' })
  await wait(700)
  saver.put({ name: 'mine, and more' })
  set('answers')
  await wait(20_000)
  expect([state(), at.value.name]).toEqual(['saved', 'mine, and more'])
})

test('nobody there: it waits, says so, and arrives by itself', async () => {
  const { at, set } = server()
  const { saver, state } = saverOf()
  set('nobody')
  saver.put({ name: 'mine' })
  await wait(5000)
  expect([state(), at.version]).toEqual(['waiting', 1])
  set('answers')
  await wait(20_000)
  expect([state(), at.value.name]).toEqual(['saved', 'mine'])
})

test('mine over theirs: what stands there afterwards is mine, made from theirs', async () => {
  const { at } = server()
  const { saver, state } = saverOf()
  at.value = { name: 'theirs' }
  at.version = 5
  saver.put({ name: 'mine' })
  await wait(700)
  expect([state(), at.value.name]).toEqual(['conflict', 'theirs'])
  // What is typed during the question is not sent past it.
  saver.put({ name: 'mine, still' })
  await wait(5000)
  expect(at.value.name).toBe('theirs')
  const before = puts().length
  saver.keepMine()
  await wait(1000)
  expect([state(), at.value.name, at.version, saver.base]).toEqual(['saved', 'mine, still', 6, 6])
  // At once from what stood there, not by being refused a second time.
  const sent = puts().slice(before)
  expect(sent.map((p) => p.headers.get('If-Match'))).toEqual(['"5"'])
})

test('theirs over mine: it is shown, and mine is not sent any more', async () => {
  const { at } = server()
  const shown: Note[] = []
  const { saver, id, state } = saverOf(shown)
  at.value = { name: 'theirs' }
  at.version = 5
  saver.put({ name: 'mine' })
  await wait(700)
  saver.takeTheirs()
  await wait(5000)
  expect([state(), shown, at.value.name, saver.value, saver.base, kept('note', id)]).toEqual([
    'saved',
    [{ name: 'theirs' }],
    'theirs',
    { name: 'theirs' },
    5,
    null,
  ])
})

test('only something beside it was changed: it is sent again, without a question', async () => {
  const { at } = server()
  const { saver, state } = saverOf()
  at.version = 3
  saver.put({ name: 'mine' })
  await wait(5000)
  expect([state(), at.value.name, at.version]).toEqual(['saved', 'mine', 4])
})

test.each([
  ['', 'refused', 'It is empty. Should be: a name.'],
  ['huge', 'full', 'The disk is full.'],
])('%j is not taken: the state says so, and it can be given up', async (name, right, words) => {
  server()
  const shown: Note[] = []
  const { saver, state } = saverOf(shown)
  saver.put({ name })
  await wait(700)
  expect([state(), saver.store.getState().words]).toEqual([right, words])
  saver.discard()
  expect([state(), shown, saver.value]).toEqual(['saved', [{ name: 'first' }], { name: 'first' }])
})

test('a draft of a tab that is gone is sent under the id it had, from the version it was made from', async () => {
  const { at, set } = server()
  const { saver, id } = saverOf()
  set('lost')
  saver.put({ name: 'mine' })
  await wait(700)
  const draft = kept<never>('note', id)!
  client.clear()
  set('answers')
  const { saver: next, state } = saverOf()
  next.restore(draft)
  await wait(2000)
  expect([state(), at.version, next.base]).toEqual(['saved', 2, 2])
})

test('what somebody waits for: false while it cannot be saved, true once it is', async () => {
  const { set } = server()
  const { saver } = saverOf()
  expect(await saver.flush()).toBe(true)
  set('nobody')
  saver.put({ name: 'mine' })
  const failed = saver.flush()
  await wait(3000)
  expect(await failed).toBe(false)
  const settled = saver.settled()
  set('answers')
  await wait(20_000)
  expect((await settled).state).toBe('saved')
})
