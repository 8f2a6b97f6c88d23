import type { Shapes } from '../../api/client';

type Status = Shapes['SignOffShape']['status'];

const words: Record<Status, [string, string]> = {
    waiting: ['waiting', 'marigold'],
    agreed: ['agreed', 'fern'],
    declined: ['declined', 'madder'],
    withdrawn: ['withdrawn', 'harbor'],
    timed_out: ['timed out', 'madder'],
    stopped: ['left undecided', 'harbor'],
};

export const wordOf = (status: Status): string => words[status][0];
export const toneOf = (status: Status): string => words[status][1];
