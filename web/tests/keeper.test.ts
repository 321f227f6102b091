import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import type { Command, CommandKind } from '../src/leading/core/fold'
import { LeadKeeper } from '../src/leading/LeadKeeper'
import { steadyNow } from '../src/leading/steady'
import { client } from '../src/save/client'
import { reached } from '../src/api/connection'
import { shared } from '../src/save/kept'
import { network } from './network'

/** What a screen hears of the server, as a test says it. */
class Stream {
  static last: Stream
  private readonly hear = new Map<string, (event: { data: string }) => void>()
  constructor(readonly url: string) {
    Stream.last = this
  }
  addEventListener(name: string, act: (event: { data: string }) => void) {
    this.hear.set(name, act)
  }
  close() {}
  say(name: string, news: object) {
    this.hear.get(name)!({ data: JSON.stringify(news) })
  }
}

const ZERO = 1_800_000_000_000
const script = { title: 'Class', scenes: [{ end: 10 }, { end: 60 }], cards: [], cues: [], calls: [] }

/** A server that leads one class, as the real one answers: a tap counts once, and whoever knows too little is told. */
function server() {
  const at = { commands: [] as Command[], there: true, loses: false, opened: 0 }
  network.asked = []
  network.answers = ({ method, path, body }) => {
    if (!at.there) return 'nobody'
    if (path === '/api/health') return {}
    if (path === '/api/wall/time') return { json: { now: Date.now() } }
    if (path === '/api/sessions/s/lead' && method === 'POST') {
      at.opened++
      return { json: { id: 'lead1', sessionId: 's', classId: 'c', script, commands: at.commands, now: Date.now() } }
    }
    const { expected, commands } = body as { expected: number; commands: Command[] }
    if (commands.some((c) => c.kind === 'finish' && c.payload?.text === 'refuse'))
      return { status: 400, json: { title: 'No.' } }
    const known = commands.every((c) => at.commands.some((k) => k.id === c.id))
    if (!known && expected !== at.commands.length)
      return { status: 409, json: { title: 'Meanwhile.', commands: at.commands } }
    if (!known) at.commands = [...at.commands, ...commands]
    return at.loses ? 'lost' : { json: { commands: at.commands } }
  }
  return at
}

const theirs = (kind: CommandKind, at: number): Command => ({ id: `their ${kind} ${at}`, kind, at, device: 'phone' })
const held = (keeper: LeadKeeper) => keeper.store.getState().held!
const kinds = (commands: Command[]) => commands.map((c) => c.kind).join(' ')
const wait = (ms: number) => vi.advanceTimersByTimeAsync(ms)

async function begin() {
  const at = server()
  const keeper = new LeadKeeper('s')
  keeper.start()
  await wait(10)
  return { at, keeper }
}

beforeEach(() => {
  vi.useFakeTimers({ now: ZERO })
  vi.stubGlobal('EventSource', Stream)
  localStorage.clear()
  client.mount()
  reached()
})
afterEach(() => {
  client.unmount()
  client.clear()
  vi.useRealTimers()
})

test('a tap is here at once, then with the server, once', async () => {
  const { at, keeper } = await begin()
  keeper.send('start')
  expect(kinds(held(keeper).unsent)).toBe('start')
  await wait(100)
  expect([kinds(at.commands), held(keeper).unsent.length, kinds(held(keeper).lead.commands as Command[])]).toEqual([
    'start',
    0,
    'start',
  ])
  keeper.stop()
})

test('a tap whose answer was lost counts once', async () => {
  const { at, keeper } = await begin()
  at.loses = true
  keeper.send('start')
  await wait(300)
  at.loses = false
  await wait(20_000)
  expect([kinds(at.commands), held(keeper).unsent.length]).toEqual(['start', 0])
  keeper.stop()
})

test('without the server all taps are kept, in order, and arrive when it is back', async () => {
  const { at, keeper } = await begin()
  keeper.send('start')
  await wait(100)
  at.there = false
  for (const kind of ['pause', 'resume', 'skip'] as const) {
    keeper.send(kind)
    await wait(1000)
  }
  await wait(5000)
  expect(keeper.store.getState().connected).toBe(false)
  expect(kinds(held(keeper).unsent)).toBe('pause resume skip')
  at.there = true
  await wait(20_000)
  expect(kinds(at.commands)).toBe('start pause resume skip')
  expect(at.commands.map((c) => c.at - ZERO)).toEqual(at.commands.map((c) => c.at - ZERO).sort((a, b) => a - b))
  keeper.stop()
})

test('what another screen did in the same moment comes first, and ours follows', async () => {
  const { at, keeper } = await begin()
  at.commands = [theirs('start', ZERO)]
  keeper.send('pause')
  await wait(500)
  expect([kinds(at.commands), keeper.store.getState().asked]).toEqual(['start pause', null])
  keeper.stop()
})

