import '@fontsource-variable/archivo/wdth.css'
import '@/interface/kit/theme/theme.css'
import type { Metadata, Viewport } from 'next'
import { cookies } from 'next/headers'
import type { ReactNode } from 'react'
import { DevicePreferences } from '@/interface/kit/theme/DevicePreferences'

export const metadata: Metadata = {
  title: { default: 'Yielding Saddle', template: '%s · Yielding Saddle' },
  description: 'Set riders up by landmarks, keep their numbers, note what is seen in class.',
}
export const viewport: Viewport = { width: 'device-width', initialScale: 1, viewportFit: 'cover' }

export default async function RootLayout({ children }: { children: ReactNode }) {
  const jar = await cookies()
  const light = jar.get('light')?.value === 'dim' ? 'dim' : 'bright'
  // Devices wrote the older word.
  const lengths = ['imperial', 'feet'].includes(jar.get('lengths')?.value ?? '') ? 'imperial' : 'metric'
  return (
    <html lang="en" data-light={light}>
      <body>
        <DevicePreferences light={light} lengths={lengths}>
          {children}
        </DevicePreferences>
      </body>
    </html>
  )
}
