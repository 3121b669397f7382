import type { Room } from '@/core/document/viewSchema';
import { changeDocument } from '../session/changes';
import { fitView, session } from '../session/session';

export const noRoom: Room = { top: 0, right: 0, bottom: 0, left: 0, colour: '#FFFFFF' };

/** Some of the room beside the view; while a number is changed, all of it is one step of undo. */
export function setRoom(change: Partial<Room>): void {
  changeDocument(
    'Room beside it',
    (draft) => {
      const room = { ...noRoom, ...draft.view.room, ...change };
      if (room.top || room.right || room.bottom || room.left) draft.view.room = room;
      else delete draft.view.room;
    },
    `room ${Object.keys(change).join()}`,
  );
  if (session().camera.mode === 'fit') fitView();
}
