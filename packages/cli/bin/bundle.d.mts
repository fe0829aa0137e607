export function bundle(): Promise<string>;
