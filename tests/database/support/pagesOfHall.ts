import { createElement, type ReactElement } from 'react'
import { renderToStaticMarkup } from 'react-dom/server'
import { App } from 'antd'
import BikesPage from '@/app/(studio)/bikes/page'
import AfterPage from '@/app/(studio)/class/[id]/after/page'
import BlocksPage from '@/app/(studio)/class/[id]/blocks/page'
import BeforePage from '@/app/(studio)/class/[id]/page'
import TimetablePage from '@/app/(studio)/class/page'
import EyePage from '@/app/(studio)/eye/page'
import MembersPage from '@/app/(studio)/members/page'
import RiderPage from '@/app/(studio)/riders/[id]/page'
import ReasonsPage from '@/app/(studio)/riders/[id]/reasons/page'
import StoryPage from '@/app/(studio)/riders/[id]/story/page'
import PicturePage from '@/app/(studio)/studio/picture/page'
import TodayPage from '@/app/(studio)/today/page'

const nothingAsked = { searchParams: Promise.resolve({}) }
const of = (id: string) => ({ params: Promise.resolve({ id }) })
const rider = (id: string) => ({ ...of(id), ...nothingAsked })

/** The main views of the demo hall as its pages make them, by name. */
export const PAGES: Readonly<Record<string, () => Promise<ReactElement>>> = {
  today: TodayPage,
  members: () => MembersPage(nothingAsked),
  timetable: () => TimetablePage(nothingAsked),
  'before tonight’s class': () => BeforePage(of('class-dusk')),
  'the plan of tonight’s class': () => BlocksPage(of('class-dusk')),
  'after yesterday’s class': () => AfterPage(of('class-dawn')),
  'a rider': () => RiderPage(of('member-05')),
  'a rider’s reasons': () => ReasonsPage(of('member-05')),
  'a rider’s story': () => StoryPage(rider('member-05')),
  bikes: BikesPage,
  'the studio’s picture': PicturePage,
  'one’s own eye': EyePage,
}

/** A page as HTML text, as the server sends it first. */
export async function htmlOf(page: () => Promise<ReactElement>): Promise<string> {
  return renderToStaticMarkup(createElement(App, null, await page()))
}
