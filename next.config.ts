import { existsSync } from 'node:fs'
import { join } from 'node:path'
import type { NextConfig } from 'next'

const root = import.meta.dirname
const distDir = process.env.NEXT_DIST ?? '.next'

const config: NextConfig = {
  distDir,
  outputFileTracingRoot: root,
  // Read at run time by path, which the tracer does not see.
  outputFileTracingIncludes: { '/**': ['./node_modules/@fontsource/archivo/files/archivo-latin-*-normal.woff'] },
  turbopack: { root },
  serverExternalPackages: ['mysql2', '@node-rs/argon2', 'piscina', 'pdfkit'],
  // A file of a hundred types is larger than the usual limit of an action.
  experimental: {
    serverActions: { bodySizeLimit: '3mb' },
    // Few unrelated styles on a page rather than few requests: all come over one connection.
    // Scripts of twice the usual size, half as many a page: requests cost more than the few bytes sent twice.
    turbopackChunking: { requestCost: 600_000, maxMergeChunkSize: 600_000, minChunkSize: 150_000 },
    turbopackSourceMaps: process.env.NODE_ENV !== 'production',
    // Of use to the next build alone; a fresh clone is built once.
    turbopackFileSystemCacheForBuild: existsSync(join(root, distDir, 'BUILD_ID')),
    cssChunking: { type: 'graph', requestCost: 2000, weightDistribution: 0.3 },
  },
  // `npm test` checks the types once, beside the build.
  typescript: { ignoreBuildErrors: true },
  poweredByHeader: false,
  // The title comes with the page's head, never later: a page is not without a name for a moment.
  htmlLimitedBots: /.*/,
  devIndicators: false,
  // What answers with data carries no script; for pages see `proxy.ts`.
  headers: () =>
    Promise.resolve([
      {
        source: '/api/:path*',
        headers: Object.entries({
          'content-security-policy': DATA_POLICY,
          'x-content-type-options': 'nosniff',
          'referrer-policy': 'same-origin',
          'x-frame-options': 'DENY',
          'permissions-policy': 'camera=(self), microphone=(), geolocation=()',
        }).map(([key, value]) => ({ key, value })),
      },
    ]),
}

const DATA_POLICY =
  "default-src 'self'; script-src 'none'; style-src 'self' 'unsafe-inline'; img-src 'self' data:; object-src 'none'; " +
  "base-uri 'none'; form-action 'none'; frame-ancestors 'none'"

export default config
