import { api, take } from '../api/client';
import { type UploadTarget, useFolderUpload } from '../api/useFolderUpload';

const at = (id: string) => ({ params: { path: { id } } });

const target: UploadTarget = {
  begin: async (name) => (await take(api.POST('/api/page-checks', { body: { name } }))).id,
  file: (id, path) => `/api/page-checks/${id}/files?path=${path}`,
  finish: (id) => take(api.POST('/api/page-checks/{id}/start', at(id))),
  drop: (id) => api.DELETE('/api/page-checks/{id}', at(id)),
  page: (id) => `/page-checks/${id}`,
  key: 'page-checks',
};

/** Sends a page - one file or a folder of them - and has it measured. */
export const usePageIntake = () => useFolderUpload(target);
