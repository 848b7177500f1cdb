/** Fennick College of Land, Water and Stone: its rooms, courses and people. All of it is made up. */
import { Chance } from './chance'
import type { InputKind } from '~~/shared/inputs'

export const college = 'Fennick College of Land, Water and Stone'
export const zone = 'Europe/London'

const usual: InputKind[] = ['sound', 'lectern screen', 'room camera']
export interface DemoRoom { name: string, building: string, seats: number, inputs: InputKind[], turnaround: number }
export const rooms: DemoRoom[] = [
  { name: 'Adit Theatre', building: 'Adit', seats: 320, inputs: usual, turnaround: 5 },
  { name: 'Dovecote Hall 1', building: 'Dovecote', seats: 140, inputs: usual, turnaround: 5 },
  { name: 'Ferry Annexe', building: 'Riverside', seats: 110, inputs: usual, turnaround: 5 },
  { name: 'Dovecote Hall 3', building: 'Dovecote', seats: 90, inputs: usual, turnaround: 5 },
  { name: 'Millrace 104', building: 'Mill', seats: 72, inputs: usual, turnaround: 5 },
  { name: 'Tithe Room', building: 'Dovecote', seats: 60, inputs: [...usual, 'document camera'], turnaround: 5 },
  { name: 'Weir Lab 2', building: 'Riverside', seats: 48, inputs: [...usual, 'document camera'], turnaround: 10 },
  { name: 'Sluice House', building: 'Riverside', seats: 40, inputs: ['sound', 'lectern screen'], turnaround: 5 },
  { name: 'Kiln Room', building: 'Mill', seats: 36, inputs: ['sound', 'room camera'], turnaround: 10 },
  { name: 'Orchard Seminar', building: 'Adit', seats: 28, inputs: ['sound', 'lectern screen'], turnaround: 0 },
  { name: 'Lock Studio', building: 'Riverside', seats: 12, inputs: usual, turnaround: 10 },
]

export interface DemoPerson { sub: string, name: string, email: string, role: 'staff' | 'instructor' | 'student', note?: string }

const address = (name: string) => `${name.normalize('NFD').replace(/[^a-zA-Z ]/g, '').toLowerCase().replace(/ +/g, '.')}@fennick.example`
const person = (name: string, role: DemoPerson['role'], note?: string): DemoPerson => ({ sub: address(name).split('@')[0]!, name, email: address(name), role, note })

export const staff = [
  person('Odile Vance', 'staff', 'media services, coordinator'),
  person('Teodor Brand', 'staff', 'media services, room technician'),
  person('Marisol Keane', 'staff'),
]

export const instructors = [
  person('Tamsin Okoro', 'instructor', 'instructor of HYD-210/01'),
  person('Ines Halloran', 'instructor', 'instructor of LIM-230/01'),
  ...['Ruairi Pell', 'Dov Castellan', 'Bexley Marsh', 'Noor Whitlam', 'Ngaire Foss', 'Perrin Adeyemi', 'Saoirse Lindqvist', 'Emeka Thorne', 'Yusra Dalby',
    'Casimir Holt', 'Lowri Beddoes', 'Anselm Achterberg', 'Farah Quill', 'Ottoline Prys', 'Jory Trevanion', 'Mei-Lin Garrow', 'Halvard Stone', 'Petra Ngata'].map((n) => person(n, 'instructor')),
]

