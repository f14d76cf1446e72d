/** A raw file as the request's body; the generated client would make JSON of it. */
export function fileBody(file: File) {
  return {
    body: file as unknown as string,
    bodySerializer: (body: unknown) => body as BodyInit,
    headers: { 'Content-Type': 'text/csv' },
  }
}
