/** Why a piece cannot be milled as it is drawn, or what is left of it. */
export const milling = {
  noFits: (tool: string, name: string) => `${tool} is too wide for ${name}: it fits nowhere in it. Take a smaller tool.`,
  narrowerThanTool: (count: number, name: string, tool: string) =>
    `${count === 1 ? 'A hole' : `${count} holes`} of ${name} ${count === 1 ? 'is' : 'are'} narrower than ${tool}, and ${count === 1 ? 'stays' : 'stay'} uncut. Take a smaller tool.`,
  gapTooNarrow: (tool: string, diameter: string, gap: string) =>
    `Two pieces lie ${gap} apart, and ${tool} is ${diameter} wide: it would cut into one of them. Take a smaller tool, or move them apart.`,
  leaves: (tool: string, areaMm2: string, name: string) => `${tool} leaves ${areaMm2} mm² standing in the inner corners of ${name}.`,
  leavesOffering: (tool: string, areaMm2: string, name: string, smaller: string) =>
    `${tool} leaves ${areaMm2} mm² standing in the inner corners of ${name}; ${smaller} would leave less.`,
  noThickness: 'How thick is the stock? Type its measured thickness under Stock: all depths are reckoned with it.',
  deeperThanStock: (operation: string, depth: string, thickness: string) =>
    `${operation} goes ${depth} deep, into stock that is ${thickness} thick. Type a smaller depth.`,
  deeperThanEdges: (operation: string, depth: string, tool: string, edges: string) =>
    `${operation} goes ${depth} deep, but the edges of ${tool} reach only ${edges}. Take a longer tool or a smaller depth.`,
  noTool: (operation: string) => `${operation} has no tool. Choose one from the shelf.`,
  noTools: 'No tool is chosen yet. Take the tools that you have from the shelf.',
  outsideStock: (name: string) => `${name} does not lie on the stock. Make the stock larger, or move the pieces.`,
  outsideMachine: (width: string, height: string, bedWidth: string, bedHeight: string) =>
    `The program takes ${width} x ${height}, more than the ${bedWidth} x ${bedHeight} that the machine can travel.`,
  beyondDepth: (depth: string, travel: string) =>
    `The program goes through ${depth} of height, more than the ${travel} that the machine can travel.`,
  comesLoose: (name: string) => `${name} comes loose at the end: no tab and no skin holds it.`,
  needsPointed: (operation: string) => `${operation} needs a pointed tool: a V-bit, a tapered tool or a ball.`,
  chamferTooWide: (width: string, tool: string) => `${tool} is too small to break an edge by ${width}.`,
  notClosed: (name: string) => `${name} is not closed, so that it has no inside to clear. Join its ends in Trace.`,
  gouges: (name: string, deepMm: string, areaMm2: string, x: string, y: string) =>
    `The program would cut into ${name}: ${deepMm} mm too far, ${areaMm2} mm² in all, at ${x}, ${y}.`,
  rapidThrough: (tool: string, x: string, y: string) => `A rapid move of ${tool} would run through the stock at ${x}, ${y}.`,
  hitsClamp: (tool: string, x: string, y: string) => `${tool} would run into a clamp at ${x}, ${y}.`,
  fasterThanSpindle: (tool: string, speed: string, max: string) =>
    `${tool} asks for ${speed} turns a minute; the spindle has no more than ${max}.`,
  slowerThanSpindle: (tool: string, speed: string, min: string) =>
    `${tool} asks for ${speed} turns a minute; the spindle turns no slower than ${min}.`,
  tableTooLong: 'The table of tools is too long.',
  tableNeedsColumns: 'The table of tools needs a line of column names, with name and kind among them.',
  tableIsEmpty: 'The table of tools has no tool.',
  tooManyTools: (most: number) => `The table has too many tools: ${most} are enough for a job.`,
  badCell: (line: number, column: string, value: string) =>
    `Line ${line} of the tools: ${column} cannot be ${value === '' ? 'empty' : `“${value}”`}.`,
  badKind: (line: number, kind: string, kinds: string) => `Line ${line} of the tools: “${kind}” is no kind of tool; ${kinds} are there.`,
  toolNotUnderstood: (words: string) => `“${words}” is not understood. Write it as end mill 3.175mm, ball 6mm, V-bit 60deg or drill 3mm.`,
  programOff: (largest: string) => `The program would be off by ${largest} mm. It was not made.`,
  nothingToMill: 'There is nothing to mill: no piece has a purpose that an operation is for.',
  setUp: (job: string) => `Setup: ${job}`,
  setUpStock: (name: string, widthMm: string, heightMm: string, thicknessMm: string) =>
    `Stock: ${name === '' ? '' : `${name}, `}${widthMm} x ${heightMm} x ${thicknessMm} mm`,
  setUpZero: (corner: string, z: string) =>
    `Zero: ${corner === 'sheet' ? 'where the drawing has it' : `${corner} of the stock`}; z 0 on ${z === 'top' ? 'top of the stock' : 'the bed'}`,
  setUpHeights: (safeMm: string, spoilMm: string) => `Safe height ${safeMm} mm over the stock; cuts go ${spoilMm} mm into the spoil board`,
  inAll: (time: string) => `In all ${time}, tool changes included`,
  tool: 'Tool',
  diameter: 'Diameter',
  stickOut: 'Stick-out',
  speed: 'Speed',
  feed: 'Feed',
  chipLoad: 'Chip load',
  operation: 'Operation',
  cuts: 'Cuts',
  time: 'Time',
};
