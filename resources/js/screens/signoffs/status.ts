import type { Resources } from '../../api/client';
import { say } from '../../state/words';

type Status = Resources['SignOffResource']['status'];

const words: Record<Status, [string, string]> = {
    waiting: [say('waiting'), 'marigold'],
    agreed: [say('agreed'), 'fern'],
    declined: [say('declined'), 'madder'],
    withdrawn: [say('withdrawn'), 'harbor'],
    timed_out: ['timed out', 'madder'],
    stopped: ['left undecided', 'harbor'],
};

export const wordOf = (status: Status): string => words[status][0];
export const toneOf = (status: Status): string => words[status][1];
