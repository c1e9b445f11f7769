import type { DefinedError } from 'ajv'

type Validator = ((value: unknown) => boolean) & { errors?: DefinedError[] | null }
export const place: Validator
export const pose: Validator
export const calibrate: Validator
export const recommend: Validator
export const alone: Validator
export const body: Validator
export const typeFile: Validator
export const evidence: Validator
export const bikeType: Validator
export const studioSettings: Validator
export const learn: Validator
export const suggestions: Validator
export const translate: Validator
export const afterChange: Validator
export const misSet: Validator
export const machineResiduals: Validator
export const accommodation: Validator
export const plan: Validator
export const explain: Validator
export const blocks: Validator
export const roomPlan: Validator
export const stand: Validator
