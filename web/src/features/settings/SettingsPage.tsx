import { Loader, TextInput } from '@mantine/core'
import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { useState, useSyncExternalStore } from 'react'
import type { Schemas } from '../../api/client'
import { answer, api, troubleWords } from '../../api/client'
import { useSettings } from '../../api/queries'
import { change } from '../../save/documents'
import type { Saved } from '../../save/SaveNote'
import { SaveNote } from '../../save/SaveNote'
import { ErrorNote } from '../../ui/ErrorNote'
import { Page } from '../../ui/Page'
import { CheckSettings } from './CheckSettings'
import { DataSettings, RealPace } from './DataSettings'
import css from './Settings.module.css'

type Preferences = Schemas['Preferences']

interface Question {
  key: keyof Preferences
  asks: string
  choices: [string, string][]
}

/** Each answer says what it is for. */
const schools: Question[] = [
  {
    key: 'sides',
    asks: 'Sides in new stations',
    choices: [
      ['each', 'all of one side, then the other: one thing to think about'],
      ['alternate', 'alternating every rep: even, easier on each leg'],
      ['chunks', 'five each, back and forth: long sets without one leg giving up'],
      ['round', 'a whole round on each side: fewest switches'],
    ],
  },
  {
    key: 'startSide',
    asks: 'First side',
    choices: [
      ['left', 'left: most people’s weaker side goes first'],
      ['right', 'right'],
    ],
  },
  {
    key: 'rest',
    asks: 'Rest in new blocks',
    choices: [
      ['full', 'long: strength'],
      ['short', 'short: endurance'],
      ['none', 'none: straight on'],
      ['active', 'active: easy movement instead of standing'],
    ],
  },
  {
    key: 'facing',
    asks: 'Where you stand',
    choices: [
      ['mirror', 'facing them: your own side is shown too'],
      ['same', 'facing the same way'],
    ],
  },
  {
    key: 'count',
    asks: 'Counting',
    choices: [
      ['down', 'down: they hear the end coming'],
      ['up', 'up'],
      ['last5', 'only the last five'],
      ['off', 'not aloud'],
    ],
  },
  {
    key: 'pace',
    asks: 'Changeover times',
    choices: [
      ['brisk', 'brisk: people know what is next'],
      ['talking', 'while you talk: at least twice as long'],
      ['real', 'as you really are: learnt from the classes you led last; brisk where nothing is known yet'],
    ],
  },
]

const shown: Question[] = [
  {
    key: 'weight',
    asks: 'Weights',
    choices: [
      ['kg', 'kilograms'],
      ['lb', 'pounds'],
    ],
  },
  {
    key: 'length',
    asks: 'Heights',
    choices: [
      ['cm', 'centimetres'],
      ['in', 'inches'],
    ],
  },
  {
    key: 'clock',
    asks: 'Time of day',
    choices: [
      ['h24', '18:30'],
      ['h12', '6:30 pm'],
    ],
  },
  {
    key: 'week',
    asks: 'Weeks begin on',
    choices: [
      ['monday', 'Monday'],
      ['sunday', 'Sunday'],
    ],
  },
  {
    key: 'scheme',
    asks: 'The screen is',
    choices: [
      ['light', 'light'],
      ['dark', 'dark'],
      ['system', 'as this computer is set'],
    ],
  },
]

const calls: [Schemas['CallKind'], string][] = [
  ['side', 'sides, and the hand that holds the weight'],
  ['time', 'halfway, and 10 and 5 seconds to go'],
  ['countIn', 'three, two, one'],
  ['count', 'rep numbers (as set under Counting)'],
  ['next', 'what comes next'],
  ['kit', 'weights and bands: up, down, on, off'],
  ['round', 'rounds done'],
  ['minutes', 'minutes to go'],
  ['drink', 'drink breaks'],
  ['rest', 'rests and their length'],
  ['tier', 'the easier and the harder option'],
  ['form', 'one form cue per interval'],
  ['breath', 'how to breathe'],
  ['turn', 'who works first, and when to swap'],
  ['gate', 'that the class waits for you'],
  ['care', 'stop at pain, once'],
  ['end', 'the end'],
]

function readHeights(text: string): number[] | null {
  const parts = text
    .split(',')
    .map((part) => part.trim())
    .filter((part) => part !== '')
  const heights = parts.map(Number)
  return heights.every((h) => Number.isInteger(h) && h >= 1 && h <= 120) ? heights : null
}

const sections: [string, string][] = [
  ['work', 'How you work'],
  ['calls', 'Spoken calls'],
  ['display', 'Units and display'],
  ['heights', 'Heights you have'],
  ['checks', 'Checks'],
  ['data', 'Your data'],
]

