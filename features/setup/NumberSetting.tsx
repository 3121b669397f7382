import type { ComponentProps, ReactNode } from 'react';
import { NumberInput } from '../ui/NumberInput';

interface Props extends ComponentProps<typeof NumberInput> {
  title: string;
  /** What the number means, in words. */
  children: ReactNode;
}

/** A section of Setup with one number. */
export const NumberSetting = ({ title, children, ...number }: Props) => (
  <section className="mt-6">
    <h2 className="font-name text-lg">{title}</h2>
    <p className="mb-2 text-soft">{children}</p>
    <div className="rounded-[9px] border border-line bg-card px-4 py-2.5">
      <NumberInput {...number} />
    </div>
  </section>
);
