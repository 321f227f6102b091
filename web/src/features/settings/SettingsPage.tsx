import { Loader, TextInput } from '@mantine/core'
import { useState } from 'react'
import type { Schemas } from '../../api/client'
import { troubleWords } from '../../api/client'
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
    asks: 'Sides, in a new station',
    choices: [
      ['each', 'all of one side, then the other: one thing to think of at a time'],
      ['alternate', 'in turn, rep by rep: balanced, lighter on one leg'],
      ['chunks', 'five and five: long sets without one leg giving up'],
      ['round', 'a whole round a side: fewest switches'],
    ],
  },
  {
    key: 'startSide',
    asks: 'First side',
    choices: [
      ['left', 'left: habit starts right, so the weaker side goes first'],
      ['right', 'right'],
    ],
  },
  {
    key: 'rest',
    asks: 'Rest, in a new block',
    choices: [
      ['full', 'full: keeps it strength'],
      ['short', 'short: makes it endurance'],
      ['none', 'none: straight on'],
      ['active', 'active: something easy instead of standing'],
    ],
  },
  {
    key: 'facing',
    asks: 'Where you stand',
    choices: [
      ['mirror', 'facing the class: your own side is said too'],
      ['same', 'facing the same way'],
    ],
  },
  {
    key: 'count',
    asks: 'Counting',
    choices: [
      ['down', 'down: the end is in sight'],
      ['up', 'up'],
      ['last5', 'only the last five'],
      ['off', 'not aloud'],
    ],
  },
  {
    key: 'pace',
    asks: 'Change-overs are measured',
    choices: [
      ['brisk', 'brisk: the room knows what comes'],
      ['talking', 'while you talk: twice as long and more'],
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
      ['system', 'as this machine has it'],
    ],
  },
]

const calls: [Schemas['CallKind'], string][] = [
  ['side', 'sides, and the hand that holds the weight'],
  ['time', 'half-way, and ten and five seconds to go'],
  ['countIn', 'three, two, one'],
  ['count', 'numbers, as counting is set above'],
  ['next', 'what comes next'],
  ['kit', 'weights and bands: up, down, on, off'],
  ['round', 'rounds done'],
  ['minutes', 'minutes left'],
  ['drink', 'drink breaks'],
  ['rest', 'rests and their length'],
  ['tier', 'the easier and the harder option'],
  ['form', 'one thing of form a go'],
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

/** How this instructor works, for all that is new. */
export function SettingsPage() {
  const settings = useSettings()
  const [heights, setHeights] = useState<string | null>(null)
  const [saver, setSaver] = useState<Saved | null>(null)

  if (settings.isPending) return <Loader m="xl" aria-label="Fetching the settings" />
  if (settings.isError) return <ErrorNote title={`The settings cannot be fetched. ${troubleWords(settings.error)}`} />
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
        Good instructors differ. What you choose here shapes new classes, blocks and stations; a class that is written
        keeps what it says. {saver && <SaveNote saver={saver} />}
      </p>
      <h2 className={css.part}>How you work</h2>
      <div className={css.questions}>{schools.map(ask)}</div>
      <RealPace />
      <h2 className={css.part}>What is said while you lead</h2>
      <p>What is switched off here makes room for the rest. It counts from the next class that is started.</p>
      <div className={css.questions}>
        <fieldset className={css.question}>
          <legend>Say</legend>
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
      <h2 className={css.part}>How things are shown</h2>
      <div className={css.questions}>{shown.map(ask)}</div>
      <h2 className={css.part}>What stands in the room</h2>
      <TextInput
        label="Heights of your boxes, benches and steps, in cm"
        description="Such as 20, 30, 40, 45. The cards then name the nearest one and whom it does not suit."
        maw={420}
        value={heights ?? (preferences.heights ?? []).join(', ')}
        error={
          heights !== null && readHeights(heights) === null
            ? 'Whole numbers from 1 to 120, with commas between them.'
            : undefined
        }
        onChange={(event) => {
          const text = event.currentTarget.value
          setHeights(text)
          const read = readHeights(text)
          if (read) save({ ...preferences, heights: read })
        }}
      />
      <h2 className={css.part}>What is checked</h2>
      <CheckSettings preferences={preferences} onSave={save} />
      <h2 className={css.part}>Your data</h2>
      <DataSettings />
    </Page>
  )
}
