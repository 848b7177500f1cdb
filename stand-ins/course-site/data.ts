/** What the course site keeps: courses with their people, and pages. One JSON file. */
import { existsSync, readFileSync, renameSync, writeFileSync } from 'node:fs'
import { randomUUID } from 'node:crypto'
import { setting } from '../common/program'

export interface Course { id: string, title: string, teachers: string[], students: string[] }
export interface Page { id: string, course: string, title: string, html: string, published: boolean }
interface Data { courses: Course[], pages: Page[] }

const file = setting('DATA_FILE')
const data: Data = JSON.parse(readFileSync(existsSync(file) ? file : setting('COURSES_FILE'), 'utf8')) as Data

function keep(): void {
  writeFileSync(`${file}.new`, JSON.stringify(data))
  renameSync(`${file}.new`, file)
}

export type Part = 'teacher' | 'student'

export const coursesOf = (email: string) => data.courses.filter((c) => partIn(c, email))
export const courseById = (id: string) => data.courses.find((c) => c.id === id)
export const partIn = (course: Course, email: string): Part | undefined =>
  (course.teachers.includes(email) ? 'teacher' : course.students.includes(email) ? 'student' : undefined)
export const pagesOf = (course: string) => data.pages.filter((p) => p.course === course)
export const pageById = (id: string) => data.pages.find((p) => p.id === id)

export function addPage(course: string, title: string): Page {
  const page = { id: randomUUID().slice(0, 8), course, title, html: '', published: false }
  data.pages.push(page)
  keep()
  return page
}

export function changePage(page: Page, change: Partial<Page>): void {
  Object.assign(page, change)
  keep()
}
