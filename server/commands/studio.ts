import { settingsIssues } from '../../core/operations/dispatch'
import type { StudioSettings } from '../../core/operations/requests/studioSettings'
import { changeStudio } from '../studio/studio'
import { closed } from '../../core/base/schema'
import { checkedInRun, defineCommand, SAVED, refused } from './defineCommand'

/** Changes how the studio sets riders up, from now on. */
export const saveStudio = defineCommand({
  name: 'studio.saveStudio',
  permission: 'manageStudio',
  schema: closed({ settings: checkedInRun<StudioSettings>() }),
  run: async (tx, scope, { settings }) => {
    const issues = settingsIssues(settings)
    if (issues.length > 0) return refused({ code: 'readingIssues', issues })
    await changeStudio(tx, scope, settings)
    return SAVED
  },
})
