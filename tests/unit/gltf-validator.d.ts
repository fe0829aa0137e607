declare module 'gltf-validator' {
  /** What it says of a file; a severity below 2 is an error or a warning. */
  export function validateBytes(bytes: Uint8Array): Promise<{
    readonly issues: { readonly messages: readonly { readonly severity: number; readonly message: string }[] };
    readonly info: { readonly totalTriangleCount: number };
  }>;
}
