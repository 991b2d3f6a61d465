import { api, take } from '../api/client';
import { type UploadTarget, useFolderUpload } from '../api/useFolderUpload';

const at = (id: string) => ({ params: { path: { id } } });

const target: UploadTarget = {
  begin: async (name) => (await take(api.POST('/api/folders', { body: { name } }))).id,
  file: (id, path, changed) => `/api/folders/${id}/files?path=${path}&changed=${changed}`,
  finish: (id) => take(api.POST('/api/folders/{id}/scan', at(id))),
  drop: (id) => api.DELETE('/api/folders/{id}', at(id)),
  page: (id) => `/folders/${id}`,
  key: 'folders',
};

/** Sends a folder of pictures, and has it scanned. */
export const useFolderIntake = () => useFolderUpload(target);
