/** Pages of classes as they were last made, and what they are built of; both may go at any time. */
export const PAGES = 'class-pages'
export const STATIC = 'class-static'
