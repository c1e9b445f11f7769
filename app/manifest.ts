import type { MetadataRoute } from 'next'

/** Makes the product installable: it opens on the classes. */
export default function manifest(): MetadataRoute.Manifest {
  return {
    name: 'Yielding Saddle',
    short_name: 'Saddle',
    description: 'Set riders up by landmarks, keep their numbers, note what is seen in class.',
    start_url: '/today',
    display: 'standalone',
    background_color: '#0e1618',
    theme_color: '#0e1618',
    icons: [{ src: '/icon.svg', sizes: 'any', type: 'image/svg+xml', purpose: 'any' }],
  }
}
