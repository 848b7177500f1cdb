/** CSV in any of the shapes that spreadsheets write: UTF-8 with or without a mark, Latin-1; commas, semicolons or tabs. */
import { parse, type CsvError } from 'csv-parse/sync'

export interface Table {
  columns: string[]
  /** `row` counts lines of the file as a spreadsheet numbers them, the heading being row 1 */
  rows: { row: number, cells: Record<string, string> }[]
  encoding: 'UTF-8' | 'Latin-1'
  delimiter: ',' | ';' | '\t'
}

/** What cannot be read, in one sentence with the row. */
export class Unreadable extends Error {}

export const MOST_ROWS = 100_000

/**
 * Reads a table whose first row names the columns.
 * @throws Unreadable for a file that is no table, has an open quote, or too many rows
 */
export function readTable(bytes: Uint8Array, name: string): Table {
  const { text, encoding } = decoded(bytes)
  if (text.includes('\u0000')) throw new Unreadable(`${name} is not a table of text. Save it as CSV and try again.`)
  const delimiter = delimiterOf(text)
  let records: { record: string[], info: { lines: number } }[]
  try {
    records = parse(text, { bom: true, delimiter, info: true, relax_column_count: true, skip_empty_lines: true, trim: true, to: MOST_ROWS + 2 }) as unknown as typeof records
  } catch (error) {
    throw new Unreadable(`${name}, row ${(error as CsvError & { lines?: number }).lines ?? '?'}: ${faultWords(error as CsvError)}`)
  }
  const [head, ...body] = records
  if (!head || head.record.length < 2) throw new Unreadable(`${name} has no heading row with columns. The first row names the columns.`)
  if (body.length > MOST_ROWS) throw new Unreadable(`${name} has more than ${MOST_ROWS.toLocaleString('en-GB')} rows. Split it into smaller files.`)
  const columns = head.record
  const double = columns.find((c, i) => c !== '' && columns.indexOf(c) !== i)
  if (double) throw new Unreadable(`${name}, row 1: the column “${double}” is named twice.`)
  // A cell with line breaks ends lower than it begins; the row it begins in is the one people count.
  const rows = body.map(({ record, info }) => {
    const breaks = record.reduce((n, cell) => n + (cell.match(/\n/g)?.length ?? 0), 0)
    return { row: info.lines - breaks, cells: Object.fromEntries(columns.map((c, i) => [c, record[i] ?? ''])) }
  })
  return { columns: columns.filter((c) => c !== ''), rows, encoding, delimiter }
}

function decoded(bytes: Uint8Array): { text: string, encoding: Table['encoding'] } {
  try {
    return { text: new TextDecoder('utf-8', { fatal: true }).decode(bytes), encoding: 'UTF-8' }
  } catch {
    return { text: new TextDecoder('windows-1252').decode(bytes), encoding: 'Latin-1' }
  }
}

/** The separator that the first row has most of, outside quotes. */
function delimiterOf(text: string): Table['delimiter'] {
  const first = (/^(?:"(?:[^"]|"")*"|[^"\n])*/.exec(text)?.[0] ?? '').replace(/"(?:[^"]|"")*"/g, '')
  const count = (d: string) => first.split(d).length
  return ([';', '\t'] as const).reduce<Table['delimiter']>((best, d) => (count(d) > count(best) ? d : best), ',')
}

function faultWords(error: CsvError): string {
  if (error.code === 'CSV_QUOTE_NOT_CLOSED') return 'a quotation mark is opened and never closed.'
  if (error.code === 'INVALID_OPENING_QUOTE' || error.code === 'CSV_INVALID_CLOSING_QUOTE') return 'a quotation mark stands in the middle of a cell.'
  return 'this is not a table we can read.'
}
