/** A channel to other tabs keeps Node running after the last test; here there is one tab, and nobody listens. */
Reflect.deleteProperty(globalThis, 'BroadcastChannel')