/** Course code, title, and how many students each section has. */
export const courses: [code: string, title: string, sections: number[]][] = [
  ['HYD-210', 'Groundwater Hydrology', [212, 84]], ['HYD-330', 'River Hydraulics', [38]], ['SUR-115', 'Field Surveying', [96, 72, 58]], ['SUR-390', 'Geodesy', [24]],
  ['LIM-230', 'Limnology', [104, 44]], ['STO-140', 'Stone Conservation', [66, 40]], ['STO-250', 'Mortars and Renders', [34]], ['SOI-205', 'Soil Mechanics', [46, 38]],
  ['SOI-110', 'Soils of the Region', [35]], ['LAW-160', 'Water and Land Law', [118, 60]], ['LAW-240', 'Easements and Boundaries', [52]], ['CAV-310', 'Cave Survey Practice', [26]],
  ['CAV-410', 'Speleogenesis', [18]], ['ECO-101', 'Ecology of Wet Places', [134, 108]], ['ECO-220', 'Field Ecology', [70, 30]], ['GEO-101', 'The Earth Beneath', [140, 68, 46]],
  ['GEO-245', 'Mapping Strata', [28]], ['ARC-110', 'Buildings and Their Stones', [58]], ['ARC-270', 'Lime and Its Uses', [33]], ['MAP-150', 'Drawing Maps', [88, 56]],
  ['MET-205', 'Weather and Rivers', [64]], ['FLD-120', 'Field Safety', [110]], ['WEI-300', 'Weirs and Fish Passes', [27]], ['PEA-215', 'Peat and Carbon', [36]],
  ['MIL-180', 'Mills and Water Power', [42]], ['BRI-260', 'Old Bridges', [39]], ['KAR-350', 'Karst Landscapes', [32, 22]],
]

const first = 'Aoife Bram Cerys Dario Elowen Finlay Greta Hamza Isolde Jonas Keziah Lachlan Maren Nils Oona Pascal Quentin Rosalind Soren Thandi Una Viktor Wren Xanthe Yara Zeno Alba Bastian Clemency Demelza Emrys Freya Gwilym Hanne Idris Jocasta Kasper Linnea Morwenna Nesta'.split(' ')
const last = 'Abara Brookfield Carrick Dunmore Eskdale Farrow Glenister Hathersage Ingram Jowett Kestrel Lomax Marwood Nettleton Oakshott Penhale Quayle Rookwood Sandford Tregear Umber Vasey Wetherall Yarrow Zeller Ashdown Birkett Coombe Drayton Everley Fairburn Gorse Hollis Ives Kemble Langdale Mistry Norcross Osgood Pryor'.split(' ')

/** 900 students, each with a name of their own. */
export function students(): DemoPerson[] {
  const chance = new Chance(41)
  const names = chance.shuffled(first.flatMap((f) => last.map((l) => `${f} ${l}`))).slice(0, 899)
  return [person('Linnea Ashdown', 'student', 'student of HYD-210/01'), ...names.filter((n) => n !== 'Linnea Ashdown').map((n) => person(n, 'student'))].slice(0, 900)
}

/** Knows the campus sign-in, but Karstland knows nothing of her. */
export const stranger: DemoPerson = { sub: 'ida.krall', name: 'Ida Krall', email: 'ida.krall@fennick.example', role: 'student', note: 'has an account, but may not come in' }

export const topics: Record<string, string[]> = {
  'HYD-210': ['What water does underground', 'Porosity and storage', 'Darcy’s law', 'Flow nets', 'Springs and spring lines', 'Confined aquifers', 'Tutorial on Darcy’s law', 'Reading a piezometer nest', 'Pumping tests in the field', 'Slug tests', 'Wells, storage and yield', 'Tracer tests'],
  'LIM-230': ['Light in the water', 'Summer layers', 'Oxygen and its savings', 'The turning of the lake', 'Phosphorus and nitrogen', 'Sampling from a boat', 'What lives in the mud', 'Reading a Secchi record', 'Rivers into lakes', 'Ice', 'How a lake breathes', 'Algae'],
  'STO-140': ['Four agents of decay', 'Salts', 'Frost', 'Reading a wall', 'Mortar', 'Cleaning, if at all', 'The porch: a case', 'Documentation', 'Lime', 'Repair or leave', 'Why stone decays', 'Raking light'],
  'SUR-115': ['Angles and distances', 'Two faces', 'The field book', 'Closing the traverse', 'Levels', 'Errors, honest and other', 'The compass rule', 'Least squares, gently', 'Setting out', 'Contours', 'Boundaries', 'Satellites'],
}
