import { Thumb } from '../../ui/FigureView'
import { usePictures } from '../build/usePictures'
import css from './Room.module.css'
import type { Room } from './useRoom'
import { tierWord } from '../../ui/words'

/** The other way round: by station, who does which option, for the walk-through. Easier below, harder above, as everywhere. */
export function StationsTab({ room }: { room: Room }) {
  const pictures = usePictures()
  return (
    <ol className={css.stations}>
      {room.stations.map((station, i) => (
        <li key={station.station}>
          {room.stations[i - 1]?.block !== station.block && <h2>{station.blockName}</h2>}
          <section aria-label={`Station ${station.number}: ${station.name}`}>
            <h3>
              {station.number}. {station.name}
            </h3>
            <ul>
              {[...station.ways].reverse().map((way) => {
                const figure = pictures?.get(way.option)
                return (
                  <li key={way.option}>
                    <span className={css.panelFigure}>{figure && <Thumb figure={figure} />}</span>
                    <span>
                      <strong>{way.words}</strong> <small className={css.soft}>{tierWord(way.tier)}</small>
                      <br />
                      {[...way.who, ...(way.unnamed > 0 ? [`${way.unnamed} more without a name`] : [])].join(', ')}
                    </span>
                  </li>
                )
              })}
            </ul>
            {station.pairs.length > 0 && <p>Pairs: {station.pairs.join('; ')}.</p>}
            {station.lies.length > 0 && <p className={css.soft}>Put out: {station.lies.join(', ')}.</p>}
          </section>
        </li>
      ))}
    </ol>
  )
}
