import { createRouter } from 'sv-router';
import LedgerScreen from './screens/ledger/LedgerScreen.svelte';
import ProfileScreen from './screens/profile/ProfileScreen.svelte';
import RecordList from './screens/records/RecordList.svelte';
import RecordScreen from './screens/records/RecordScreen.svelte';
import RuleList from './screens/rules/RuleList.svelte';
import RuleScreen from './screens/rules/RuleScreen.svelte';
import MailRoomScreen from './screens/mailroom/MailRoomScreen.svelte';
import CalendarScreen from './screens/setup/CalendarScreen.svelte';
import LadderScreen from './screens/setup/LadderScreen.svelte';
import LetterScreen from './screens/setup/LetterScreen.svelte';
import NamedScreen from './screens/setup/NamedScreen.svelte';
import SetupScreen from './screens/setup/SetupScreen.svelte';
import TaskScreen from './screens/tasks/TaskScreen.svelte';
import TodayScreen from './screens/today/TodayScreen.svelte';
import Missing from './parts/Missing.svelte';

export const { navigate, route } = createRouter({
    '/': TodayScreen,
    '/records/:type': RecordList,
    '/records/:type/new': RecordScreen,
    '/records/:type/:id': RecordScreen,
    '/rules': RuleList,
    '/rules/:id': RuleScreen,
    '/tasks': TaskScreen,
    '/ledger': LedgerScreen,
    '/ledger/:number': LedgerScreen,
    '/setup': SetupScreen,
    '/setup/calendars': CalendarScreen,
    '/setup/ladders': LadderScreen,
    '/setup/letters': LetterScreen,
    '/setup/letters/:id': LetterScreen,
    '/setup/conditions': NamedScreen,
    '/mail-room': MailRoomScreen,
    '/mail-room/:id': MailRoomScreen,
    '/profile': ProfileScreen,
    '*': Missing,
});

/** Goes to an address of the application that is put together at run time. */
export function go(path: string): void {
    (navigate as unknown as (to: string) => unknown)(path);
}
