import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import { network } from './network'

/** Tabs by the locks that they hold: a tab is there as long as its lock is. */
const locks = new Map<string, boolean>()

/** A tab that is opened now, with its own name. */
async function tab() {
  vi.resetModules()
  const kept = await import('../src/save/kept')
  return { ...kept, close: () => locks.delete(`halterion.${kept.device}`) }
}

beforeEach(() => {
  vi.useFakeTimers()
  localStorage.clear()
  locks.clear()
  vi.stubGlobal('navigator', {
    ...navigator,
    locks: {
      request: (name: string) => (locks.set(name, true), new Promise(() => undefined)),
      query: () => Promise.resolve({ held: [...locks.keys()].map((name) => ({ name })) }),
    },
  })
})
afterEach(() => vi.useRealTimers())

test('two tabs keep the same thing, each its own', async () => {
  const [one, two] = [await tab(), await tab()]
  one.keep('note', 'n1', 'mine')
  two.keep('note', 'n1', 'other')
  expect([one.kept('note', 'n1'), two.kept('note', 'n1')]).toEqual(['mine', 'other'])
  one.forget('note', 'n1')
  expect([one.kept('note', 'n1'), two.kept('note', 'n1')]).toEqual([null, 'other'])
})

test('what a tab that is gone has left is taken over once; what a living one has is not', async () => {
  const [gone, living, next] = [await tab(), await tab(), await tab()]
  gone.keep('note', 'n1', 'left')
  gone.keep('note', 'n2', 'left too')
  gone.keep('other', 'n1', 'of another kind')
  living.keep('note', 'n1', 'still typed')
  gone.close()
  const look = next.leftBehind('note')
  await vi.advanceTimersByTimeAsync(5000)
  expect((await look).sort((a, b) => a.id.localeCompare(b.id))).toEqual([
    { id: 'n1', value: 'left' },
    { id: 'n2', value: 'left too' },
  ])
  const again = next.leftBehind('note')
  await vi.advanceTimersByTimeAsync(5000)
  expect(await again).toEqual([])
  expect(living.kept('note', 'n1')).toBe('still typed')
})

test('one thing only is asked for by its name', async () => {
  const [gone, next] = [await tab(), await tab()]
  gone.keep('note', 'n1', 'one')
  gone.keep('note', 'n2', 'two')
  gone.close()
  const look = next.leftBehind('note', 'n2')
  await vi.advanceTimersByTimeAsync(5000)
  expect(await look).toEqual([{ id: 'n2', value: 'two' }])
})

test('a page that was reloaded a moment ago is given the time to let go', async () => {
  const [before, next] = [await tab(), await tab()]
  before.keep('note', 'n1', 'before the reload')
  const look = next.leftBehind('note')
  await vi.advanceTimersByTimeAsync(300)
  before.close()
  await vi.advanceTimersByTimeAsync(5000)
  expect(await look).toEqual([{ id: 'n1', value: 'before the reload' }])
})

test('what is damaged is nothing, and a full browser breaks nothing', async () => {
  const one = await tab()
  localStorage.setItem(`halterion.note.n1.${one.device}`, '{"half')
  expect(one.kept('note', 'n1')).toBeNull()
  vi.spyOn(Storage.prototype, 'setItem').mockImplementation(() => {
    throw new DOMException('full', 'QuotaExceededError')
  })
  expect(() => one.keep('note', 'n2', 'x')).not.toThrow()
  expect(() => one.shared.keep('script', 's', 'x')).not.toThrow()
})

test('what is shared is the same for all, and nobody takes it for something left behind', async () => {
  const [one, two] = [await tab(), await tab()]
  one.shared.keep('note', 'n1', 'for all')
  one.close()
  expect(two.shared.read('note', 'n1')).toBe('for all')
  const look = two.leftBehind('note')
  await vi.advanceTimersByTimeAsync(5000)
  expect(await look).toEqual([])
})

test('whoever does not answer is asked again, later and later, until somebody does', async () => {
  vi.resetModules()
  let there = false
  network.asked = []
  network.answers = () => (there ? {} : 'nobody')
  const { lost, onReached } = await import('../src/api/connection')
  const reachedAgain = vi.fn()
  onReached(reachedAgain)
  lost()
  lost()
  await vi.advanceTimersByTimeAsync(1000)
  expect(network.asked).toHaveLength(1)
  await vi.advanceTimersByTimeAsync(60_000)
  // After 1 s, then by half as much more, at most every five seconds.
  expect(network.asked.length).toBeGreaterThan(12)
  expect(network.asked.length).toBeLessThan(18)
  there = true
  await vi.advanceTimersByTimeAsync(5000)
  expect(reachedAgain).toHaveBeenCalledTimes(1)
  const asked = network.asked.length
  await vi.advanceTimersByTimeAsync(60_000)
  expect(network.asked).toHaveLength(asked)
})
