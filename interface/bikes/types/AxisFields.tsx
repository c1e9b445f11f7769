'use client'
import { Checkbox, Input, Segmented, Select } from 'antd'
import '@/interface/kit/antd/checkbox.generated.css'
import '@/interface/kit/antd/select.generated.css'
import type { ReactNode } from 'react'
import { CLAMP_TYPES } from '@/core/bikes/bike/equipment'
import { isCommon, type AxisName } from '@/core/base/adjustments'
import { AXIS_TITLE } from '@/core/messages/words/phrases'
import parts from '../parts.module.css'
import type { DraftIssue } from './parseDraft'
import { waysOf, type AxisDraft } from './typeDraft'

type Props = Readonly<{
  name: AxisName
  axis: AxisDraft
  issues: readonly DraftIssue[]
  onChange: (change: Partial<AxisDraft>) => void
  children?: ReactNode
}>

const FORMS: { value: AxisDraft['form']; label: string }[] = [
  { value: 'labels', label: 'Holes or letters' },
  { value: 'ruler', label: 'Ruler' },
]

/** One scale as it is printed: holes or letters in their order, or a ruler with its ends, step and unit. */
export function AxisFields({ name, axis, issues, onChange, children }: Props) {
  const ways = waysOf(name)
  const isCranks = name === 'crankLength'
  const status = (field: keyof AxisDraft) => (issues.some((f) => f.field === `${name}.${field}`) ? 'error' : '')
  const field = (key: 'labels' | 'spacing' | 'min' | 'max' | 'step' | 'direction' | 'printedName', title: string) => (
    <label className={key === 'labels' ? parts.wide : undefined}>
      {title}
      <Input
        size="large"
        autoComplete="off"
        aria-label={`${AXIS_TITLE[name]}: ${title}`}
        value={axis[key]}
        status={status(key)}
        onChange={(e) => onChange({ [key]: e.target.value })}
      />
    </label>
  )
  return (
    <fieldset className={parts.group}>
      <legend>{AXIS_TITLE[name]}</legend>
      <div className={parts.fields}>
        {isCranks ? null : axis.form === 'irregular' ? (
          <p className={parts.wide}>Its marks lie unevenly, as in the imported file. They stay as they are.</p>
        ) : (
          <Segmented
            className={parts.wide}
            aria-label={`${AXIS_TITLE[name]}: printed as`}
            value={axis.form}
            onChange={(form) => onChange({ form })}
            options={FORMS}
            block
          />
        )}
        {axis.form === 'labels' && (
          <>
            {field(
              'labels',
              isCranks ? 'Lengths in mm, such as 165 170 175' : 'Marks in their order, such as 1-15 or A-H J-N',
            )}
            {!isCranks && field('spacing', name === 'saddleTilt' ? 'Apart at the nose, mm' : 'Apart, mm')}
          </>
        )}
        {axis.form === 'ruler' && (
          <>
            {field('min', 'From')}
            {field('max', 'To')}
            {field('step', 'Steps of')}
            <label>
              Unit
              <Select
                size="large"
                aria-label={`${AXIS_TITLE[name]}: unit`}
                value={axis.unit}
                onChange={(unit) => onChange({ unit })}
                options={['cm', 'in', 'mm'].map((value) => ({ value: value as AxisDraft['unit'], label: value }))}
              />
            </label>
          </>
        )}
        {axis.form !== 'irregular' && !isCranks && (
          <label>
            {axis.form === 'ruler' ? 'Larger numbers lie' : 'Later marks lie'}
            <Select
              size="large"
              aria-label={`${AXIS_TITLE[name]}: later marks lie`}
              value={axis.later}
              onChange={(later) => onChange({ later })}
              options={[
                { value: 'more', label: ways.more },
                { value: 'less', label: ways.less },
              ]}
            />
          </label>
        )}
        <label>
          Closed by
          <Select
            size="large"
            aria-label={`${AXIS_TITLE[name]}: closed by`}
            value={axis.closing}
            onChange={(closing) => onChange({ closing })}
            options={CLAMP_TYPES.map((value) => ({ value, label: value }))}
          />
        </label>
        {!isCommon(name) && field('printedName', 'Called on the bike, if not so')}
        {!isCommon(name) && !isCranks && name !== 'saddleTilt' && field('direction', 'Runs at, ° (0 forward, 90 up)')}
        {children}
        {!isCommon(name) && (
          <Checkbox
            className={parts.line}
            checked={axis.riderOn}
            onChange={(e) => onChange({ riderOn: e.target.checked })}
          >
            may be moved with the rider on
          </Checkbox>
        )}
        {axis.form === 'labels' && !isCranks && (
          <Checkbox
            className={parts.line}
            checked={axis.halfMarks}
            onChange={(e) => onChange({ halfMarks: e.target.checked })}
          >
            clamps between
          </Checkbox>
        )}
      </div>
    </fieldset>
  )
}
