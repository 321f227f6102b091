import type { MutateOptions } from '@tanstack/react-query'
import { useMutation } from '@tanstack/react-query'
import type { Schemas } from '../api/client'
import { answer, api, Refused } from '../api/client'
import { client } from './client'
import { ofMoves } from './documents'

/*
 * Single acts: each is one request that is sent once, in order, and kept until it has arrived. Anything that is typed
 * over and over is a document (see Saver).
 */

const byId = (id: string) => ({ params: { path: { id } } })

/** An act that is sent again, because its answer was lost, is known by this: what it adds is added once. */
const once = (change: string) => ({ headers: { 'Change-Id': change } })

/** What is gone already need not be taken away. */
const gone = async <T>(call: Promise<T>): Promise<T | undefined> => {
  try {
    return await call
  } catch (error) {
    if (error instanceof Refused && error.status === 404) return undefined
    throw error
  }
}

const acts = {
  addPerson: {
    send: (body: Schemas['Person'], change: string) => answer(api.POST('/api/people', { ...once(change), body })),
    changes: ['people'],
    says: 'That person could not be added.',
  },
  erasePerson: {
    send: ({ id, alone }: { id: string; alone: boolean }) =>
      gone(answer(api.DELETE('/api/people/{id}', { params: { path: { id }, query: { alone } } }))),
    changes: ['people'],
    says: 'That person could not be erased.',
  },
  addCircle: {
    send: (body: Schemas['CircleDetails'], change: string) =>
      answer(api.POST('/api/circles', { ...once(change), body })),
    changes: ['circles'],
    says: 'That group could not be added.',
  },
  partCircle: {
    send: (id: string) => gone(answer(api.DELETE('/api/circles/{id}', byId(id)))),
    changes: ['circles'],
    says: 'That group could not be removed.',
  },
  addRoom: {
    send: (body: Schemas['HallDetails'], change: string) => answer(api.POST('/api/rooms', { ...once(change), body })),
    changes: ['rooms'],
    says: 'That room could not be added.',
  },
  removeRoom: {
    send: (id: string) => gone(answer(api.DELETE('/api/rooms/{id}', byId(id)))),
    changes: ['rooms', 'room', 'floor', 'chosen'],
    says: 'That room could not be removed.',
  },
  removeClass: {
    send: (id: string) => gone(answer(api.DELETE('/api/classes/{id}', byId(id)))),
    changes: ['classes', 'sessions'],
    says: 'That class could not be removed.',
  },
  restoreClass: {
    send: (id: string) => answer(api.POST('/api/classes/{id}/restore', byId(id))),
    changes: ['classes', 'sessions'],
    says: 'That class could not be brought back.',
  },
  removeSession: {
    send: (id: string) => gone(answer(api.DELETE('/api/sessions/{id}', byId(id)))),
    changes: ['classes', 'sessions'],
    says: 'That class date could not be removed.',
  },
  restoreSession: {
    send: (id: string) => answer(api.POST('/api/sessions/{id}/restore', byId(id))),
    changes: ['classes', 'sessions'],
    says: 'That class date could not be brought back.',
  },
  addTemplate: {
    send: (body: Schemas['NewTemplate'], change: string) =>
      answer(api.POST('/api/templates', { ...once(change), body })),
    changes: ['templates'],
    says: 'The template could not be saved.',
  },
  removeTemplate: {
    send: (id: string) => gone(answer(api.DELETE('/api/templates/{id}', byId(id)))),
    changes: ['templates'],
    says: 'The template could not be removed.',
  },
  removeOwnMove: {
    send: (id: string) => gone(answer(api.DELETE('/api/own-moves/{id}', byId(id)))),
    changes: ['own-moves', ...ofMoves],
    says: 'Your move could not be removed.',
  },
} as const

type Acts = typeof acts
export type Act = keyof Acts
type Variables<A extends Act> = Parameters<Acts[A]['send']>[0]
type Answer<A extends Act> = Awaited<ReturnType<Acts[A]['send']>>

/** What is said where an act failed. */
export const actSays = (key: unknown) => (typeof key === 'string' && key in acts ? acts[key as Act].says : null)

interface Sent<V> {
  variables: V
  change: string
}

for (const [name, act] of Object.entries(acts)) {
  client.setMutationDefaults<unknown, Error, Sent<never>>([name], {
    mutationFn: ({ variables, change }) => act.send(variables, change),
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
export function useAct<A extends Act>(act: A) {
  const mutation = useMutation<Answer<A>, Error, Sent<Variables<A>>>({ mutationKey: [act] }, client)
  const sent = (variables: Variables<A>) => ({ variables, change: crypto.randomUUID() })
  type Options = MutateOptions<Answer<A>, Error, Sent<Variables<A>>>
  return {
    ...mutation,
    mutate: (variables: Variables<A>, options?: Options) => mutation.mutate(sent(variables), options),
    mutateAsync: (variables: Variables<A>, options?: Options) => mutation.mutateAsync(sent(variables), options),
  }
}
