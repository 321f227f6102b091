import { Anchor, Loader } from '@mantine/core'
import { Link, NavLink, Outlet, useLocation, useRouteError } from 'react-router'
import { DataTrouble } from '../save/DataTrouble'
import { Notices } from '../save/Notices'
import { useTrouble } from '../api/trouble'
import { ErrorNote } from '../ui/ErrorNote'
import css from './Shell.module.css'
import { useFocusKept } from './useFocusKept'

/** Screens that are seen from afar, or by whoever was let in, have no band. */
const ALONE = /^\/(lead|wall|remote|pair|try|rehearse)(\/|$)/

/** The band on top of every screen but those of a class under way. */
export function Shell() {
  const trouble = useTrouble()
  const alone = ALONE.test(useLocation().pathname)
  useFocusKept()
  if (trouble) return <DataTrouble trouble={trouble} />
  if (alone) return <Outlet />
  return (
    <>
      <header className={css.band} data-screen-only>
        <button
          type="button"
          className={css.skip}
          onClick={() => {
            const main = document.querySelector<HTMLElement>('main')
            main?.setAttribute('tabindex', '-1')
            main?.focus()
          }}
        >
          Skip to the main part
        </button>
        <div className={css.inner}>
          <Link to="/" className={css.name}>
            <svg width="34" height="18" viewBox="0 0 34 18" aria-hidden="true">
              <path
                d="M9 2C3 5 3 13 9 16L12 12C10 11 10 7 12 6ZM25 2C31 5 31 13 25 16L22 12C24 11 24 7 22 6ZM11 9H23"
                fill="currentColor"
                stroke="currentColor"
                strokeWidth="2"
                strokeLinejoin="round"
              />
            </svg>
            <span className={css.word}>Halterion</span>
          </Link>
          <nav aria-label="Main" className={css.nav}>
            <NavLink to="/" end>
              Classes
            </NavLink>
            <NavLink to="/weeks">Weeks</NavLink>
            <NavLink to="/moves">Moves</NavLink>
            <NavLink to="/people">People</NavLink>
            <NavLink to="/rooms">Rooms</NavLink>
            <NavLink to="/settings">Settings</NavLink>
          </nav>
        </div>
      </header>
      <Outlet />
      <Notices />
    </>
  )
}

/** While the first screen is fetched. */
export const Opening = () => <Loader m="xl" aria-label="Opening" />

export function Missing() {
  return (
    <ErrorNote title="This page does not exist.">
      <Anchor component={Link} to="/">
        Go to Classes
      </Anchor>
    </ErrorNote>
  )
}

/** Where a screen itself failed: nothing typed is lost, for drafts are kept as they are typed. */
export function Broken() {
  const error = useRouteError()
  return (
    <ErrorNote title="Something went wrong on this screen. What you typed is safe.">
      <p>{error instanceof Error ? error.message : 'No details are known.'}</p>
      <Anchor href={window.location.pathname}>Reload this screen</Anchor>
    </ErrorNote>
  )
}
