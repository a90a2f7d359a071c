import type { Writer } from '../writer.ts';

export const description: Writer = {
  id: 'description',
  name: 'For the upload',
  says: 'description, titles, hashtags, search words, questions, title pictures',
  loses: 'the script itself',
  extension: 'txt',
  suffix: 'upload',
  mime: 'text/plain',
  for: ['uploader'],
  write: ({ upload }) => {
    const block = (name: string, text: string) => (text ? `== ${name}\n${text}\n` : '');
    return [
      block(
        'Title',
        upload.titles.map((t) => `${t.used ? '*' : '-'} ${t.text} (${t.letters} letters)`).join('\n'),
      ),
      block('Description', upload.description),
      'refused' in upload.chapters ? block('No chapters', upload.chapters.refused) : '',
      block('Search words', upload.parts.searchWords),
      block('Question for the comments', upload.parts.question),
      block('Comment to pin', upload.parts.pinned),
      block(
        'Title picture',
        upload.pictures.map((p) => `- ${p.shows}; on it “${p.words}”; ${p.why}`).join('\n'),
      ),
    ]
      .filter(Boolean)
      .join('\n');
  },
};
