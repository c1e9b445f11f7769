import { defineKind } from '../defineKind'

/** The bike was set here (`at`): as told, or overruled. */
export const set = defineKind({
  kind: 'set',
  fields: {},
  name: 'setting',
  about: 'reported',
  askedAt: null,
  likelihood: () => null,
})
