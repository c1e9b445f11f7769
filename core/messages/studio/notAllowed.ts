/** The text of a page that the user's role does not allow. */
export const notAllowedText = (role: string): string =>
  `Your role in this studio is ${role}, and this page is for others. ` +
  'Nothing was lost; a manager can say who may do what.'
