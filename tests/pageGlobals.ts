/** What a browser has and the simulated page has not: sizes never change there, and motion is not wanted. */
globalThis.ResizeObserver ??= class {
  observe() {}
  unobserve() {}
  disconnect() {}
}
window.matchMedia ??= () => ({ matches: true }) as MediaQueryList
