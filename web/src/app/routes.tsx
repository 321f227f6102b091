import type { RouteObject } from 'react-router'
import { Navigate } from 'react-router'
import { Broken, Missing, Opening, Shell } from './Shell'

/** Each screen comes when it is first gone to. */
const steps: RouteObject[] = [
  { index: true, element: <Navigate to="build" replace /> },
  { path: 'brief', lazy: async () => ({ Component: (await import('../features/brief/BriefPage')).BriefPage }) },
  { path: 'build', lazy: async () => ({ Component: (await import('../features/build/BuildPage')).BuildPage }) },
  { path: 'room', lazy: async () => ({ Component: (await import('../features/room/RoomPage')).RoomPage }) },
  { path: 'cards', lazy: async () => ({ Component: (await import('../features/cards/CardsPage')).CardsPage }) },
  { path: 'ready', lazy: async () => ({ Component: (await import('../features/checks/ReadyPage')).ReadyPage }) },
  { path: 'log', lazy: async () => ({ Component: (await import('../features/log/LogPage')).LogPage }) },
]

const layout = async () => ({ Component: (await import('../features/editor/ClassLayout')).ClassLayout })
const toLead = async () => ({ Component: (await import('../features/editor/ClassLayout')).ToLead })

export const routes: RouteObject[] = [
  {
    element: <Shell />,
    errorElement: <Broken />,
    HydrateFallback: Opening,
    children: [
      { path: '/', lazy: async () => ({ Component: (await import('../features/classes/ClassesPage')).ClassesPage }) },
      {
        path: '/people',
        lazy: async () => ({ Component: (await import('../features/people/PeoplePage')).PeoplePage }),
      },
      {
        path: '/people/import',
        lazy: async () => ({ Component: (await import('../features/people/ImportPage')).ImportPage }),
      },
      { path: '/people/desk', lazy: async () => ({ Component: (await import('../features/desk/DeskPage')).DeskPage }) },
      {
        path: '/people/slip',
        lazy: async () => ({ Component: (await import('../features/people/SlipPage')).SlipPage }),
      },
      {
        path: '/people/:person',
        lazy: async () => ({ Component: (await import('../features/people/PersonPage')).PersonPage }),
      },
      { path: '/weeks', lazy: async () => ({ Component: (await import('../features/weeks/WeeksPage')).WeeksPage }) },
      {
        path: '/weeks/series/:series',
        lazy: async () => ({ Component: (await import('../features/weeks/SeriesPage')).SeriesPage }),
      },
      {
        path: '/people/:person/sheet',
        lazy: async () => ({ Component: (await import('../features/people/HandoutPage')).HandoutPage }),
      },
      { path: '/rooms', lazy: async () => ({ Component: (await import('../features/room/HallsPage')).HallsPage }) },
      { path: '/moves', lazy: async () => ({ Component: (await import('../features/moves/MovesPage')).MovesPage }) },
      {
        path: '/moves/new',
        lazy: async () => ({ Component: (await import('../features/moves/OwnMovePage')).OwnMovePage }),
      },
      {
        path: '/moves/:move',
        lazy: async () => ({ Component: (await import('../features/moves/MovePage')).MovePage }),
      },
      {
        path: '/moves/:move/edit',
        lazy: async () => ({ Component: (await import('../features/moves/OwnMovePage')).OwnMovePage }),
      },
      {
        path: '/settings',
        lazy: async () => ({ Component: (await import('../features/settings/SettingsPage')).SettingsPage }),
      },
      {
        path: '/classes/new',
        lazy: async () => ({ Component: (await import('../features/brief/NewClassPage')).NewClassPage }),
      },
      { path: '/classes/:id/lead', lazy: toLead },
      { path: '/classes/:id/on/:session/lead', lazy: toLead },
      { path: '/classes/:id', lazy: layout, children: steps },
      { path: '/classes/:id/on/:session', lazy: layout, children: steps },
      {
        path: '/lead/:session',
        lazy: async () => ({ Component: (await import('../features/lead/LeadPage')).LeadPage }),
      },
      { path: '/wall', lazy: async () => ({ Component: (await import('../features/wall/WallPage')).WallPage }) },
      {
        path: '/wall/:session',
        lazy: async () => ({ Component: (await import('../features/wall/WallPage')).WallPage }),
      },
      {
        path: '/remote',
        lazy: async () => ({ Component: (await import('../features/remote/RemotePage')).RemotePage }),
      },
      {
        path: '/remote/:session',
        lazy: async () => ({ Component: (await import('../features/remote/RemotePage')).RemotePage }),
      },
      { path: '/try/:session', lazy: async () => ({ Component: (await import('../features/wall/TryPage')).TryPage }) },
      {
        path: '/rehearse/:session',
        lazy: async () => ({ Component: (await import('../features/lead/RehearsePage')).RehearsePage }),
      },
      { path: '/pair', lazy: async () => ({ Component: (await import('../features/remote/PairPage')).PairPage }) },
      { path: '*', element: <Missing /> },
    ],
  },
]
