import type { Resources } from '../../api/client';
import { say } from '../../state/words';

type Slip = Resources['SlipResource'];

const TONES = { waiting: 'marigold', answered: 'fern', run_out: 'madder', withdrawn: 'ink' } as const;

export const toneOf = (slip: Slip) => TONES[slip.status];

/** Who has it now, or had it last. */
export const holder = (slip: Slip): string => slip.turns.findLast((turn) => turn.name !== '')?.name ?? say('nobody');
