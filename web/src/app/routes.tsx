import type { RouteObject } from 'react-router'
import { Navigate } from 'react-router'
import { BriefPage } from '../features/brief/BriefPage'
import { NewClassPage } from '../features/brief/NewClassPage'
import { BuildPage } from '../features/build/BuildPage'
import { CardsPage } from '../features/cards/CardsPage'
import { ClassesPage } from '../features/classes/ClassesPage'
import { ClassLayout } from '../features/editor/ClassLayout'
import { LeadPage } from '../features/lead/LeadPage'
import { LogPage } from '../features/log/LogPage'
import { MovePage } from '../features/moves/MovePage'
import { OwnMovePage } from '../features/moves/OwnMovePage'
import { MovesPage } from '../features/moves/MovesPage'
import { PeoplePage } from '../features/people/PeoplePage'
import { SettingsPage } from '../features/settings/SettingsPage'
import { Broken, Missing, Shell } from './Shell'

export const routes: RouteObject[] = [
  {
    element: <Shell />,
    errorElement: <Broken />,
    children: [
      { path: '/', element: <ClassesPage /> },
      { path: '/people', element: <PeoplePage /> },
      { path: '/moves', element: <MovesPage /> },
      { path: '/moves/new', element: <OwnMovePage /> },
      { path: '/moves/:move', element: <MovePage /> },
      { path: '/moves/:move/edit', element: <OwnMovePage /> },
      { path: '/settings', element: <SettingsPage /> },
      { path: '/classes/new', element: <NewClassPage /> },
      {
        path: '/classes/:id',
        element: <ClassLayout />,
        children: [
          { index: true, element: <Navigate to="build" replace /> },
          { path: 'brief', element: <BriefPage /> },
          { path: 'build', element: <BuildPage /> },
          { path: 'cards', element: <CardsPage /> },
          { path: 'lead', element: <LeadPage /> },
          { path: 'log', element: <LogPage /> },
        ],
      },
      { path: '*', element: <Missing /> },
    ],
  },
]