/** What these settings say, in an example: read before it is heard. */
function Heard({ preferences, saver }: { preferences: Preferences; saver: Saved | null }) {
  const saved = useSyncExternalStore(
    saver?.store.subscribe ?? nothing,
    () => saver === null || saver.store.getState().state === 'saved',
  )
  const heard = useQuery({
    queryKey: ['heard', preferences],
    queryFn: () => answer(api.GET('/api/settings/heard')),
    enabled: saved,
    placeholderData: keepPreviousData,
  }).data
  if (!heard) return null
  return (
    <details className={css.heard}>
      <summary>What you would hear ({heard.about})</summary>
      {heard.calls.length === 0 && <p>Nothing: every call is off.</p>}
      <ol>
        {heard.calls.map((call, i) => (
          <li key={i}>
            <span>{call.at}</span> “{call.text}”
          </li>
        ))}
      </ol>
    </details>
  )
}

const nothing = () => () => undefined

/** How this instructor works, for all that is new. */
export function SettingsPage() {
  const settings = useSettings()
  const [heights, setHeights] = useState<string | null>(null)
  const [saver, setSaver] = useState<Saved | null>(null)

  if (settings.isPending) return <Loader m="xl" aria-label="Fetching the settings" />
  if (settings.isError) return <ErrorNote title={`The settings could not be loaded. ${troubleWords(settings.error)}`} />
  const { preferences, preferencesRevision } = settings.data

  const choose = (key: keyof Preferences, value: string) => save({ ...preferences, [key]: value } as Preferences)

  /** What was chosen shows at once, and is saved as a whole. */
  function save(next: Preferences) {
    setSaver(change('preferences', 'all', preferences, preferencesRevision, next))
  }

  const ask = ({ key, asks, choices }: Question) => (
    <fieldset key={key} className={css.question}>
      <legend>{asks}</legend>
      {choices.map(([value, words]) => (
        <label key={value} className={css.choice}>
          <input
            type="radio"
            name={key}
            value={value}
            checked={preferences[key] === value}
            onChange={() => choose(key, value)}
          />
          {words}
        </label>
      ))}
    </fieldset>
  )

  return (
    <Page name="Settings">
      <h1>Settings</h1>
      <p className={css.lead}>
        Good instructors differ. These choices apply to new classes, blocks and stations; classes you have already built
        do not change. {saver && <SaveNote saver={saver} />}
      </p>
      <div className={css.beside}>
        <nav aria-label="Parts of the settings" className={css.index} data-screen-only>
          {sections.map(([id, name]) => (
            <a key={id} href={`#${id}`}>
              {name}
            </a>
          ))}
        </nav>
        <div>
          <h2 className={css.part} id="work">
            How you work
          </h2>
          <div className={css.questions}>{schools.map(ask)}</div>
          <RealPace />
          <h2 className={css.part} id="calls">
            Spoken calls
          </h2>
          <p>Turning some off leaves more room for the others. Applies from the next class you start.</p>
          <div className={css.questions}>
            <fieldset className={css.question}>
              <legend>Speak</legend>
              {calls.map(([kind, words]) => (
                <label key={kind} className={css.choice}>
                  <input
                    type="checkbox"
                    checked={!(preferences.silent ?? []).includes(kind)}
                    onChange={(event) =>
                      save({
                        ...preferences,
                        silent: event.currentTarget.checked
                          ? (preferences.silent ?? []).filter((k) => k !== kind)
                          : [...(preferences.silent ?? []), kind],
                      })
                    }
                  />
                  {words}
                </label>
              ))}
            </fieldset>
          </div>
          <Heard preferences={preferences} saver={saver} />
          <h2 className={css.part} id="display">
            Units and display
          </h2>
          <div className={css.questions}>{shown.map(ask)}</div>
          <h2 className={css.part} id="heights">
            Heights you have
          </h2>
          <TextInput
            label="Heights of your boxes, benches and steps, in cm"
            description="For example 20, 30, 40, 45. Cards then name the nearest height and who it does not suit."
            maw={420}
            value={heights ?? (preferences.heights ?? []).join(', ')}
            error={
              heights !== null && readHeights(heights) === null
                ? 'Enter whole numbers from 1 to 120, separated by commas.'
                : undefined
            }
            onChange={(event) => {
              const text = event.currentTarget.value
              setHeights(text)
              const read = readHeights(text)
              if (read) save({ ...preferences, heights: read })
            }}
          />
          <h2 className={css.part} id="checks">
            Checks
          </h2>
          <CheckSettings preferences={preferences} onSave={save} />
          <h2 className={css.part} id="data">
            Your data
          </h2>
          <DataSettings />
        </div>
      </div>
    </Page>
  )
}
