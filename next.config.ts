import type { NextConfig } from 'next'

const root = import.meta.dirname

const config: NextConfig = {
  distDir: process.env.NEXT_DIST ?? '.next',
  outputFileTracingRoot: root,
  turbopack: { root },
  serverExternalPackages: ['mysql2', '@node-rs/argon2'],
  poweredByHeader: false,
  devIndicators: false,
}

export default config
