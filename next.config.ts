import type { NextConfig } from 'next'

const root = import.meta.dirname

const config: NextConfig = {
  distDir: process.env.NEXT_DIST ?? '.next',
  outputFileTracingRoot: root,
  turbopack: { root },
  serverExternalPackages: ['mysql2', '@node-rs/argon2', 'piscina', 'pdfkit'],
  // A file of a hundred types is larger than the usual limit of an action.
  experimental: { serverActions: { bodySizeLimit: '3mb' } },
  poweredByHeader: false,
  // The title comes with the page's head, never later: a page is not without a name for a moment.
  htmlLimitedBots: /.*/,
  devIndicators: false,
}

export default config