test.each([
  [true, 'start skip pause'],
  [false, 'start skip'],
])('an old tap over which another screen led waits for a word: %s', async (send, right) => {
  const { at, keeper } = await begin()
  keeper.send('start')
  await wait(100)
  at.there = false
  keeper.send('pause')
  await wait(10_000)
  at.commands = [...at.commands, theirs('skip', steadyNow())]
  at.there = true
  await wait(15_000)
  expect(keeper.store.getState().asked?.map((c) => c.kind)).toEqual(['pause'])
  expect(kinds(at.commands)).toBe('start skip')
  keeper.answerAsked(send)
  await wait(1000)
  expect([kinds(at.commands), held(keeper).unsent.length]).toEqual([right, 0])
  keeper.stop()
})

test('a tap that is refused is given up, and said', async () => {
  const { at, keeper } = await begin()
  keeper.send('finish', { text: 'refuse' })
  await wait(500)
  expect([at.commands.length, held(keeper).unsent.length, keeper.store.getState().trouble]).toEqual([0, 0, 'No.'])
  keeper.stop()
})

test('what other screens tap is heard; an older list never takes the place of a newer one', async () => {
  const { keeper } = await begin()
  const list = [theirs('start', ZERO), theirs('pause', ZERO + 1000)]
  Stream.last.say('lead', { lead: 'lead1', now: Date.now(), commands: list })
  expect(kinds(held(keeper).lead.commands as Command[])).toBe('start pause')
  Stream.last.say('lead', { lead: 'lead1', now: Date.now(), commands: list.slice(0, 1) })
  expect(kinds(held(keeper).lead.commands as Command[])).toBe('start pause')
  keeper.stop()
})

test('silence is told from a server that speaks', async () => {
  const { keeper } = await begin()
  for (let i = 0; i < 5; i++) {
    await wait(2000)
    Stream.last.say('beat', { now: Date.now() })
  }
  expect(keeper.store.getState().connected).toBe(true)
  await wait(5000)
  expect(keeper.store.getState().connected).toBe(false)
  Stream.last.say('beat', { now: Date.now() })
  expect(keeper.store.getState().connected).toBe(true)
  keeper.stop()
})

test('a reload without the server brings back the class, its taps, and the time that has passed meanwhile', async () => {
  const { at, keeper } = await begin()
  keeper.send('start')
  await wait(100)
  at.there = false
  keeper.send('pause')
  await wait(100)
  const noted = steadyNow()
  keeper.tick()
  keeper.stop()
  // Twelve seconds until the page is there again.
  vi.setSystemTime(Date.now() + 12_000)
  vi.stubGlobal('navigator', { ...navigator, locks: { query: () => Promise.resolve({ held: [] }) } })
  const next = new LeadKeeper('s')
  next.start()
  await wait(10)
  expect(kinds(held(next).lead.commands as Command[])).toBe('start')
  expect(steadyNow() - noted).toBeGreaterThanOrEqual(12_000)
  expect(steadyNow() - noted).toBeLessThan(12_100)
  next.stop()
})

test('a wall clock that was set back since the last note is passed over', async () => {
  const { at, keeper } = await begin()
  keeper.send('start')
  await wait(100)
  const noted = steadyNow()
  keeper.tick()
  keeper.stop()
  at.there = false
  vi.setSystemTime(Date.now() - 600_000)
  const next = new LeadKeeper('s')
  next.start()
  await wait(10)
  expect(steadyNow() - noted).toBeGreaterThanOrEqual(0)
  expect(steadyNow() - noted).toBeLessThan(100)
  next.stop()
})

test('a machine that slept is told the time, and says for how long it slept', async () => {
  const { keeper } = await begin()
  await wait(1000)
  const before = steadyNow()
  vi.setSystemTime(Date.now() + 600_000)
  await wait(1000)
  expect(steadyNow() - before).toBeGreaterThan(599_000)
  expect(Math.round(keeper.store.getState().slept / 1000)).toBe(600)
  keeper.sleepSeen()
  expect(keeper.store.getState().slept).toBe(0)
  keeper.stop()
})

test('a wall only looks on', async () => {
  server()
  network.answers = ({ path }) => {
    expect(path).toBe('/api/wall/s')
    return { json: { lead: 'lead1', script, commands: [theirs('start', ZERO)], now: Date.now() } }
  }
  const wall = new LeadKeeper('s', 'wall')
  wall.start()
  await wait(10)
  wall.send('pause')
  await wait(500)
  expect([held(wall).unsent.length, Stream.last.url]).toEqual([0, '/api/wall/s/events'])
  expect(shared.read('wall', 's')).not.toBeNull()
  wall.stop()
})

test('two skips in a moment are one; a third, later, is another', async () => {
  const { at, keeper } = await begin()
  keeper.send('start')
  keeper.send('skip')
  await wait(300)
  keeper.send('skip')
  await wait(700)
  keeper.send('skip')
  await wait(10)
  expect(kinds(at.commands)).toBe('start skip skip')
})
