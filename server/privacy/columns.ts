/**
 * Kind of a column's data: `health` of a rider, the `identity` of a rider or an employee, or `neither`. A
 * key of another row is `neither`: personal data is in the row it names.
 */
export type DataKind = 'health' | 'identity' | 'neither'

type TableKinds = Readonly<Partial<Record<DataKind, readonly string[]>>>

/** Columns that mean the same in every table, all `neither`. */
export const COMMON_COLUMNS: readonly string[] = ['id', 'position', 'studio_id', 'created_at', 'created_by']

/**
 * Every column of the database but the common ones, by table. Encryption, export, erasure, archive, roles and the
 * access log follow from it, and a test fails for a column without an entry.
 */
export const COLUMN_KINDS: Readonly<Record<string, TableKinds>> = Object.freeze({
  // Who works here, and how they sign in.
  studio: {
    identity: ['name', 'place'],
    neither: [
      'time_zone',
      'school',
      'costs',
      'learns',
      'referral',
      'second_factor_for',
      'retention',
      'riders_alone',
      'care_intervals',
    ],
  },
  user: {
    identity: ['name', 'email', 'image', 'username', 'display_username'],
    neither: [
      'email_verified',
      'role',
      'is_program',
      'ended_at',
      'two_factor_enabled',
      'second_factor_due',
      'updated_at',
    ],
  },
  session: {
    identity: ['token', 'ip_address', 'user_agent'],
    neither: ['user_id', 'expires_at', 'updated_at', 'tablet_id', 'touched_at', 'idle_minutes', 'by_passkey'],
  },
  account: {
    identity: ['account_id', 'password', 'access_token', 'refresh_token', 'id_token'],
    neither: ['provider_id', 'user_id', 'access_token_expires_at', 'refresh_token_expires_at', 'scope', 'updated_at'],
  },
  verification: { identity: ['identifier', 'value'], neither: ['expires_at', 'updated_at'] },
  two_factor: {
    identity: ['secret', 'backup_codes'],
    neither: ['user_id', 'verified', 'failed_verification_count', 'locked_until'],
  },
  passkey: {
    identity: ['public_key', 'credential_id'],
    neither: ['name', 'user_id', 'counter', 'device_type', 'backed_up', 'transports', 'aaguid'],
  },
  user_secret: { identity: ['pin_hash', 'device_key'], neither: ['user_id'] },
  tablet: { identity: ['token_hash'], neither: ['name', 'room_id', 'idle_minutes', 'used_at', 'ended_at'] },
  sign_in_attempts: { identity: ['key'], neither: ['points', 'expire'] },
  rate_limit: { identity: ['key'], neither: ['count', 'last_request'] },
  invitation: { identity: ['token_hash'], neither: ['role', 'user_id', 'expires_at', 'used_at', 'revoked_at'] },

  studio_key: { identity: ['private_key'], neither: ['public_key'] },
  known_studio: { identity: ['name'], neither: ['key'] },
  api_key: { identity: ['key_hash'], neither: ['user_id', 'scope', 'used_at', 'revoked_at'] },

  // Riders.
  member: {
    identity: ['name', 'number', 'email'],
    health: ['stature_mm'],
    neither: ['latest_setup_id', 'latest_entry_id'],
  },
  member_merge: { identity: ['name'], neither: ['member_id'] },
  member_word: { identity: ['word', 'name'], neither: ['member_id'] },
  member_link: {
    identity: ['token_hash'],
    neither: ['member_id', 'opens', 'expires_at', 'revoked_at'],
  },
  member_message: { health: ['body'], neither: ['member_id', 'link_id', 'kind', 'handled_at', 'handled_by'] },
  rider_limit: { health: ['kind', 'body'], neither: ['member_id', 'ended_at', 'ended_by'] },
  rider_plan: { health: ['body'], neither: ['member_id', 'kind', 'looked_at', 'ended_at', 'ended_by'] },

  // Bodies and numbers: numbers may be seen by everybody here, evidence may not.
  setup: {
    neither: [
      'member_id',
      'bike_id',
      'type_id',
      'machine_calibration',
      'started_at',
      'started_by',
      'finished_at',
      'finished_by',
      'numbers_id',
      'open_key',
    ],
  },
  evidence: { health: ['row'], neither: ['setup_id'] },
  alone_setup: { identity: ['name'], health: ['own_rows'], neither: ['bike_id', 'marks', 'ended_at'] },
  withdrawal: { neither: ['evidence_id'] },
  setup_school: { neither: ['setup_id', 'school'] },
  register_entry: {
    health: ['basis'],
    neither: [
      'member_id',
      'line_id',
      'type_id',
      'purpose',
      'source',
      'certainty',
      'marks',
      'bike_id',
      'machine_calibration',
      'sole_mm',
      'pedal',
      'meant',
      'setup_id',
      'from_id',
      'since_at',
      'awaits_confirmation',
      'confirmed_by',
      'confirmed_at',
    ],
  },
  register_current: { neither: ['member_id', 'line_id', 'purpose', 'entry_id'] },
  mark_move: {
    health: ['why', 'again'],
    neither: ['member_id', 'bike_id', 'class_id', 'axis', 'from_label', 'to_label', 'from_entry_id', 'undone_at'],
  },

  // Comfort.
  complaint: {
    health: ['what', 'side', 'strength', 'moment', 'lasts', 'quality', 'health', 'line', 'handed_to'],
    neither: [
      'member_id',
      'bike_id',
      'class_id',
      'note_id',
      'told_by',
      'link_id',
      'handed_at',
      'handed_by',
      'closed_at',
      'closed_by',
    ],
  },
  trial: {
    health: ['cause', 'said', 'because', 'expects', 'reason', 'rating_before', 'outcome'],
    neither: [
      'member_id',
      'complaint_id',
      'axis',
      'direction',
      'bike_id',
      'from_marks',
      'to_marks',
      'mm',
      'deg',
      'large',
      'weeks',
      'from_entry_id',
      'entry_id',
      'started_at',
      'started_by',
      'ended_at',
      'ended_by',
    ],
  },
  trial_rating: { health: ['rating'], neither: ['trial_id', 'told_by', 'link_id'] },
  programme: { health: ['body'], neither: ['member_id', 'resumed_at', 'ended_at', 'ended_by'] },
  rider_file: { health: ['content'], neither: ['member_id', 'hash', 'is_measured', 'issued_at'] },
  programme_tick: { neither: ['programme_id', 'item', 'day', 'link_id'] },

  // Classes.
  class_rider: {
    neither: ['class_id', 'member_id', 'state', 'comes_min_before', 'row_wish', 'pinned_bike_id', 'warm_up'],
  },
  class_follow_up: { health: ['said', 'kind'], neither: ['class_id', 'member_id', 'state', 'handed_to'] },
  class_note: {
    health: ['region', 'sign', 'side', 'strength', 'score', 'cued', 'held', 'held_at'],
    neither: ['member_id', 'bike_id', 'class_id', 'minute', 'posture', 'hands', 'withdrawn_at'],
  },
  class_look: { neither: ['class_id', 'member_id', 'bike_id', 'numbers'] },
  class_cue: { neither: ['class_id', 'sign', 'cue', 'concerned'] },
  class_sheet_print: { neither: ['class_id', 'digest', 'printed_at'] },
  studio_cue: { neither: ['sign', 'cue'] },
  bike_assignment: { neither: ['class_id', 'bike_id', 'member_id'] },
  bike_assignment_log: { neither: ['class_id', 'bike_id', 'member_id'] },
  studio_class: {
    neither: [
      'room_id',
      'title',
      'starts_at',
      'ends_at',
      'source',
      'uid',
      'occurrence',
      'open_day',
      'hands',
      'doors_min',
      'blocks',
      'teacher_id',
      'cancelled_at',
    ],
  },
  room: { neither: ['name', 'plan'] },
  bike_place: { neither: ['bike_id', 'room_id', 'x_m', 'y_m', 'heading_deg'] },
  feed_read: { neither: ['feed', 'address', 'unfinished', 'begun_at'] },

  // Bikes.
  bike_type_line: { neither: ['name'] },
  bike_type: { neither: ['line_id', 'version', 'definition', 'equipment', 'calibration'] },
  type_reading: { neither: ['type_id', 'row', 'withdrawn_at'] },
  bike: {
    neither: [
      'type_id',
      'number',
      'machine_calibration',
      'machine_calibration_source',
      'retired_at',
      'taken_number',
      'care_intervals',
    ],
  },
  bike_code: { neither: ['bike_id', 'code', 'ended_at'] },
  bike_reading: { neither: ['bike_id', 'row', 'withdrawn_at'] },
  saddle: { neither: ['model'] },
  saddle_fitting: { neither: ['bike_id', 'saddle_id'] },
  bike_care: { neither: ['bike_id', 'part', 'deed', 'note', 'withdrawn_at'] },
  inspection: { neither: ['bike_id', 'good'] },
  bike_fault: { neither: ['bike_id', 'item', 'note', 'found_at', 'found_by', 'resolved_at', 'resolved_by'] },

  // The program's own.
  lease: { neither: ['name', 'holder', 'until'] },
  command_receipt: { identity: ['outcome'], neither: ['name', 'actor', 'subject', 'content_hash', 'at'] },
  access_log: { neither: ['at', 'actor', 'kind', 'what', 'subject', 'command_id'] },
  access_chain: { neither: ['link', 'log_position', 'hash'] },
  consent_wording: { neither: ['version', 'wording'] },
  consent: { neither: ['member_id', 'wording_version', 'way', 'ended_at', 'ended_by'] },
  erasure: { neither: ['member_id', 'erased_by'] },
  __migration_progress: { neither: ['hash', 'statements', 'whole'] },
})

