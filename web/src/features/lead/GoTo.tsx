import type { Schemas } from '../../api/client'
import { lengthOf } from '../../leading/core/fold'
import css from './Stage.module.css'

interface Props {
  scenes: Schemas['Scene'][]
  added: number[]
  off: boolean
  onGo: (scene: number) => void
}

/** Forwards or back to where a block or a round begins. */
export function GoTo({ scenes, added, off, onGo }: Props) {
  const places = scenes.flatMap((scene, i) => {
    const before = scenes[i - 1]
    const begins = before?.block !== scene.block || (scene.round && before.round !== scene.round)
    return begins && lengthOf(scenes, added, i) > 0
      ? [{ scene: i, words: scene.round ? `${scene.blockName}, ${scene.round.toLowerCase()}` : scene.blockName }]
      : []
  })
  return (
    <select
      className={css.control}
      aria-label="Go to"
      disabled={off}
      value=""
      onChange={(event) => {
        onGo(Number(event.currentTarget.value))
        event.currentTarget.blur()
      }}
    >
      <option value="" disabled>
        Go to …
      </option>
      {places.map((place) => (
        <option key={place.scene} value={place.scene}>
          {place.words}
        </option>
      ))}
    </select>
  )
}
