/** Names of subfolders from a section's pattern. */

/** What a pattern may name. */
export interface FolderParts { week: number | null, weekLabel: string, weekday: string, course: string, section: string }

/** `Week {week}` → `Week 6`; outside the numbered weeks `{week}` is the week's label alone. */
export function folderName(pattern: string, parts: FolderParts): string {
  const text = parts.week === null && /\{week\}/.test(pattern) ? parts.weekLabel : pattern
  return text
    .replaceAll('{week}', String(parts.week ?? '')).replaceAll('{weekday}', parts.weekday).replaceAll('{course}', parts.course).replaceAll('{section}', parts.section)
    .replace(/\s+/g, ' ').trim().slice(0, 120)
}

/** Parts that a pattern names and nobody knows. */
export const unknownParts = (pattern: string): string[] => [...pattern.matchAll(/\{([^}]*)\}/g)].map((m) => m[1]!).filter((name) => !['week', 'weekday', 'course', 'section'].includes(name))
