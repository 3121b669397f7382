import type { GuideFormat } from '@/core/contracts/guide';
import type { GuideWriter } from './contract';
import { docx } from './docx';
import { epub } from './epub';
import { html } from './html';
import { markdown } from './markdown';
import { pdf } from './pdf';

/** Every format of guides, by its name. */
export const guideWriters: Record<GuideFormat, GuideWriter> = { html, pdf, docx, markdown, epub };