/** Kind of a column's data; null for a column without an entry. */
export function columnKind(table: string, column: string): DataKind | null {
  const kinds = Object.hasOwn(COLUMN_KINDS, table) ? COLUMN_KINDS[table] : null
  if (!kinds) return null
  if (COMMON_COLUMNS.includes(column)) return 'neither'
  return (['health', 'identity', 'neither'] as const).find((kind) => kinds[kind]?.includes(column)) ?? null
}

/**
 * Health columns that are not encrypted: numbers, codes and bodies' measures that the database counts and looks for.
 * Words that somebody typed, conditions and what a rider wrote are sealed.
 */
export const OPEN_HEALTH_COLUMNS: readonly string[] = [
  'class_follow_up.kind',
  'class_note.cued',
  'class_note.held',
  'class_note.held_at',
  'class_note.region',
  'class_note.score',
  'class_note.side',
  'class_note.sign',
  'class_note.strength',
  'complaint.lasts',
  'complaint.moment',
  'complaint.side',
  'complaint.strength',
  'complaint.what',
  'evidence.row',
  'mark_move.again',
  'mark_move.why',
  'member.stature_mm',
  'register_entry.basis',
  'trial.cause',
  'trial.outcome',
  'trial.rating_before',
  'trial_rating.rating',
]
