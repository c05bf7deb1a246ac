/** What the server says: messages by their ids. @param folder to work in */
export function ofServer(folder: string): Promise<Record<string, string>>;
