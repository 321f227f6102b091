import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import { anchor, apart, exactNow, heed, steadyNow } from '../src/leading/steady'
import { tappedSpeed } from '../src/leading/useBeat'
import { mainAct } from '../src/leading/useClock'
import { clock, dayAndTime, spoken, timeOfDay } from '../src/ui/time'

test.each([
  [0, '0:00', '0 seconds'],
  [1, '0:01', '1 second'],
  [59.4, '0:59', '59 seconds'],
  [60, '1:00', '1 minute'],
  [75, '1:15', '1 minute 15 seconds'],
  [3600, '1:00:00', '60 minutes'],
  [3725, '1:02:05', '62 minutes 5 seconds'],
  [-3, '0:00', '0 seconds'],
])('%d seconds are shown as %s and read as %s', (seconds, shown, read) => {
  expect([clock(seconds), spoken(seconds)]).toEqual([shown, read])
})

test('a booked start in words, and times of day after it, also past midnight', () => {
  expect(dayAndTime('2026-12-01T18:30')).toBe('Tue 1 Dec, 18:30')
  expect(dayAndTime(null)).toBe('No date yet')
  expect(dayAndTime('2026-12-01T18:30', 'h12')).toMatch(/^Tue 1 Dec, 6:30\s?pm$/i)
  expect(timeOfDay('2026-12-01T23:59', 61, 'h24')).toBe('00:00:01')
  expect(timeOfDay(undefined, 61, 'h24')).toBeNull()
})

test('a speed that was tapped in: of the last taps, after the last pause', () => {
  expect(tappedSpeed([0, 500, 1000])).toBeNull()
  expect(tappedSpeed([0, 500, 1000, 1500])).toBe(120)
  expect(tappedSpeed([0, 900, 1800, 9000, 9500, 10_000, 10_500])).toBe(120)
})

test.each([
  ['ready', false, 'start', 'Start the class'],
  ['running', false, 'pause', 'Pause'],
  ['running', true, 'go', 'Go'],
  ['paused', false, 'resume', 'Carry on'],
  ['finished', false, 'resume', 'Carry on'],
] as const)('the main button of a class that is %s', (phase, waiting, kind, name) => {
  expect(mainAct({ phase, waiting })).toEqual({ kind, name })
})

beforeEach(() => {
  vi.useFakeTimers({ now: 1_000_000 })
  return () => vi.useRealTimers()
})
afterEach(() => anchor(Date.now()))

test('a wall clock that is set neither stops the class nor repeats a part of it', () => {
  anchor(5_000_000)
  vi.advanceTimersByTime(3000)
  expect(steadyNow()).toBe(5_003_000)
  vi.setSystemTime(0)
  vi.advanceTimersByTime(1000)
  expect(steadyNow()).toBe(5_004_000)
})

test('two clocks that drift apart are brought together in small steps, never to be seen', () => {
  anchor(5_000_000)
  // The server is 120 ms ahead; each of its signs takes 10 to 60 ms to come.
  for (let sign = 0; sign < 40; sign++) {
    vi.advanceTimersByTime(2000)
    const before = exactNow()
    heed(5_000_000 + 2000 * (sign + 1) + 120 - (10 + (sign % 6) * 10))
    expect(exactNow() - before).toBeLessThanOrEqual(40)
    expect(exactNow() - before).toBeGreaterThanOrEqual(-5)
  }
  expect(Math.abs(exactNow() - (5_000_000 + 80_000 + 110))).toBeLessThanOrEqual(9)
  expect(Math.abs(apart())).toBeLessThanOrEqual(9)
})

test('one late sign moves nothing; a machine that slept is put right at once', () => {
  anchor(5_000_000)
  for (let sign = 1; sign <= 12; sign++) {
    vi.advanceTimersByTime(2000)
    heed(5_000_000 + 2000 * sign - (sign === 6 ? 3000 : 0))
  }
  expect(steadyNow()).toBe(5_024_000)
  heed(5_024_000 + 60_000)
  expect(steadyNow()).toBe(5_084_000)
})
