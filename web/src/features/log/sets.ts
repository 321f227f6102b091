import type { Schemas } from '../../api/client'

export type DoneSet = Schemas['DoneSet']

const amountOf = (set: DoneSet) => set.reps ?? set.seconds ?? 0

/** Numbers without the noughts of a machine: 16, 7.5. */
const plain = (kg: number) => String(Math.round(kg * 100) / 100)

/**
 * Sets as one types them: "12 12 10, 16 kg"; left and right as "12/10 12/9"; each its own weight as "12 10 8, 8 12 16 kg".
 */
export function written(sets: readonly DoneSet[]): string {
  const words: string[] = []
  for (let i = 0; i < sets.length; i++) {
    const [one, two] = [sets[i]!, sets[i + 1]]
    if (one.side === 'left' && two?.side === 'right') {
      words.push(`${amountOf(one)}/${amountOf(two)}`)
      i++
    } else if (one.side === 'right' && two?.side === 'left') {
      words.push(`${amountOf(two)}/${amountOf(one)}`)
      i++
    } else if (one.side) {
      words.push(one.side === 'left' ? `${amountOf(one)}/` : `/${amountOf(one)}`)
    } else {
      words.push(String(amountOf(one)))
    }
  }
  const weights = sets.map((set) => set.kg ?? null)
  const loaded = weights.filter((kg) => kg !== null)
  if (loaded.length === 0 || loaded.length < weights.length) return words.join(' ')
  const kg = new Set(loaded).size === 1 ? plain(loaded[0]!) : loaded.map(plain).join(' ')
  return `${words.join(' ')}, ${kg} kg`
}

const NUMBER = /^\d+([.,]\d+)?$/

const MOST = 3600
const MOST_KG = 600

/** The sets that a text says; null where it says none. */
export function read(text: string, timed: boolean): DoneSet[] | null {
  const [amounts = '', weights = ''] = text
    .toLowerCase()
    .replace(/×/g, 'x')
    .split(/,(?=\s)|,$|@/)
  const sets: DoneSet[] = []
  const add = (word: string, side: DoneSet['side']) => {
    if (!/^\d{1,4}$/.test(word) || Number(word) > MOST) return false
    sets.push({ [timed ? 'seconds' : 'reps']: Number(word), ...(side ? { side } : {}) })
    return true
  }
  for (const word of amounts.trim().split(/\s+/).filter(Boolean)) {
    const times = /^(\d{1,2})x(\d{1,4})$/.exec(word)
    if (times && Number(times[1]) <= 30) {
      for (let i = 0; i < Number(times[1]); i++) if (!add(times[2]!, undefined)) return null
    } else if (word.includes('/')) {
      const [left = '', right = '', more] = word.split('/')
      if (more !== undefined || (left === '' && right === '')) return null
      if (left !== '' && !add(left, 'left')) return null
      if (right !== '' && !add(right, 'right')) return null
    } else if (!add(word, undefined)) return null
  }
  const kg = weights.replace(/kg/g, ' ').trim().split(/\s+/).filter(Boolean)
  if (!kg.every((word) => NUMBER.test(word) && Number(word.replace(',', '.')) <= MOST_KG)) return null
  if (kg.length > 1 && kg.length !== sets.length) return null
  if (kg.length === 0) return sets
  return sets.map((set, i) => ({ ...set, kg: Number((kg[kg.length === 1 ? 0 : i] ?? '').replace(',', '.')) }))
}

/** Whether two lists of sets say the same. */
export const same = (a: readonly DoneSet[], b: readonly DoneSet[]) => written(a) === written(b)
