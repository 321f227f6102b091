import type { Move, Schemas } from '../../api/client'
import { Thumb } from '../../ui/FigureView'
import css from './Moves.module.css'

/** A move on its card: its figure, else its photo. */
export function MovePicture({ move, thumb }: { move: Move; thumb: Schemas['Thumbnail'] | undefined }) {
  return (
    <span className={css.picture}>
      {thumb ? (
        <Thumb figure={thumb.figure} />
      ) : (
        move.picture && <img className={css.photo} src={move.picture} alt="" />
      )}
    </span>
  )
}
