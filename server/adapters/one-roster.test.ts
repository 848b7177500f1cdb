import { describe, expect, it } from 'vitest'
import yazl from 'yazl'
import { readTable, Unreadable } from './csv'
import { readOneRoster } from './one-roster'
import { unzip } from './zip'

const bytes = (text: string) => new TextEncoder().encode(text)
const latin1 = (text: string) => Uint8Array.from(text, (c) => c.charCodeAt(0))

const whole = {
  'academicsessions.csv': 'sourcedId,status,title,type,startDate,endDate\nt,active,Autumn 2026,term,2026-10-05,2026-12-11\ny,active,2026,schoolYear,2026-09-01,2027-08-31',
  'courses.csv': 'sourcedId,title,courseCode\nc,Groundwater Hydrology,HYD-210',
  'classes.csv': 'sourcedId,title,courseSourcedId,classCode,termSourcedIds\ns,Groundwater 1,c,HYD-210/01,t',
  'users.csv': 'sourcedId,username,givenName,familyName,email,role\np,tamsin,Tamsin,Okoro,Tamsin@fennick.example,teacher\nq,lin,Linnea,Ashdown,lin@fennick.example,student',
  'enrollments.csv': 'sourcedId,classSourcedId,userSourcedId,role,beginDate,endDate\ne,s,p,teacher,,\nf,s,q,student,2026-10-06,',
}
const read = (change: Record<string, string> = {}) => readOneRoster(new Map(Object.entries({ ...whole, ...change }).map(([k, v]) => [k, bytes(v)])))

describe('tables', () => {
  it('are read in Latin-1, with a byte-order mark, semicolons, tabs, quotes and line breaks in cells', () => {
    expect(readTable(latin1('a;b\nGr\xfcn;"x;\ny"\nz;1'), 'x')).toMatchObject({ encoding: 'Latin-1', delimiter: ';', rows: [{ row: 2, cells: { a: 'Grün', b: 'x;\ny' } }, { row: 4, cells: { a: 'z' } }] })
    expect(readTable(bytes('\uFEFFa,b\n"say ""hi""",2'), 'x').rows[0]!.cells).toEqual({ a: 'say "hi"', b: '2' })
    expect(readTable(bytes('a\tb\n1\t2'), 'x').delimiter).toBe('\t')
  })

  it.each([
    ['an open quote', bytes('a,b\n1,2\n"x,3'), /row \d.*never closed/], ['a picture', bytes('\u0089PNG\u0000\u0001,\n'), /not a table of text/],
    ['no heading', bytes('\n'), /no heading row/], ['one column twice', bytes('a,a\n1,2'), /“a” is named twice/],
    ['too many rows', bytes(`a,b\n${'1,2\n'.repeat(100_001)}`), /more than 100,000 rows/],
  ])('that are %s are named in a sentence', (_, data, sentence) => {
    expect(() => readTable(data, 'rooms.csv')).toThrow(sentence)
  })
})

describe('class data', () => {
  it('become terms, courses, sections, people and class lists', () => {
    const { data, errors } = read()
    expect(errors).toEqual([])
    expect(data.terms).toEqual([{ sourceId: 't', name: 'Autumn 2026', from: '2026-10-05', to: '2026-12-11' }])
    expect(data.sections[0]).toEqual({ sourceId: 's', course: 'c', term: 't', number: '01' })
    expect(data.people[0]).toMatchObject({ name: 'Tamsin Okoro', email: 'tamsin@fennick.example', role: 'instructor' })
    expect(data.enrolments.map((e) => e.role)).toEqual(['instructor', 'student'])
  })

  it.each<[string, Record<string, string>, string]>([
    ['an end before a start', { 'academicsessions.csv': 'sourcedId,title,type,startDate,endDate\nt,Autumn,term,2026-12-05,2026-10-11' }, 'academicsessions.csv 2 endDate'],
    ['a day that is none', { 'academicsessions.csv': 'sourcedId,title,type,startDate,endDate\nt,Autumn,term,2026-02-30,2026-10-11' }, 'academicsessions.csv 2 startDate'],
    ['an address that is none', { 'users.csv': `${whole['users.csv']}\nr,r,R,R,nobody,student` }, 'users.csv 4 email'],
    ['a role nobody has', { 'enrollments.csv': 'sourcedId,classSourcedId,userSourcedId,role\ne,s,p,teacher\n\n,s,q,juggler' }, 'enrollments.csv 4 role'],
    ['an id that comes twice', { 'courses.csv': `${whole['courses.csv']}\nc,Again,HYD-211` }, 'courses.csv 3 sourcedId'],
    ['a class of no course', { 'classes.csv': 'sourcedId,title,courseSourcedId,classCode,termSourcedIds\ns,x,zz,01,t' }, 'classes.csv 2 courseSourcedId'],
  ])('with %s name row and column', (_, change, where) => {
    expect(read(change).errors.map((e) => `${e.file} ${e.row} ${e.column}`)).toContain(where)
  })

  it('say which file or column is missing', () => {
    expect(() => readOneRoster(new Map([['courses.csv', bytes(whole['courses.csv'])]]))).toThrow(/missing: academicsessions\.csv, classes\.csv/)
    expect(() => read({ 'courses.csv': 'sourcedId,title\nc,x' })).toThrow('courses.csv lacks the column courseCode.')
  })
})

describe('a zip', () => {
  const zipOf = async (files: [string, Buffer][]) => {
    const zip = new yazl.ZipFile()
    for (const [name, data] of files) zip.addBuffer(data, name)
    zip.end()
    const parts: Buffer[] = []
    for await (const part of zip.outputStream) parts.push(part as Buffer)
    return Buffer.concat(parts)
  }

  it('gives its CSV files, whatever folder they lie in', async () => {
    const files = await unzip(await zipOf([['export/Courses.csv', Buffer.from('a,b')], ['export/readme.txt', Buffer.from('hello')]]))
    expect([...files.keys()]).toEqual(['courses.csv'])
  })

  it('that climbs out of its folder, is no zip, or unpacks to gigabytes, is refused', async () => {
    const evil = Buffer.from((await zipOf([['aa/evil.csv', Buffer.from('a,b')]])).toString('latin1').replaceAll('aa/evil.csv', '../evil.csv'), 'latin1')
    await expect(unzip(evil)).rejects.toThrow('leads out of its folder')
    await expect(unzip(bytes('no zip'))).rejects.toThrow(Unreadable)
    await expect(unzip(await zipOf([['bomb.csv', Buffer.alloc(201 * 1024 ** 2)]]))).rejects.toThrow('more than 200 MB')
  })
})
