import { describe, expect, test } from 'vitest'
import { read, same, written } from '../src/features/log/sets'

describe('sets as one types them', () => {
  test.each([
    ['12 12 10', [{ reps: 12 }, { reps: 12 }, { reps: 10 }]],
    ['3x12', [{ reps: 12 }, { reps: 12 }, { reps: 12 }]],
    [
      '12 10, 16 kg',
      [
        { reps: 12, kg: 16 },
        { reps: 10, kg: 16 },
      ],
    ],
    [
      '12 10 @16',
      [
        { reps: 12, kg: 16 },
        { reps: 10, kg: 16 },
      ],
    ],
    [
      '12 10, 8 12 kg',
      [
        { reps: 12, kg: 8 },
        { reps: 10, kg: 12 },
      ],
    ],
    [
      '8/6',
      [
        { reps: 8, side: 'left' },
        { reps: 6, side: 'right' },
      ],
    ],
    [
      '8/6, 7,5 kg',
      [
        { reps: 8, side: 'left', kg: 7.5 },
        { reps: 6, side: 'right', kg: 7.5 },
      ],
    ],
    ['/6', [{ reps: 6, side: 'right' }]],
    ['', []],
  ])('%s', (text, sets) => {
    expect(read(text, false)).toEqual(sets)
  })

  test.each([
    'twelve',
    '12 kg',
    '12 -3',
    '12/6/4',
    '/',
    '12 10, 8 12 16 kg',
    '99999',
    '12, heavy',
    '31x5',
    '12, 900 kg',
  ])('%s says no sets', (text) => {
    expect(read(text, false)).toBeNull()
  })

  test('seconds are seconds', () => {
    expect(read('40 35', true)).toEqual([{ seconds: 40 }, { seconds: 35 }])
  })

  test('what is written is read again', () => {
    for (const text of ['12 12 10', '12 10, 16 kg', '12 10, 8 12 kg', '8/6 7/7, 4 kg', '8/6 7/', '40']) {
      expect(written(read(text, false)!)).toBe(text)
      expect(written(read(text, true)!)).toBe(text)
    }
  })

  test('right first is the same as left first', () => {
    expect(
      written([
        { reps: 6, side: 'right' },
        { reps: 8, side: 'left' },
      ]),
    ).toBe('8/6')
    expect(
      same(
        [
          { reps: 6, side: 'right' },
          { reps: 8, side: 'left' },
        ],
        [
          { reps: 8, side: 'left' },
          { reps: 6, side: 'right' },
        ],
      ),
    ).toBe(true)
  })
})
