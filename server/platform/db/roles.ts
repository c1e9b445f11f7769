/** What a person is to their studio. */
export const ROLES = ['manager', 'instructor', 'desk'] as const
export type Role = (typeof ROLES)[number]
