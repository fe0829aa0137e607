/** What of the 3MF consortium's own reader the tests use; it ships no types. */
declare module '@3mfconsortium/lib3mf' {
  interface Iterator {
    MoveNext(): boolean;
  }
  interface MeshObject {
    GetName(): string;
    GetVertexCount(): number;
    GetTriangleCount(): number;
    IsManifoldAndOriented(): boolean;
    IsValid(): boolean;
  }
  interface Reader {
    SetStrictModeActive(isStrict: boolean): void;
    ReadFromFile(path: string): void;
    GetWarningCount(): number;
  }
  interface Model {
    QueryReader(kind: '3mf'): Reader;
    GetUnit(): { readonly value: number };
    GetMeshObjects(): Iterator & { GetCurrentMeshObject(): MeshObject };
    GetBuildItems(): Iterator;
  }
  interface Library {
    readonly FS: { writeFile(path: string, bytes: Uint8Array): void };
    readonly CWrapper: new () => { CreateModel(): Model };
    readonly eModelUnit: { readonly MilliMeter: { readonly value: number } };
  }
  export default function lib3mf(): Promise<Library>;
}
