/** What a browser has and the simulated page has not: sizes never change there, and motion is not wanted. */
globalThis.ResizeObserver ??= class {
  observe() {}
  unobserve() {}
  disconnect() {}
}
window.matchMedia ??= () => ({ matches: true }) as MediaQueryList
/** One way is enough here, by a timer: Node's own channel would keep Jest open. */
globalThis.MessageChannel ??= class {
  readonly port1 = { onmessage: null as (() => void) | null }
  readonly port2 = { postMessage: () => void setTimeout(() => this.port1.onmessage?.()) }
} as unknown as typeof MessageChannel
