import { settingsIssues } from '../../core/operations/dispatch'
import type { StudioSettings } from '../../core/operations/requests/studioSettings'
import { changeStudio, changeStudioFacts } from '../studio/studio'
import { studioFactsIssue } from '../studio/studioFacts'
import { closed } from '../../core/base/schema'
import { checkedInRun, defineCommand, SAVED, refused, typedText } from './defineCommand'

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

/** Changes what the studio is called and where it is; times are shown on the new zone's clock from now on. */
export const saveStudioFacts = defineCommand({
  name: 'studio.saveStudioFacts',
  permission: 'manageStudio',
  schema: closed({ name: typedText, place: typedText, timeZone: typedText }),
  run: async (tx, scope, facts) => {
    const issue = studioFactsIssue(facts)
    if (issue) return refused({ code: issue })
    await changeStudioFacts(tx, scope, facts)
    return SAVED
  },
})
