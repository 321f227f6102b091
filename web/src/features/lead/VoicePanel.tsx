import { useEffect, useState } from 'react'
import { Link } from 'react-router'
import { CLIPS, keepClip, loadClips } from '../../leading/clips'
import type { Beat } from '../../leading/useBeat'
import { tappedSpeed } from '../../leading/useBeat'
import { say } from '../../leading/useVoice'
import type { Voice } from '../../leading/useVoice'
import css from './Stage.module.css'
import { Sheet } from './Sheet'

/** What speaks and beats on this screen. What is said at all is in the settings. */
export function VoicePanel({
  session,
  voice,
  beat,
  onClose,
}: {
  session: string
  voice: Voice
  beat: Beat
  onClose: () => void
}) {
  const { settings, set, voices } = voice
  const [clips, setClips] = useState<string[]>([])
  const [tried, setTried] = useState('')
  useEffect(() => {
    loadClips().then(setClips, () => undefined)
  }, [])
  return (
    <Sheet title="Voice and beat" onClose={onClose}>
      <p>
        <label>
          <input
            type="checkbox"
            checked={settings.on}
            onChange={(e) => set({ ...settings, on: e.currentTarget.checked })}
          />{' '}
          Speak the calls
        </label>
      </p>
      <p>
        {voices.length > 0 ? (
          <label>
            Voice{' '}
            <select
              className={css.control}
              value={settings.voice}
              onChange={(e) => set({ ...settings, voice: e.currentTarget.value })}
            >
              <option value="">First English voice</option>
              {voices.map((v) => (
                <option key={v.voiceURI} value={v.voiceURI}>
                  {v.name} ({v.lang})
                </option>
              ))}
            </select>
          </label>
        ) : (
          <span data-testid="no-voice">
            This device has no built-in voice.{' '}
            {clips.length > 0
              ? `Your recordings are used: ${clips.length} of ${CLIPS.length}.`
              : 'Bells only until you record your own words below.'}
          </span>
        )}
      </p>
      <p>
        <label>
          Volume{' '}
          <input
            type="range"
            min={0}
            max={1}
            step={0.05}
            value={settings.loudness}
            onChange={(e) => set({ ...settings, loudness: Number(e.currentTarget.value) })}
          />
        </label>{' '}
        <button
          type="button"
          className={css.way}
          onClick={() =>
            setTried(
              say({ text: 'Switch: left foot in front', clips: ['switch', 'left'] }, voices, settings)
                ? ''
                : 'No voice or recording is available for this.',
            )
          }
        >
          Test the voice
        </button>{' '}
        <span role="status">{tried}</span>
      </p>
      <p>
        <Link to={`/rehearse/${session}`}>Rehearse the whole class</Link>, up to 8× speed.
      </p>
      <h3>Beat</h3>
      <p>
        <label>
          <input
            type="checkbox"
            checked={beat.clicks}
            onChange={(e) => beat.set({ clicks: e.currentTarget.checked })}
          />{' '}
          Click with each rep
        </label>
      </p>
      <p>
        <label>
          <input type="checkbox" checked={beat.deck} onChange={(e) => beat.set({ deck: e.currentTarget.checked })} /> A
          small rhythm under it, at{' '}
        </label>
        <input
          className={css.control}
          style={{ width: '5em' }}
          type="number"
          aria-label="Beats a minute"
          min={60}
          max={180}
          disabled={beat.matched}
          value={beat.matched ? Math.round(beat.now) : beat.speed}
          onChange={(e) => beat.set({ speed: Number(e.currentTarget.value) })}
        />{' '}
        beats a minute{' '}
        <label>
          <input
            type="checkbox"
            checked={beat.matched}
            onChange={(e) => beat.set({ matched: e.currentTarget.checked })}
          />{' '}
          match whole beats to each rep
        </label>
      </p>
      <OwnMusic beat={beat} />
      <details>
        <summary>
          Record your own words ({clips.length} of {CLIPS.length})
        </summary>
        <p>Used where a device has no voice; stored with your data.</p>
        <div className={css.people}>
          {CLIPS.map((word) => (
            <Recorder
              key={word}
              word={word}
              has={clips.includes(word)}
              onChange={() => void loadClips().then(setClips)}
            />
          ))}
        </div>
      </details>
    </Sheet>
  )
}

/** A file from disk in the place of the rhythm; it is not kept. Its own speed is tapped in, so that it goes with the beat. */
function OwnMusic({ beat }: { beat: Beat }) {
  const [taps, setTaps] = useState<number[]>([])
  const [trouble, setTrouble] = useState('')
  const { file } = beat

  function choose(chosen: File | undefined) {
    setTaps([])
    setTrouble('')
    if (file) URL.revokeObjectURL(file.url)
    if (!chosen) return beat.set({ file: null })
    const url = URL.createObjectURL(chosen)
    const trial = new Audio(url)
    trial.oncanplay = () => beat.set({ file: { name: chosen.name, url, speed: null } })
    trial.onerror = () => setTrouble(`This browser cannot play ${chosen.name}.`)
  }

  function tap() {
    const next = [...taps, performance.now()].slice(-12)
    setTaps(next)
    const speed = tappedSpeed(next)
    if (file && speed) beat.set({ file: { ...file, speed } })
  }

  return (
    <p>
      <label>
        Use your own music file{' '}
        <input type="file" accept="audio/*" onChange={(e) => choose(e.currentTarget.files?.[0])} />
      </label>
      {file && (
        <>
          {' '}
          <button type="button" className={css.way} onClick={tap}>
            Tap the beat
          </button>{' '}
          <span role="status">
            {file.speed
              ? `${file.speed} beats per minute, played in time with the class.`
              : 'Tap four times or more; until then it plays at its own speed.'}
          </span>{' '}
          <button type="button" className={css.way} onClick={() => choose(undefined)}>
            Remove
          </button>
        </>
      )}
      {trouble && <span role="alert">{trouble}</span>}
    </p>
  )
}

/** Records one word: pressed, said, pressed again. */
function Recorder({ word, has, onChange }: { word: string; has: boolean; onChange: () => void }) {
  const [recorder, setRecorder] = useState<MediaRecorder | null>(null)
  const [trouble, setTrouble] = useState('')

  async function start() {
    try {
      const stream = await navigator.mediaDevices.getUserMedia({ audio: true })
      const taking = new MediaRecorder(stream)
      const parts: Blob[] = []
      taking.ondataavailable = (event) => parts.push(event.data)
      taking.onstop = () => {
        stream.getTracks().forEach((track) => track.stop())
        void keepClip(word, new Blob(parts, { type: taking.mimeType })).then(onChange)
      }
      taking.start()
      setRecorder(taking)
    } catch {
      setTrouble('no microphone')
    }
  }

  return (
    <button
      type="button"
      className={css.person}
      aria-pressed={recorder !== null}
      onClick={() => {
        if (recorder) {
          recorder.stop()
          setRecorder(null)
        } else void start()
      }}
    >
      {recorder ? 'Stop' : has ? `✓ ${word}` : word}
      {trouble && ` (${trouble})`}
    </button>
  )
}
