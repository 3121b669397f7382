import { zodResolver } from '@hookform/resolvers/zod';
import { useState } from 'react';
import { useForm, type UseFormReturn } from 'react-hook-form';
import type { z } from 'zod';
import { remoteInputSchema, type Remote, type RemoteInput } from '@/core/contracts/remote';
import { firstRules } from '@/core/contracts/rules';
import { ApiError, messageOf } from '../../api/ask';
import { api } from '../../api/client';
import { Button } from '../../ui/Button';
import { Problem } from '../../ui/Problem';
import { Toggle } from '../../ui/Toggle';
import { fieldLook, Row, RulesOfForm } from '../Rules';

const pickInput = ({
  id: _,
  practice: __,
  waiting: ___,
  caution: ____,
  unconfirmed: _____,
  ...input
}: Remote): RemoteInput => ({
  ...input,
  password: '',
});

interface Props {
  remote: Remote | null;
  onDone: () => Promise<unknown>;
}

/** Everything of a folder on another machine. */
export function RemoteForm({ remote, onDone }: Props) {
  const [refused, setRefused] = useState<string | null>(null);
  /** Of the certificate that was shown and is not known. */
  const [shown, setShown] = useState<string | null>(null);
  const form = useForm<RemoteInput, unknown, z.output<typeof remoteInputSchema>>({
    resolver: zodResolver(remoteInputSchema),
    defaultValues: remote
      ? pickInput(remote)
      : {
          ...{ name: '', url: 'https://', username: '', password: '', ...firstRules },
          ...{ readable: false, fingerprint: null, address: '' },
        },
  });
  const { register, handleSubmit, watch, formState } = form;
  const { errors } = formState;
  // A password goes only where it was typed for.
  const moved = remote && (watch('url') !== remote.url || watch('username') !== remote.username);
  const submit = handleSubmit(async ({ password, ...input }) => {
    try {
      if (remote)
        await api.changeRemote(remote.id, {
          ...input,
          // Another place without a user name has no password either.
          ...((password || (moved && input.username === '')) && { password }),
        });
      else await api.addRemote({ ...input, password });
      await onDone();
    } catch (error) {
      setRefused(messageOf(error));
      setShown((error instanceof ApiError && error.fingerprint) || null);
    }
  });
  const trust = (fingerprint: string | null) => {
    form.setValue('fingerprint', fingerprint);
    setShown(null);
    setRefused(null);
    if (fingerprint) void submit();
  };
  return (
    <form className="flex flex-col gap-3" onSubmit={(event) => void submit(event)} noValidate>
      <div className="grid grid-cols-2 gap-3">
        <Row label="Name" error={errors.name?.message}>
          <input className={fieldLook} aria-invalid={!!errors.name} {...register('name')} />
        </Row>
        <Row label="Address" error={errors.url?.message}>
          <input
            className={fieldLook}
            aria-invalid={!!errors.url}
            spellCheck={false}
            {...register('url')}
          />
        </Row>
        <Row label="User name">
          <input className={fieldLook} autoComplete="off" {...register('username')} />
        </Row>
        <Row label={remote && !moved ? 'Password, if it is another' : 'Password'}>
          <input
            className={fieldLook}
            type="password"
            autoComplete="new-password"
            {...register('password')}
          />
        </Row>
      </div>
      {/* Where the cause of it lies, in sight. */}
      {refused && (
        <Problem
          action={shown && <Button onClick={() => trust(shown)}>Trust this certificate</Button>}
        >
          {refused}
        </Problem>
      )}
      <Allowed form={form} onForget={() => trust(null)} />
      <Row
        label="Address under which others see its files, if they do"
        error={errors.address?.message}
      >
        <input
          className={fieldLook}
          aria-invalid={!!errors.address}
          placeholder="https://files.example/{name}"
          spellCheck={false}
          {...register('address')}
        />
      </Row>
      <RulesOfForm form={form} />
      <div className="flex justify-end">
        <Button type="submit" look="next" disabled={formState.isSubmitting}>
          {remote ? 'Save it' : 'Add it'}
        </Button>
      </div>
    </form>
  );
}

type Form = UseFormReturn<RemoteInput, unknown, z.output<typeof remoteInputSchema>>;

/** What is allowed for this folder alone, where there is something to allow. */
function Allowed({ form, onForget }: { form: Form; onForget: () => void }) {
  const { url, username, readable, fingerprint } = form.watch();
  return (
    <>
      {/^http:\/\/(?!localhost\b|127\.|\[::1\])/.test(url) && username !== '' && (
        <Toggle
          label="The password may be read on the way"
          note="Over plain http whoever is on the way can read what is sent, unless the other end asks in a way that keeps the password to itself."
          checked={readable ?? false}
          onChange={(on) => form.setValue('readable', on)}
        />
      )}
      {fingerprint && (
        <p className="flex flex-wrap items-center gap-2 text-[13px] text-soft">
          <span className="min-w-0 grow font-measure break-all">
            Trusts the certificate {fingerprint}
          </span>
          <Button look="quiet" onClick={onForget}>
            Not any more
          </Button>
        </p>
      )}
    </>
  );
}
