import { Link, useParams } from 'react-router'
import { useTabName } from '../../ui/Page'
import css from './Try.module.css'

/** A wall and a phone side by side on one machine, so that everything can be tried without a second device. */
export function TryPage() {
  const { session = '' } = useParams()
  useTabName('Wall and phone')
  return (
    <main className={css.page}>
      <p>
        Previews of the wall and the phone for this class. <Link to={`/lead/${session}`}>Back to leading</Link>
      </p>
      <iframe className={css.wall} src={`/wall/${session}`} title="The wall" />
      <iframe className={css.phone} src={`/remote/${session}`} title="The phone" />
    </main>
  )
}
