import { shotsApi } from './shots';
import { roomApi } from './room';
import { searchApi } from './search';
import { pictureApi } from './picture';
import { sendingApi } from './sending';
import { foldersApi } from './folders';
import { displayApi } from './display';
import { archivesApi } from './archives';
import { clipsApi } from './clips';
import { guidesApi } from './guides';
import { looksApi } from './looks';
import { pagesApi } from './pages';
import { seriesApi } from './series';
import { settingsApi } from './settings';
import { shotPath } from './ask';

/** Everything the server can be asked for. */
export const api = {
  ...shotsApi,
  ...searchApi,
  ...pictureApi,
  ...sendingApi,
  ...foldersApi,
  ...displayApi,
  ...pagesApi,
  ...settingsApi,
  ...looksApi,
  ...guidesApi,
  ...seriesApi,
  ...clipsApi,
  ...archivesApi,
  ...roomApi,
};

/** @param shot.cover of a clip, the picture that stands for it */
export const thumbnailUrl = (shot: { id: string; revision: number; cover?: number }): string =>
  `${shotPath(shot.id)}/thumbnail?revision=${shot.revision}${shot.cover ? `&cover=${shot.cover}` : ''}`;
