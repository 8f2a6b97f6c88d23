import type { Resources } from '../../api/client';

type Job = Resources['BulkResource'];

/** Whether work on many records is being taken back, or was. */
export function isUndo(job: Job): boolean {
    return job.status === 'undoing' || job.status === 'undone';
}

/** How far it is, as a share of one. */
export function shareOf(job: Job): number {
    if (isUndo(job)) return job.undone / Math.max(1, job.saved);
    return job.status === 'done' ? 1 : job.done / Math.max(1, job.total);
}
