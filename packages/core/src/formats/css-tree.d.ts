/** The parts of css-tree that need none of its tables of what values may be; its types are those of the whole. */
declare module 'css-tree/parser' {
  import type { parse } from 'css-tree';

  const parser: typeof parse;
  export default parser;
}
declare module 'css-tree/generator' {
  import type { generate } from 'css-tree';

  const generator: typeof generate;
  export default generator;
}
declare module 'css-tree/walker' {
  import type { walk } from 'css-tree';

  const walker: typeof walk;
  export default walker;
}
