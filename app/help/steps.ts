/** Short steps for each place, as they are shown and printed. */
export interface Help { title: string, for: ('staff' | 'instructor' | 'student')[], steps: string[] }

export const help: Record<string, Help> = {
  'today': { title: 'Today', for: ['staff'], steps: [
    'Each row is a room, each block a capture; the dark line is now.', 'A triangle or a question mark wants a person: open the block to read what happened.',
    'To see another day, use the arrows beside the date, or choose a week on the band above.', 'A capture that has not begun can be cancelled from its bench; Undo puts it back.',
  ] },
  'timetable': { title: 'Timetable', for: ['staff', 'instructor'], steps: [
    'Drag over free time to begin a plan, or press New capture plan. Choose section, time and how it repeats; its dates appear as you type.',
    'A clash says what is in the way and offers ways out. Press one, or leave that date out.',
    'To change captures, drag a block, or open it and press Change. Choose this one, this and later ones, or all to come, and look at the dates before you save.',
    'By keys: arrows go from block to block, Enter opens, M picks one up, arrows carry it, Alt with arrows changes its length, Enter puts it down, Escape gives up.',
    'Undo is offered after each change, and later under More, What was changed. Mail about a change waits a minute.',
    'Calendar link gives a file, or a private address for your calendar program; revoke it there.',
  ] },
  'bring-in': { title: 'Bringing in', for: ['staff'], steps: [
    'Choose the file. Nothing is written before you have looked it over.', 'Say what each column holds; it is remembered for next time.',
    'Settle what clashes: take a way out for each, or press Resolve all and look the proposal over.', 'Leave out what should not come in, then press Take it in. It is taken as a whole, and can be undone as a whole.',
    'Bring the same timetable in again next week: only what changed in it is changed, and what you changed by hand stays.',
  ] },
  'set-up': { title: 'Set-up', for: ['staff'], steps: [
    'A term has teaching days and days without teaching; whole reading weeks are not numbered.', 'A room says what it can take in and how many minutes it needs between two captures.',
    'Under Hours and rules the team settles when the campus is open and what instructors may plan without asking.',
  ] },
  'library': { title: 'Library', for: ['staff', 'instructor'], steps: [
    'Choose a section on the left. Each line shows how far along the road to students a recording is.', 'Open a line and press Release to class list; Hold again takes it back.',
    'Copy the player code or the link and paste it into a page of your course.',
  ] },
  'course-pages': { title: 'Course pages', for: ['staff', 'instructor'], steps: ['Every placement and the page it was met on are listed here.', 'A code that was copied but never met on a page is shown as such: paste it into the page, then open the page once.'] },
  'sections': { title: 'A section', for: ['staff', 'instructor'], steps: ['The class list follows the registry.', 'What holds by default applies to everything recorded from now on: who may watch, from when until when, and into which subfolder it goes.'] },
  'notices': { title: 'Notices', for: ['staff', 'instructor', 'student'], steps: ['Open a notice to see what it speaks of.', 'On the right, choose for each kind whether you are told here, by mail, or both.'] },
  'new': { title: 'New in my classes', for: ['student'], steps: ['Recordings appear here when your instructor releases them.', 'Press one to watch it. Space plays and pauses, the arrow keys jump, F fills the screen.', 'You go on where you stopped.'] },
  'start': { title: 'Karstland', for: ['staff', 'instructor', 'student'], steps: ['The places are named in the bar at the top.', 'Everything on a page is in its address: send it to a colleague, or come back to it.'] },
}
