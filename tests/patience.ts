import { configure } from '@testing-library/react'

/** What a page should come to show may take as long as a busy machine needs. */
configure({ asyncUtilTimeout: 300_000 })
