import { describe, expect, test } from 'vitest'
import type { Schemas } from '../src/api/client'
import { rowsOf } from '../src/features/lead/WhoNeeds'
import { countAt } from '../src/leading/core/count'
import type { Command } from '../src/leading/core/fold'
import { fold } from '../src/leading/core/fold'
import { lastTaken } from '../src/leading/core/taken'
import { pace } from '../src/leading/useFilm'

describe('what is counted', () => {
  const up = { reps: 5, repSeconds: 4, countsDown: false }
  test.each([
    [0, 1, 5],
    [3.9, 1, 5],
    [4, 2, 4],
    [19.9, 5, 1],
    [60, 5, 1],
  ])('%s s into five reps of four seconds', (into, rep, left) => {
    expect(countAt(up, into)).toBe(rep)
    expect(countAt({ ...up, countsDown: true }, into)).toBe(left)
  })
  test('nothing where nothing is', () => expect(countAt({ reps: null, repSeconds: null }, 3)).toBeNull())
})

test.each([
  [4, 1, 4, 1],
  // One rep on each side in a film of two.
  [8, 2, 4, 1],
  // A step that takes longer than the reps leave it.
  [4, 1, 2, 2],
  [1.4, 1, 2, 0.7],
  [4, 1, null, 1],
])('a film of %s s with %s reps, over reps of %s s, goes %s times as fast', (seconds, reps, rep, faster) =>
  expect(pace({ film: { seconds }, reps } as Schemas['StationFilm'], rep)).toBeCloseTo(faster, 6),
)

describe('the way that was taken last', () => {
  const scenes = [{ end: 10 }, { end: 60 }, { end: 80 }]
  const tap = (kind: Command['kind'], at: number, payload?: Command['payload']): Command => ({
    id: `${kind}${at}`,
    kind,
    at,
    payload,
  })
  const start = tap('start', 0)
  const rests = tap('adjust', 5000, { shifts: [{ scene: 1, by: -20_000 }], text: 'Shorter rests' })
  const talk = tap('adjust', 6000, { shifts: [{ scene: 2, by: -90_000 }], text: 'Less talk' })

  test('is told from the taps alone, with what really takes it back', () => {
    expect(lastTaken([start], scenes)).toBeNull()
    expect(lastTaken([start, rests], scenes)).toEqual({ title: 'Shorter rests', back: [{ scene: 1, by: 20_000 }] })
    // No scene gets shorter than nothing: only what it was is given back.
    expect(lastTaken([start, rests, talk], scenes)).toEqual({ title: 'Less talk', back: [{ scene: 2, by: 20_000 }] })
  })
  test('taken back, the one before it is the last, and the class is as it was', () => {
    const { back } = lastTaken([start, rests, talk], scenes)!
    const undone = [start, rests, talk, tap('adjust', 7000, { shifts: back, text: '' })]
    expect(lastTaken(undone, scenes)?.title).toBe('Shorter rests')
    expect(fold(undone, scenes).added).toEqual(fold([start, rests], scenes).added)
  })
  test('seconds added by hand are no way', () => {
    expect(lastTaken([start, tap('adjust', 5000, { shifts: [{ scene: 1, by: 5 }] })], scenes)).toBeNull()
  })
})

test('who has nothing stands first, what is on before what is next, and who needs the same stands together', () => {
  const card = (id: string) => ({ id, name: id }) as Schemas['StationCard']
  const need = (station: string, words: string, kind: Schemas['CellKind'] = 'easier') => ({
    station,
    kind,
    words,
    why: 'knee',
  })
  const person = (id: string, ...needs: ReturnType<typeof need>[]) => ({ id, called: id, initials: id, needs })
  const people = [
    person('AB', need('squat', 'Half depth'), need('lunge', 'no option', 'gap')),
    person('CD', need('squat', 'Half depth')),
    person('EF', need('squat', 'no option', 'gap'), need('bridge', 'On the floor')),
  ]
  const rows = rowsOf(people, [card('squat')], [card('lunge')])
  expect(rows.map((r) => [r.who.map((w) => w.initials).join(' '), r.needs.kind, r.isNext])).toEqual([
    ['EF', 'gap', false],
    ['AB CD', 'easier', false],
    ['AB', 'gap', true],
  ])
})
