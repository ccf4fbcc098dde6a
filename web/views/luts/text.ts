// The words of the LUTs view.
export const text = {
  title: 'LUTs',
  parts: { inspect: 'Inspect', sheet: 'Contact sheet' },
  partTips: { inspect: 'What a LUT does, measured, and what it was made for.', sheet: 'One picture through every LUT and recipe.' },
  files: 'Bring LUTs …', filesTip: '.cube, common LUT format, Hald pictures, curves as .csv. Several at once.', folder: 'Bring a folder …', folderTip: 'Every LUT in a folder and the folders in it.',
  bringing: (done: number, total: number): string => `${done} of ${total} brought in`, stop: 'Stop', refused: (count: number): string => (count === 1 ? '1 file was refused' : `${count} files were refused`),
  filter: 'Find by name', none: 'No LUT yet. Bring one, or a folder of them.', alone: 'not in a folder',
  kinds: { look: 'look', conversion: 'conversion', unknown: '…' }, sizes: { sequence: 'parts', d: (n: 1 | 3): string => `${n}D` },
  looking: 'Being inspected …', choose: 'Choose a LUT on the left.', save: 'Take the file',
  facts: {
    size: 'Size', sizeTip: 'Entries per axis, and the kind of table.', domain: 'Takes', domainTip: 'What goes in is placed between these.', range: 'Gives', rangeTip: 'The least and the largest value of its entries.', grey: 'Middle grey', greyTip: 'Where 18 % grey goes, and how steep the LUT is there: signal out over signal in.',
    drift: 'Colour of greys', driftTip: 'The largest CIEDE2000 of a grey to the same luma without colour.', clipped: 'Clipped', clippedTip: 'Entries at black or white in some channel.', bend: 'Sharpest bend', bendTip: 'The largest second difference along the greys, over 1/32 of the way.', folds: 'Folds', foldsTip: 'Where a brighter grey comes out darker.', banding: 'Will band', bandingTip: 'Where one step of 8-bit footage becomes more than two and a half.',
    none: 'none', atInput: (v: number): string => `at ${(v * 100).toFixed(0)} % in`, stretch: (from: number, to: number): string => `${(from * 100).toFixed(0)}–${(to * 100).toFixed(0)} %`,
  },
  charts: { greys: 'Greys: in across, out upward', hues: 'Round the wheel', turn: 'hue turned, °', gain: 'saturation, ×', lattice: 'Its entries', latticeTip: 'Every entry where it sends its colour: drag or use the arrow keys to turn.' },
  skins: { title: 'Skins and remembered colours', before: 'without', after: 'with', hue: 'hue', luma: 'luma', chroma: 'chroma' },
  place: { here: 'In this shot', show: 'Put it in Show', look: 'Put it in Look', placed: 'Placed. It can be undone on the Bench.', noShot: 'Open a shot first: what a LUT expects is held against it.' },
  sheet: {
    strength: 'Strength', strengthTip: 'How much of each is mixed in.', sort: 'Sorted by', sortTip: 'Measured on this picture.', folder: 'Folder', every: 'everything', recipes: 'recipes', recipe: 'recipe', help: 'Arrows move · Q and E hold two to compare · Enter opens',
    sorts: { name: 'name', contrast: 'contrast', warmth: 'warmth', saturation: 'saturation', skin: 'skin drift' }, done: (n: number, of: number): string => `${n} of ${of}`, cancel: 'Cancel', plain: 'as it is', facts: (contrast: string, warmth: string, saturation: string): string => `contr. ${contrast} · warm ${warmth} · sat. ${saturation}`, skin: (hue: string): string => `skin ${hue}°`, left: 'Q', right: 'E', noShot: 'Choose a shot whose picture goes through them.', person: 'Skin of', nobody: 'nobody', unknown: 'made for something that is not known yet',
  },
} as const
