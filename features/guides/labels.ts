import type { GuideFormat } from '@/core/contracts/guide';

/** What a guide can be kept as, and how its downloaded file ends. */
export const labels: Record<GuideFormat, { label: string; note: string; extension: string }> = {
  html: { label: 'Page (HTML)', note: 'One file, opens in any browser.', extension: 'html' },
  pdf: { label: 'PDF', note: 'Pages for printing, with contents and numbers.', extension: 'pdf' },
  docx: {
    label: 'Document (DOCX)',
    note: 'To be written on in a word processor.',
    extension: 'docx',
  },
  markdown: { label: 'Markdown', note: 'Text, with the pictures beside it.', extension: 'zip' },
  epub: { label: 'Book (EPUB)', note: 'For reading devices.', extension: 'epub' },
};
