import { useMutation } from '@tanstack/react-query'
import type { Schemas } from '../api/client'
import { answer, api } from '../api/client'
import { client } from './client'

/*
 * Single acts: each is one request that is sent once, in order, and kept until it has arrived. Anything that is typed
 * over and over is a document (see Saver).
 */

const byId = (id: string) => ({ params: { path: { id } } })

const acts = {
  addPerson: {
    send: (body: Schemas['Person']) => answer(api.POST('/api/people', { body })),
    changes: ['people'],
    says: 'A person could not be added.',
  },
  changePerson: {
    send: (body: Schemas['Person']) => answer(api.PUT('/api/people/{id}', { ...byId(body.id), body })),
    changes: ['people'],
    says: 'A person could not be changed.',
  },
  erasePerson: {
    send: (id: string) => answer(api.DELETE('/api/people/{id}', byId(id))),
    changes: ['people'],
    says: 'A person could not be erased.',
  },
  addCircle: {
    send: (body: Schemas['CircleDetails']) => answer(api.POST('/api/circles', { body })),
    changes: ['circles'],
    says: 'A group could not be added.',
  },
  keepCircle: {
    send: ({ id, ...body }: Schemas['Circle']) => answer(api.PUT('/api/circles/{id}', { ...byId(id), body })),
    changes: ['circles'],
    says: 'A group could not be changed.',
  },
  partCircle: {
    send: (id: string) => answer(api.DELETE('/api/circles/{id}', byId(id))),
    changes: ['circles'],
    says: 'A group could not be removed.',
  },
  chooseSessionRoom: {
    send: ({ id, ...body }: Schemas['SessionRoomDetails'] & { id: string }) =>
      answer(api.PUT('/api/sessions/{id}/chosen', { ...byId(id), body })),
    changes: ['floor', 'room'],
    says: 'What was chosen for the room could not be saved.',
  },
  addRoom: {
    send: (body: Schemas['HallDetails']) => answer(api.POST('/api/rooms', { body })),
    changes: ['rooms'],
    says: 'A room could not be added.',
  },
  keepRoom: {
    send: ({ id, ...body }: Schemas['StoredHall']) => answer(api.PUT('/api/rooms/{id}', { ...byId(id), body })),
    changes: ['room', 'floor'],
    says: 'A room could not be changed.',
  },
  removeRoom: {
    send: (id: string) => answer(api.DELETE('/api/rooms/{id}', byId(id))),
    changes: ['rooms', 'room', 'floor', 'chosen'],
    says: 'A room could not be removed.',
  },
  removeClass: {
    send: (id: string) => answer(api.DELETE('/api/classes/{id}', byId(id))),
    changes: ['classes', 'sessions'],
    says: 'A class could not be removed.',
  },
  restoreClass: {
    send: (id: string) => answer(api.POST('/api/classes/{id}/restore', byId(id))),
    changes: ['classes', 'sessions'],
    says: 'A class could not be put back.',
  },
  removeSession: {
    send: (id: string) => answer(api.DELETE('/api/sessions/{id}', byId(id))),
    changes: ['classes', 'sessions'],
    says: 'A session could not be removed.',
  },
  restoreSession: {
    send: (id: string) => answer(api.POST('/api/sessions/{id}/restore', byId(id))),
    changes: ['classes', 'sessions'],
    says: 'A session could not be put back.',
  },
  addTemplate: {
    send: (body: Schemas['NewTemplate']) => answer(api.POST('/api/templates', { body })),
    changes: ['templates'],
    says: 'A template could not be kept.',
  },
  removeTemplate: {
    send: (id: string) => answer(api.DELETE('/api/templates/{id}', byId(id))),
    changes: ['templates'],
    says: 'A template could not be removed.',
  },
  saveOwnMoves: {
    send: (moves: Schemas['PlanMove'][]) => answer(api.PUT('/api/own-moves', { body: { moves } })),
    changes: ['moves', 'move', 'own-moves', 'figures', 'search', 'station'],
    // The form says it itself, beside what was typed.
    says: null,
  },
  removeOwnMove: {
    send: (id: string) => answer(api.DELETE('/api/own-moves/{id}', byId(id))),
    changes: ['moves', 'move', 'own-moves', 'figures', 'search', 'station'],
    says: 'A move of your own could not be removed.',
  },
  savePreferences: {
    send: (body: Schemas['Preferences']) => answer(api.PUT('/api/settings/preferences', { body })),
    changes: ['starters', 'station'],
    says: 'The settings could not be saved.',
  },
  saveFitTerms: {
    send: (body: Schemas['FitTerms']) => answer(api.PUT('/api/settings/fit', { body })),
    changes: [],
    says: 'The limits could not be saved.',
  },
} as const

type Acts = typeof acts
export type Act = keyof Acts
type Variables<A extends Act> = Parameters<Acts[A]['send']>[0]
type Answer<A extends Act> = Awaited<ReturnType<Acts[A]['send']>>

/** What is said where an act failed. */
export const actSays = (key: unknown) => (typeof key === 'string' && key in acts ? acts[key as Act].says : null)

for (const [name, act] of Object.entries(acts)) {
  client.setMutationDefaults<unknown, Error, never>([name], {
    mutationFn: act.send,
    scope: { id: 'acts' },
    meta: { act: true },
    onSuccess: async () => {
      // A first answer still under way was asked for before the act and would stand as the newest: it is dropped.
      await Promise.all(act.changes.map((key) => client.cancelQueries({ queryKey: [key] })))
      await Promise.all(act.changes.map((key) => client.invalidateQueries({ queryKey: [key] })))
    },
  })
}

/** Sends an act; a failure is told on every screen until it is tried again or let go. */
export const useAct = <A extends Act>(act: A) =>
  useMutation<Answer<A>, Error, Variables<A>>({ mutationKey: [act] }, client)
