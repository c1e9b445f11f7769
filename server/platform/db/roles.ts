/** What a person is to their studio. */
export const ROLES = ['manager', 'instructor', 'trainee', 'desk'] as const
export type Role = (typeof ROLES)[number]
