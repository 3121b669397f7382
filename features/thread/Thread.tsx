import { Layers, SlidersHorizontal } from 'lucide-react';
import { Fragment, type ReactNode } from 'react';
import { giveKeysBack } from '../keys/focus';
import { chosenLook, classes } from '../ui/classes';
import { LinkItem, Row } from '../ui/Row';
import { followLink } from './navigate';

type Step = 'take' | 'mark' | 'keep';

interface Props {
  /** The step the person is in; none on the Shelf and in Setup. */
  step?: Step;
  place?: 'shelf' | 'setup';
  /** The shot that Mark and Keep lead to. */
  shot?: string | null;
  middle?: ReactNode;
  actions?: ReactNode;
}

/** The bar along the top: where one is in take → mark → keep, and the step's actions. */
export function Thread({ step, place, shot, middle, actions }: Props) {
  const steps: { name: Step; label: string; href: string | null }[] = [
    { name: 'take', label: 'Take', href: '/take' },
    { name: 'mark', label: 'Mark', href: shot ? `/shots/${shot}` : null },
    { name: 'keep', label: 'Keep', href: shot ? `/shots/${shot}/keep` : null },
  ];
  return (
    <header className="flex h-[54px] shrink-0 items-center gap-4 border-b border-line bg-paper px-4 max-[900px]:gap-2 max-[900px]:overflow-x-auto max-[900px]:px-2">
      <SkipLink />
      <nav aria-label="Steps">
        <Row label="Steps" className="flex items-center">
          <LinkItem>
            <a
              href="/take"
              onClick={followLink}
              className="mr-4 flex items-center gap-2 font-name text-xl text-ink max-[900px]:mr-1"
            >
              <Logo />
              <span className="max-[900px]:sr-only">Rezzik</span>
            </a>
          </LinkItem>
          {steps.map(({ name, label, href }, i) => (
            <Fragment key={name}>
              {i > 0 && (
                <span
                  aria-hidden
                  className="mx-1 w-4 border-t-2 border-dotted border-edge max-[900px]:mx-0 max-[900px]:w-2"
                />
              )}
              <StepLink label={label} href={href} current={name === step} />
            </Fragment>
          ))}
        </Row>
      </nav>
      <div className="flex min-w-0 grow items-center gap-3">{middle}</div>
      <div className="flex shrink-0 items-center gap-2 max-[900px]:gap-1">
        <Row label="Shelf and Setup" className="flex items-center gap-2 max-[900px]:gap-1">
          <PlaceLink
            href="/shelf"
            current={place === 'shelf'}
            label="Shelf"
            icon={<Layers size={18} strokeWidth={1.75} />}
          />
          <PlaceLink
            href="/setup/folders"
            current={place === 'setup'}
            label="Setup"
            iconOnly
            icon={<SlidersHorizontal size={18} strokeWidth={1.75} />}
          />
        </Row>
        {actions}
      </div>
    </header>
  );
}

/** The first Tab stop of every view: past the bar, to what the view is about. */
function SkipLink() {
  return (
    <button
      type="button"
      onClick={(event) => giveKeysBack(event.currentTarget)}
      className="sr-only focus:not-sr-only focus:rounded-[7px] focus:bg-ink focus:px-3 focus:py-1.5 focus:text-on-ink"
    >
      Skip the bar
    </button>
  );
}

function StepLink({
  label,
  href,
  current,
}: {
  label: string;
  href: string | null;
  current: boolean;
}) {
  const look = classes(
    'rounded-[7px] px-3 py-1.5 max-[900px]:px-2',
    current ? 'bg-ink font-bold text-on-ink' : 'text-soft',
    !current && href && 'hover:bg-tint',
  );
  if (!href) return <span className={look}>{label}</span>;
  return (
    <LinkItem>
      <a
        href={href}
        onClick={followLink}
        aria-current={current ? 'step' : undefined}
        className={look}
      >
        {label}
      </a>
    </LinkItem>
  );
}

interface PlaceProps {
  href: string;
  label: string;
  icon: ReactNode;
  current: boolean;
  iconOnly?: boolean;
}

function PlaceLink(props: PlaceProps) {
  return (
    <LinkItem>
      <a
        href={props.href}
        onClick={followLink}
        aria-current={props.current ? 'page' : undefined}
        title={props.iconOnly ? props.label : undefined}
        className={classes(
          'inline-flex h-9 items-center gap-2 rounded-[7px] border px-3',
          chosenLook(props.current),
        )}
      >
        {props.icon}
        <span className={props.iconOnly ? 'sr-only' : 'max-[900px]:sr-only'}>{props.label}</span>
      </a>
    </LinkItem>
  );
}

function Logo() {
  return (
    <svg viewBox="0 0 32 32" className="size-5" aria-hidden>
      <path d="M6 2h20a4 4 0 0 1 4 4v20a4 4 0 0 1-4 4z" className="fill-ink" />
      <path d="M2 6a4 4 0 0 1 4-4h14L2 20z" className="fill-saffron" />
      <path d="M30 12v14a4 4 0 0 1-4 4H12z" className="fill-petrol" />
    </svg>
  );
}
