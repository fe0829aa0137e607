declare module 'cdt2d' {
  interface Options {
    readonly delaunay?: boolean;
    readonly interior?: boolean;
    readonly exterior?: boolean;
    readonly infinity?: boolean;
  }
  /** Triangles of places in the plane that have all edges among theirs. */
  export default function cdt2d(
    points: readonly (readonly [number, number])[],
    edges: readonly (readonly [number, number])[],
    options?: Options,
  ): [number, number, number][];
}
