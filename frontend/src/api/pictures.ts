/** Sending a picture: refused here already when it is too large, so that nobody waits for nothing. */
import { ProblemError, type Schemas, sendFile } from './client';

const LARGEST_MB = 20;

export async function sendPicture(file: File): Promise<Schemas['Picture']> {
  const megabytes = file.size / 1024 ** 2;
  if (megabytes > LARGEST_MB)
    throw new ProblemError({
      code: 'file.format',
      message: `${file.name}: ${megabytes.toFixed(0)} MB is more than the ${LARGEST_MB} MB kept. Send the photo in a smaller size.`,
      field: '',
      kept_job_id: '',
    });
  return sendFile<Schemas['Picture']>('/api/pictures', file);
}
