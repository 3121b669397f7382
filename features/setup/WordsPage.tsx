import { useEffect } from 'react';
import type { Reading } from '@/core/contracts/search';
import { api } from '../api/client';
import { changeSettings, readSettings, useSettings } from '../settings/settingsStore';
import { Button } from '../ui/Button';
import { formatCount } from '../ui/format';
import { Toggle } from '../ui/Toggle';
import { useAnswer } from '../api/useAnswer';

const LOOK_AGAIN = 3_000;

/** Whether words in pictures are read, in what language, and how far that is. */
export function WordsPage() {
  const { readWords, wordsLanguage } = useSettings((s) => s.settings);
  const reading = useReading();
  useEffect(() => void readSettings(), []);
  const languages = reading?.languages ?? [];
  return (
    <div className="max-w-xl">
      <h1 className="mb-1 font-name text-xl">Words</h1>
      <p className="mb-4 text-soft">
        Words in pictures are read in the background, on this computer alone, so that a shot is
        found by what was on the screen. What is hidden, and what lies outside the view, is not
        read.
      </p>
      <div className="divide-y divide-line rounded-[9px] border border-line bg-card [&>*]:px-4 [&>*]:py-2.5">
        <Toggle
          label="Read words in pictures"
          note="When nothing else goes on; off, it stops and what was read stays"
          checked={readWords}
          onChange={(on) => changeSettings({ readWords: on })}
        />
        <label className="flex items-center justify-between gap-3">
          <span>
            <span className="block font-bold">Language</span>
            <span className="block text-[13px] text-soft">
              {reading?.installed
                ? 'Those installed with the system’s recogniser (tesseract-ocr-…)'
                : 'The recogniser that ships with Rezzik reads English. Install tesseract-ocr for a quicker one and other languages'}
            </span>
          </span>
          <select
            value={wordsLanguage}
            onChange={(event) => changeSettings({ wordsLanguage: event.target.value })}
            className="h-8 rounded-[6px] border border-edge bg-card px-2"
          >
            {!languages.includes(wordsLanguage) && (
              <option value={wordsLanguage}>{wordsLanguage} (not installed)</option>
            )}
            {languages.map((name) => (
              <option key={name}>{name}</option>
            ))}
          </select>
        </label>
      </div>
      {reading && (
        <p role="status" className="mt-4">
          {formatCount(reading.read)} read
          {reading.waiting > 0 && `, ${formatCount(reading.waiting)} wait`}
          {reading.stopped > 0 && `, ${formatCount(reading.stopped)} could not be read`}.
        </p>
      )}
      {reading && reading.stopped > 0 && (
        <Button className="mt-2" onClick={() => void api.readStoppedAgain()}>
          Try those again
        </Button>
      )}
    </div>
  );
}

const useReading = (): Reading | null =>
  useAnswer(api.reading, 'reading', { next: () => LOOK_AGAIN }).answer;
