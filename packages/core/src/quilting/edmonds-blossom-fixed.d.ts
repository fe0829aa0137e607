declare module 'edmonds-blossom-fixed' {
  /** For each node its mate, or -1, in a matching of most weight; with `maxCardinality` of as many pairs as there can be. */
  const blossom: (edges: [number, number, number][], maxCardinality?: boolean) => number[];
  export default blossom;
}
