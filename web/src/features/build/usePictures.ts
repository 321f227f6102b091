import { createContext, useEffect } from 'react'
import { useStore } from 'zustand'
import { useClassEditor } from '../editor/context'
import type { Pictures } from '../editor/Looker'

export type { Pictures }

export const PicturesContext = createContext<Pictures | undefined>(undefined)

/** The figures of the class whose screens these are; those of before while a change is drawn. */
export function usePictures(): Pictures | undefined {
  const { looker } = useClassEditor().core
  useEffect(() => looker.want('figures'), [looker])
  return useStore(looker.store, (known) => known.pictures)
}
