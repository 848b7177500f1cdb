/** Four lectures of Fennick College: what stands on the slides, and what is said beside them. */

export interface Slide { title: string, lines: string[], said: string }
export interface Deck { name: string, course: string, title: string, voice: 'rms' | 'slt', hue: number, match: string[], slides: Slide[] }

const slide = (title: string, lines: string[], said: string): Slide => ({ title, lines, said })

export const decks: Deck[] = [
  {
    name: 'wells', course: 'Groundwater Hydrology', title: 'Wells, storage and yield', voice: 'slt', hue: 200, match: ['HYD', 'ECO', 'MET'],
    slides: [
      slide('Wells, storage and yield', ['Groundwater Hydrology', 'Fennick College of Land, Water and Stone'], 'Good morning. Today we look at wells: how much water the ground can hold, how much of it a well can give us, and how we measure the difference.'),
      slide('What an aquifer stores', ['Porosity: the share of the rock that is empty', 'Specific yield: what drains by gravity', 'Specific retention: what clings to the grains'], 'Porosity tells us how much empty space there is. But not all of the water in that space will drain. Fine clay may be half water and still give a well almost nothing.'),
      slide('Confined and unconfined', ['Unconfined: the water table is free to fall', 'Confined: a tight layer holds the pressure', 'Storativity differs by a factor of a thousand'], 'In an unconfined aquifer the pores really empty. In a confined one they stay full. The rock only relaxes a little, and the water expands a little. That is why the drawdown spreads so fast.'),
      slide('Darcy’s law', ['Q = K · A · dh / dl', 'K: hydraulic conductivity, metres per day', 'dh / dl: the slope of the water table'], 'Darcy watched water go through sand in a pipe. The flow doubles when the slope doubles. It doubles again when the area doubles. Everything else hides in one number, the conductivity.'),
      slide('The cone of depression', ['Drawdown is largest at the well', 'It falls off with the logarithm of distance', 'Two cones that meet add up'], 'When we pump, the water table sinks around the well like a funnel. A neighbour two hundred metres away may notice. When two funnels meet, their drawdowns simply add.'),
      slide('A pumping test', ['Pump at a constant rate for 24 hours', 'Read the observation wells on a log schedule', 'Then watch the recovery for as long again'], 'Please write down the time of every reading. In the first ten minutes read every minute. After that, let the gaps grow. The recovery is often the better half of the data, because no pump disturbs it.'),
      slide('Reading the curve', ['Early: water from the well itself', 'Middle: a straight line on log paper', 'Late: boundaries and leakage show up'], 'The straight part in the middle gives the transmissivity. If the line bends down late in the test, the aquifer ends somewhere. If it flattens, water is leaking in from a river or from another layer.'),
      slide('For next week', ['Read the field notes of the Weir Lab site', 'Bring the data logger, charged', 'Questions two and three, in pairs'], 'Next week we go to the weir. Bring boots, and bring the logger with a charged battery. Thank you, and see you on Wednesday.'),
    ],
  },
  {
    name: 'lakes', course: 'Limnology', title: 'How a lake breathes', voice: 'rms', hue: 165, match: ['LIM', 'GEO', 'SOI'],
    slides: [
      slide('How a lake breathes', ['Limnology', 'Layers, oxygen and the turning of the year'], 'Welcome back. A lake is not a bowl of water that is the same all through. It has layers, and twice a year the layers change places.'),
      slide('Light in the water', ['Half of the red is gone in the first metre', 'Blue goes deepest in clear water', 'Secchi depth: where the white disc disappears'], 'Lower the white disc until you lose it, then raise it until you find it. The mean of the two depths is what we write down. Do it on the shaded side of the boat.'),
      slide('Summer layers', ['Epilimnion: warm, mixed by the wind', 'Metalimnion: the steep step in temperature', 'Hypolimnion: cold, dark and still'], 'In summer the warm water floats on the cold. The step between them is so firm that the wind cannot stir through it. What happens below stays below until the autumn.'),
      slide('Oxygen', ['Comes from the air and from plants in the light', 'Is used up everywhere, day and night', 'The deep water lives on its savings'], 'The deep layer gets its oxygen in spring and must live on it until autumn. If much falls down from above, and rots, the savings are spent by August.'),
      slide('The turning', ['Autumn: the surface cools and sinks', 'Wind mixes the lake from top to bottom', 'Nutrients come up, oxygen goes down'], 'When the whole lake has the same temperature, one windy night is enough. We call it the turnover. Fish that avoided the deep all summer return within days.'),
      slide('Nutrients', ['Phosphorus usually sets the limit', 'Nitrogen comes with the rain and the fields', 'Mud gives phosphorus back when oxygen is gone'], 'Here is the trap. When the oxygen at the bottom is gone, the mud lets go of its phosphorus, more algae grow, more of them sink, and the oxygen goes even faster.'),
      slide('Sampling from a boat', ['Profile first, then bottles', 'Rinse each bottle three times', 'Label before you leave the buoy'], 'Take the profile first, so that you know where the layers are. Then choose your depths. And label the bottle before you leave the buoy, not in the van.'),
      slide('Summary', ['Layers make a lake two lakes', 'The turning makes it one again', 'Mud remembers'], 'If you remember one sentence, let it be this. The mud remembers everything we ever let run into the lake. See you in the laboratory.'),
    ],
  },
  {
    name: 'stone', course: 'Stone Conservation', title: 'Why stone decays', voice: 'slt', hue: 28, match: ['STO', 'ARC', 'CAV'],
    slides: [
      slide('Why stone decays', ['Stone Conservation', 'Water, salt, frost and hands'], 'Stone looks as if it would last for ever. Yet any wall in this town shows that it does not. Today we ask what really does the damage.'),
      slide('Four agents', ['Water carries everything else', 'Salts grow in the pores', 'Frost opens what salts have loosened', 'People scrub, paint and repair'], 'Water is the carrier. Alone it does little to a good limestone. But it brings salt, it brings frost, and it brings the man with the wrong mortar.'),
      slide('Salt crystals', ['A salt dissolves, travels and dries', 'The crystal pushes against the pore wall', 'Damage shows where the wall dries, not where it is wet'], 'Look for the place where the wall dries out. There the crystals grow, just under the surface, and they push the skin of the stone away in flakes.'),
      slide('Reading a wall', ['Photograph in raking light', 'Map each kind of decay with its own sign', 'Note the weather of the last three days'], 'Before you touch anything, make the map. Raking light in the evening shows more than any instrument. And write down the weather, or nobody can use your map later.'),
      slide('Mortar', ['Softer than the stone, always', 'Open to vapour', 'Lime before cement'], 'The mortar must be the weaker partner. If the joint is harder than the stone, the water leaves through the stone, and the stone pays for it.'),
      slide('Cleaning', ['Do as little as will do', 'Test in a hidden corner', 'Never with acid on limestone'], 'Ask first whether it has to be clean. Dirt can be ugly and harmless. Try everything in a corner that nobody sees, and wait a month before you judge.'),
      slide('A case: the porch', ['Crust under the ledges, loss on the corners', 'Cement pointing from the last repair', 'Decision: take out, desalinate, repoint in lime'], 'This is the porch of the old library. You see black crust where the rain never reaches, and losses exactly along the cement joints. We took the cement out, and then we waited.'),
      slide('Homework', ['Choose one wall', 'Map two square metres', 'Explain one boundary between sound and lost'], 'Find a wall of your own. Two square metres are enough. Explain to me one single line on it: why is the stone sound on this side and lost on that side?'),
    ],
  },
  {
    name: 'survey', course: 'Field Surveying', title: 'Closing the traverse', voice: 'rms', hue: 265, match: ['SUR', 'LAW', 'MAP'],
    slides: [
      slide('Closing the traverse', ['Field Surveying', 'Angles, distances and an honest error'], 'A traverse is a walk with angles. We come back to where we began, and the gap that is left tells us how well we worked.'),
      slide('What we measure', ['Horizontal angles at each station', 'Slope distances, reduced to the level', 'Instrument and target heights, every time'], 'Three things at every station. The angle, the distance and the two heights. The heights are what people forget, and nobody can guess them in the evening.'),
      slide('Two faces', ['Face left and face right', 'The mean removes the collimation error', 'The difference shows your own'], 'Always read on both faces. The mean is free of the error of the instrument. And the difference between the two shows you how steady your hand is today.'),
      slide('The angular check', ['Sum of the inner angles: (n minus 2) times 180 degrees', 'Share the rest equally', 'Too large a rest means go back, not share'], 'Add the angles before you leave the field. If the rest is more than the rule allows, do not share it out. Something is wrong at one station, and sharing would only hide it.'),
      slide('Latitudes and departures', ['Latitude: distance times the cosine of the bearing', 'Departure: distance times the sine', 'Both sums should be nothing'], 'Now each leg becomes a step north and a step east. If we really came back, both sums are nothing. They never are. What is left is our linear error.'),
      slide('The compass rule', ['Correct each leg in proportion to its length', 'Simple, fair and old', 'Least squares for more than one loop'], 'The long legs get the larger share, because there was more room to go wrong. For one loop this is good enough. For a network we let least squares decide.'),
      slide('Writing it down', ['One hand writes, the other reads back', 'Never rub out: strike through', 'Sketch with north and scale'], 'The field book is evidence. In a boundary dispute the court will look at it. So never rub out. Strike through, so that one can still read what was there.'),
      slide('Next time', ['Levels along the mill stream', 'Meet at the Ferry Annexe', 'Bring the tall staff'], 'Next time we level along the mill stream. We meet at the ferry annexe at nine. Somebody please remember the tall staff.'),
    ],
  },
]
