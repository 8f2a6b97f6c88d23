import { api, ask } from '../api/client';
import { session } from './session.svelte';
import { say } from './words';

type Step = { to: string; title: string; says: string };

/** The places in the order in which one is led around. */
export function stepsAround(): Step[] {
    return [
        { to: '/', title: say('Today'), says: say('Your day: what is to be done, what waits for you, and what rules have pencilled in.') },
        {
            to: '/records/',
            title: say('Records'),
            says: say('What your company knows. The history of each says who changed what, and which rule, with why.'),
        },
        {
            to: '/rules',
            title: say('Rules'),
            says: say(
                'A rule is a sentence. Rehearse it on a record, let time pass on paper, and put it in force when it does what you mean.',
            ),
        },
        {
            to: '/sign-offs',
            title: say('Sign-offs and slips'),
            says: say('What has to be agreed, and what was asked of people in the company and outside it.'),
        },
        {
            to: '/ledger',
            title: say('Ledger'),
            says: say('All that happened, and what did not, for which reason. Press “Why?” on any line.'),
        },
        {
            to: '/setup',
            title: say('Setup'),
            says: say('People, working hours, letters, fields of your own, and how other systems come in.'),
        },
    ];
}

/** Once around the application, place by place; whoever does not want it is not asked again. */
class Tour {
    at = $state<number | null>(null);

    begin(): void {
        this.at = 0;
    }

    end(): void {
        this.at = null;
        const { me } = session;
        if (!me || me.preferences.toured) return;
        me.preferences.toured = true;
        // Whoever is asked once more has lost nothing.
        ask(api.PUT('/api/preferences', { body: { toured: true } })).catch(() => undefined);
    }
}

export const tour = new Tour();
