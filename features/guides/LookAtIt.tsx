import { Printer } from 'lucide-react';
import { useRef } from 'react';
import { api } from '../api/client';
import { useAnswer } from '../api/useAnswer';
import { Button } from '../ui/Button';
import { Modal } from '../ui/Modal';
import { Problem } from '../ui/Problem';
import { FilmsOfIt } from './FilmsOfIt';
import { guideStored } from './guideStore';

interface Props {
  id: string;
  open: boolean;
  onClose: () => void;
}

/** The guide as a page, as it would be kept now; printed from here. */
export const LookAtIt = ({ id, open, onClose }: Props) => (
  <Modal open={open} wide title="As it will be kept" onClose={onClose}>
    <Page id={id} />
  </Modal>
);

function Page({ id }: Pick<Props, 'id'>) {
  const frame = useRef<HTMLIFrameElement>(null);
  const { answer, problem } = useAnswer(async (signal) => {
    await guideStored();
    return (await api.guideFile(id, 'html', signal)).text();
  }, id);
  if (problem) return <Problem>{problem}</Problem>;
  if (answer === null) {
    return (
      <>
        <p role="status">Painting what it shows …</p>
        <FilmsOfIt id={id} />
      </>
    );
  }
  return (
    <>
      <iframe
        ref={frame}
        title="The guide"
        // Nothing runs in it; its print dialog is asked for from here.
        sandbox="allow-same-origin allow-modals"
        srcDoc={answer}
        className="h-[70vh] w-full rounded-[7px] border border-line bg-card"
      />
      <div className="mt-3 flex justify-end">
        <Button
          icon={<Printer size={16} strokeWidth={1.75} />}
          onClick={() => frame.current?.contentWindow?.print()}
        >
          Print
        </Button>
      </div>
    </>
  );
}
