/**
 * HTML → document, nothing run and nothing fetched. The tree is the one the HTML Standard's parser builds (13.2; parse5), whatever
 * the markup leaves out or leaves open, so that a page reads here as it does in a browser; linkedom's lighter parser gets it whole.
 */
export async function parsedHtml(html: string): Promise<Document> {
  // Large libraries that most work has no use for: they are brought with the first page.
  const [{ parse, serialize }, { parseHTML }] = await Promise.all([import('parse5'), import('linkedom')]);
  return parseHTML(serialize(parse(html, { scriptingEnabled: false }))).document;
}
