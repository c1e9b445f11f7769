import type { Retention } from '../../../core/riders/retention/retention'
import { retentionOf } from '../../privacy/retention'
import type { AccessFilter, AccessKind, NamedAccess } from '../../privacy/accessLog/list'
import { listAccess } from '../../privacy/accessLog/list'
import { settleAccessLog } from '../../privacy/accessLog/settle'
import { ACCESS_KINDS } from '../../privacy/accessLog/tables'
import type { Scope } from '../../platform/accounts/scope'
import type { Database } from '../../platform/db/connection'
import { isId } from '../../platform/ids'
import { currentWording, type Wording } from '../../riders/consent'
import { findMember } from '../../riders/members/members'
import { listPeople } from '../../studio/people'
import { getStudio } from '../../studio/studio'

/** The log's filter in an address; ignores invalid values. */
export type AccessQuery = Readonly<Partial<{ who: string; about: string; kind: AccessKind; before: number }>>

/** Privacy of the studio: who saw and changed what. */
export type PrivacyPage = Readonly<{
  timeZone: string
  retention: Retention
  wording: Wording
  people: readonly Readonly<{ id: string; name: string }>[]
  query: AccessQuery
  /** The member the log is narrowed to. */
  about: Readonly<{ id: string; name: string }> | null
  entries: readonly NamedAccess[]
  more: boolean
}>

type Asked = Readonly<Record<string, string | string[] | undefined>>

/** The entries of the log that match an address' filter. */
export function accessQuery({ who, about, kind, before }: Asked): AccessQuery {
  const listed = ACCESS_KINDS.find((one) => one === kind)
  const position = Number(before)
  return {
    ...(isId(who) && { who }),
    ...(isId(about) && { about }),
    ...(listed && { kind: listed }),
    ...(typeof before === 'string' && Number.isSafeInteger(position) && position > 0 && { before: position }),
  }
}

export async function privacyPage(db: Database, scope: Scope, query: AccessQuery): Promise<PrivacyPage> {
  await settleAccessLog(db, scope.studioId)
  const { who, about, kind, before } = query
  const filter: AccessFilter = { actor: who, subject: about, kind, before }
  const [{ timeZone }, people, member, { entries, more }] = [
    await getStudio(db, scope),
    await listPeople(db, scope),
    about ? await findMember(db, scope, about) : null,
    await listAccess(db, scope, filter),
  ]
  return {
    timeZone,
    retention: await retentionOf(db, scope),
    wording: await currentWording(db, scope),
    people: people.map(({ id, name }) => ({ id, name })),
    query,
    about: about ? { id: about, name: member?.name ?? about } : null,
    entries,
    more,
  }
}
