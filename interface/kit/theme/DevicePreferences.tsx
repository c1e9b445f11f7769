'use client'
import { createContext, useContext, useEffect, useLayoutEffect, useState, type ReactNode } from 'react'
import type { UnitSystem } from '@/core/base/length'

export type Light = 'bright' | 'dim'

const LightContext = createContext<{ light: Light; turn: () => void }>({ light: 'bright', turn: () => undefined })
export const useLight = () => useContext(LightContext)

const LengthsContext = createContext<{ shown: UnitSystem; swap: () => void }>({
  shown: 'metric',
  swap: () => undefined,
})
/** How this device shows lengths; typed lengths are read in every spelling either way. */
export const useUnitSystem = () => useContext(LengthsContext)

/** The light and how lengths are shown; both choices are stored per device in a cookie the layout reads. */
export function DevicePreferences({
  light: first,
  lengths,
  children,
}: {
  light: Light
  lengths: UnitSystem
  children: ReactNode
}) {
  const [light, setLight] = useState(first)
  const [shown, setShown] = useState(lengths)
  // Marks the page as interactive; the browser tests wait for it.
  useEffect(() => {
    document.documentElement.dataset.ready = 'true'
  }, [])
  // A page fetched before the light was turned brings the earlier one with it.
  useLayoutEffect(() => {
    document.documentElement.dataset.light = light
  }, [light, first])
  const turn = () => {
    const next: Light = light === 'dim' ? 'bright' : 'dim'
    storeOnDevice('light', next)
    setLight(next)
  }
  const swap = () => {
    const next: UnitSystem = shown === 'imperial' ? 'metric' : 'imperial'
    storeOnDevice('lengths', next)
    setShown(next)
  }
  return (
    <LightContext.Provider value={{ light, turn }}>
      <LengthsContext.Provider value={{ shown, swap }}>{children}</LengthsContext.Provider>
    </LightContext.Provider>
  )
}

function storeOnDevice(name: string, value: string): void {
  document.cookie = `${name}=${value}; path=/; max-age=31536000; samesite=lax`
}
