import { Button } from '@mantine/core'
import { Page } from '../../ui/Page'
import css from './People.module.css'
import { cautions } from './words'

/** A slip to read and keep for everyone who joins; two on a page, cut apart. */
export function SlipPage() {
  return (
    <Page name="Before you join" narrow>
      <p data-screen-only>
        <Button onClick={() => window.print()}>Print, two per page</Button>
      </p>
      {[1, 2].map((copy) => (
        <section key={copy} className={css.slip} data-second={copy === 2}>
          <h1>Before you join</h1>
          <ul>
            {cautions.map((caution) => (
              <li key={caution}>{caution}</li>
            ))}
          </ul>
          <p>Please read this, ask if anything is unclear, and keep it.</p>
        </section>
      ))}
    </Page>
  )
}
