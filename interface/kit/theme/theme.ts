import { theme as antd, type ThemeConfig } from 'antd'
import type { Light } from './DevicePreferences'

const FONT = `'Archivo Variable', system-ui, sans-serif`

/** The component library's tokens, set once: the same colours as `theme.css`, large targets, no stock blue. */
export const themeFor = (light: Light): ThemeConfig => THEMES[light]

function themeOf(c: typeof BRIGHT, algorithm: typeof antd.defaultAlgorithm): ThemeConfig {
  return {
    algorithm: remembering(algorithm),
    zeroRuntime: true,
    hashed: false,
    cssVar: { key: 'saddle' },
    token: {
      fontFamily: FONT,
      fontSize: 16,
      controlHeight: 48,
      controlHeightLG: 56,
      controlHeightSM: 40,
      borderRadius: 10,
      borderRadiusLG: 14,
      colorPrimary: c.act,
      colorInfo: c.act,
      colorLink: c.act,
      colorSuccess: c.good,
      colorError: c.bad,
      colorWarning: c.act,
      colorErrorBg: c.badBed,
      colorErrorBorder: c.bad,
      colorWarningBg: c.actBed,
      colorBgBase: c.ground,
      colorTextBase: c.ink,
      colorBgContainer: c.raised,
      colorBgElevated: c.raised,
      colorBgLayout: c.ground,
      colorBorder: c.line,
      colorBorderSecondary: c.line,
      colorBorderDisabled: c.line,
      colorText: c.ink,
      colorTextSecondary: c.soft,
      colorTextPlaceholder: c.soft,
      colorTextLightSolid: c.actInk,
      wireframe: false,
      // Motion only where it explains: the drawing moves, the component library does not.
      motion: false,
    },
    components: {
      Button: {
        colorPrimary: c.act,
        colorPrimaryHover: c.actOver,
        colorPrimaryActive: c.actOver,
        primaryColor: c.actInk,
        primaryShadow: 'none',
        defaultShadow: 'none',
        dangerShadow: 'none',
        fontWeight: 600,
      },
      Input: { activeShadow: 'none' },
    },
  }
}

const BRIGHT = {
  ground: '#f2ede3',
  raised: '#fbf8f2',
  line: '#cfc6b4',
  ink: '#1b2628',
  soft: '#546063',
  act: '#a83f06',
  actOver: '#8f3403',
  actInk: '#fff8f1',
  good: '#14665a',
  bad: '#9c1f2e',
  badBed: '#f7dfd8',
  actBed: '#f9e5d2',
}
const DIM = {
  ground: '#0e1618',
  raised: '#172224',
  line: '#2c3b3d',
  ink: '#f2ecdf',
  soft: '#9fb1af',
  act: '#ff9a55',
  actOver: '#ffb27d',
  actInk: '#1d0f04',
  good: '#5bcaa6',
  bad: '#ff8a8a',
  badBed: '#34191c',
  actBed: '#33200f',
}

type Algorithm = typeof antd.defaultAlgorithm

/** The library computes its palettes again for every page the server renders: of the same tokens they are the same. */
function remembering(algorithm: Algorithm): Algorithm {
  const cache = new Map<string, ReturnType<Algorithm>>()
  return (seed) => {
    const key = JSON.stringify(seed)
    const found = cache.get(key) ?? algorithm(seed)
    cache.set(key, found)
    return { ...found }
  }
}

const THEMES: Readonly<Record<Light, ThemeConfig>> = {
  bright: themeOf(BRIGHT, antd.defaultAlgorithm),
  dim: themeOf(DIM, antd.darkAlgorithm),
}
