/*
 * The program of the page that is taken along: it leads a class from any browser, with no server and no network. What it knows of a
 * class under way is the same core that the lead screen has; built into one file that Halterion.Formats puts into the page.
 */
import type { Schemas } from '../../api/client'
import { newContext } from '../core/audioClock'
import type { Bell } from '../core/bells'
import { ringing } from '../core/bells'
import type { Command, CommandKind, LeadState, Payload } from '../core/fold'
import { endOf, fold, limitOf, positionAt, sceneAt } from '../core/fold'
import type { Call, Cue, TimeLeft } from '../core/sounding'
import { Caller } from '../core/sounding'
import { countAt } from '../core/count'

type Scene = Pick<
  Schemas['Scene'],
  'end' | 'gated' | 'blockName' | 'headline' | 'target' | 'sideWords' | 'round' | 'next' | 'cards'
> &
  Pick<Schemas['Scene'], 'title' | 'ahead' | 'hand' | 'load' | 'others' | 'reps' | 'repSeconds' | 'countsDown'>

/** What Halterion.Formats.LeadPage writes into the page. */
interface PageData {
  /** Tells this class, as it is here, from any other. */
  key: string
  title: string
  scenes: Scene[]
  cards: {
    name: string
    target: string
    main: string
    easier: string[]
    harder: string[]
    cue: string
    figure?: number
  }[]
  figures: string[]
  cues: Cue[]
  calls: Call[]
  left: TimeLeft[]
  bells: Bell[]
  /** What the instructor recorded, by its words, as data addresses. */
  clips?: Record<string, string>
}

/** Two skips so close together, in milliseconds, were one tap. */
const DOUBLE = 600
/** How often it looks, in milliseconds. */
const EVERY = 100
/** Of a class that was led longer ago, nothing is kept: it begins anew. */
const FORGET = 6 * 3_600_000

const $ = <T extends HTMLElement = HTMLElement>(id: string) => document.getElementById(id) as T
const data = JSON.parse($('class').textContent) as PageData
const { scenes } = data
const offset = Date.now() - performance.now()
const exactNow = () => offset + performance.now()
const now = () => Math.round(exactNow())

let commands = kept()
let state = fold(commands, scenes)
let audio: AudioContext | null = null
let silence = () => {}
let caller: Caller | null = null
let shownCards = ''

const place = () => positionAt(state, Math.max(now(), state.at), scenes)
const end = () => endOf(scenes, state.added, scenes.length - 1)

/** The taps of this class, so that a reload goes on where it was. */
function kept(): Command[] {
  try {
    const { key, taps } = JSON.parse(localStorage.getItem('halterion.page') ?? '{}') as {
      key?: string
      taps?: Command[]
    }
    return key === data.key && taps?.length && now() - taps.at(-1)!.at < FORGET ? taps : []
  } catch {
    return []
  }
}

function keep() {
  try {
    localStorage.setItem('halterion.page', JSON.stringify({ key: data.key, taps: commands }))
  } catch {
    // A browser that keeps nothing begins anew.
  }
}

function tap(kind: CommandKind, payload?: Payload) {
  const last = commands.at(-1)
  if (kind === 'skip' && last?.kind === 'skip' && now() - last.at < DOUBLE) return
  try {
    audio ??= newContext()
    void audio.resume()
  } catch {
    // Without sound it still leads.
  }
  commands = [...commands, { id: String(commands.length), kind, at: Math.max(now(), state.at), payload }]
  keep()
  enter(fold(commands, scenes))
}

/** What sounds and is said belongs to a state: another begins it anew. */
function enter(next: LeadState) {
  state = next
  silence()
  const runs = state.phase === 'running'
  silence = runs && audio ? ringing(data, state, audio, exactNow) : () => {}
  caller = runs ? new Caller(data.calls, scenes, state, place() - 1, data.left) : null
  if (!runs) window.speechSynthesis?.cancel()
  show()
}

function say(call: Call) {
  $('said').textContent = call.text
  if (!$<HTMLInputElement>('voice').checked) return
  // A browser without a voice says what was recorded, one word after the other.
  if (!window.speechSynthesis?.getVoices().length) return playAll(call.clips ?? [])
  const words = new SpeechSynthesisUtterance(call.text)
  words.rate = 1.15
  speechSynthesis.speak(words)
}

function playAll([word, ...rest]: readonly string[]) {
  if (word === undefined) return
  const sound = data.clips?.[word]
  if (!sound) return playAll(rest)
  const player = new Audio(sound)
  player.onended = () => playAll(rest)
  void player.play().catch(() => undefined)
}

const clockWords = (milliseconds: number) => {
  const seconds = Math.max(0, Math.ceil(milliseconds / 1000))
  return seconds < 60 ? String(seconds) : `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, '0')}`
}

