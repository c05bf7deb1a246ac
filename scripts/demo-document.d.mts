export function demoDocument(now?: Date): string;
