/** Media type of a chosen file, from what the browser says or from its name. */
export function typeOf(file: File): string {
  if (file.type !== '') return file.type;
  const ending = file.name.toLowerCase().split('.').pop() ?? '';
  return (
    (
      {
        pdf: 'application/pdf',
        png: 'image/png',
        jpg: 'image/jpeg',
        jpeg: 'image/jpeg',
        webp: 'image/webp',
        csv: 'text/csv',
        json: 'application/json',
      } as Record<string, string>
    )[ending] ?? 'application/octet-stream'
  );
}