/** What the one main button does now. */
function mainAct(): [CommandKind, string] {
  if (state.phase === 'ready') return ['start', 'Start the class']
  if (state.phase !== 'running' || place() >= end()) return ['resume', 'Carry on']
  return place() >= limitOf(state, scenes) ? ['go', 'Go'] : ['pause', 'Pause']
}

function show() {
  const at = place()
  const i = sceneAt(at, scenes, state.added)
  const scene = scenes[i]!
  const over = state.phase === 'finished' || at >= end()
  const write = (id: string, text: string) => {
    if ($(id).textContent !== text) $(id).textContent = text
  }
  write('block', over ? data.title : scene.blockName)
  write('round', scene.round)
  write('left', `${clockWords(end() - at)} to go`)
  const ahead = !over && scene.ahead
  const count = over || ahead ? null : countAt(scene, (at - endOf(scenes, state.added, i - 1)) / 1000)
  write('now', ahead ? scene.headline : '')
  write('head', over ? 'That’s it. Well done.' : ahead ? `Next: ${scene.title}` : scene.headline)
  write('what', over ? '' : [scene.target, scene.load].filter(Boolean).join(', '))
  write('side', over ? '' : [scene.sideWords, scene.hand].filter(Boolean).join(', '))
  write('others', over ? '' : (scene.others ?? ''))
  write('count', count === null ? '' : String(count))
  write('clock', over ? '' : clockWords(endOf(scenes, state.added, i) - at))
  write('next', over || ahead ? '' : `Next: ${scene.next}`)
  $<HTMLProgressElement>('bar').max = end() / 1000
  $<HTMLProgressElement>('bar').value = at / 1000
  write('main', mainAct()[1])
  // Before the start there is nowhere to go to; and a class that runs is not forgotten by a slip of the finger.
  $<HTMLButtonElement>('goTo').disabled = state.phase === 'ready'
  $<HTMLButtonElement>('anew').disabled = commands.length === 0 || (state.phase === 'running' && !over)
  if (scene.cards.join() !== shownCards) showCards(scene.cards)
}

function showCards(cards: number[]) {
  shownCards = cards.join()
  $('cards').toggleAttribute('data-one', cards.length === 1)
  $('cards').replaceChildren(
    ...cards.map((index, n) => {
      const card = data.cards[index]!
      const box = document.createElement('article')
      box.innerHTML = card.figure === undefined ? '' : data.figures[card.figure]!
      const line = (tag: string, text: string) => {
        const words = document.createElement(tag)
        words.textContent = text
        box.append(words)
      }
      if (cards.length > 1) line('p', `${n + 1}  ${card.name}, ${card.target}`)
      else line('p', card.main)
      if (cards.length === 1 && card.cue) line('small', card.cue)
      if (card.easier.length > 0) line('small', `easier: ${card.easier.join(' · ')}`)
      if (card.harder.length > 0) line('small', `harder: ${card.harder.join(' · ')}`)
      return box
    }),
  )
}

/** The places that one may want to go to: each scene that has a name of its own. */
function places() {
  const list = $<HTMLSelectElement>('where')
  scenes.forEach((scene, i) => {
    if (i > 0 && scene.headline === scenes[i - 1]!.headline && scene.round === scenes[i - 1]!.round) return
    const option = document.createElement('option')
    option.value = String(i)
    option.textContent = [scene.headline, scene.sideWords, scene.round].filter(Boolean).join(', ')
    list.append(option)
  })
  $('goTo').onclick = () => tap('jump', { scene: Number(list.value) })
}

$('main').onclick = () => tap(mainAct()[0])
$('skip').onclick = () => tap('skip')
$('back').onclick = () => tap('back')
$('more').onclick = () => tap('addTen')
$('anew').onclick = () => {
  commands = []
  keep()
  enter(fold([], scenes))
}
const keys: Partial<Record<string, string>> = { ' ': 'main', ArrowRight: 'skip', ArrowLeft: 'back', '+': 'more' }
addEventListener('keydown', (event) => {
  const button = keys[event.key]
  if (!button || (event.target instanceof HTMLElement && event.target.closest('select, input'))) return
  event.preventDefault()
  if (document.activeElement instanceof HTMLElement) document.activeElement.blur()
  $(button).click()
})
places()
// A class that was under way goes on; it rings again with the first tap, as a browser wants it.
enter(state)
addEventListener('pointerdown', () => {
  if (audio || state.phase !== 'running') return
  audio = newContext()
  enter(state)
})
setInterval(() => {
  const call = caller?.at(place())
  if (call) say(call)
  show()
}, EVERY)
