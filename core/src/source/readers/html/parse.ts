/** HTML → document, by linkedom: nothing is run, nothing is fetched. */
export async function parsedHtml(html: string): Promise<Document> {
  // A large library that most work has no use for: it is brought with the first page.
  const { parseHTML } = await import('linkedom');
  return parseHTML(html).document;
}
