import { createRouter } from 'sv-router';
const LedgerScreen = () => import('./screens/ledger/LedgerScreen.svelte');
const ProfileScreen = () => import('./screens/access/ProfileScreen.svelte');
const RecordList = () => import('./screens/lists/RecordList.svelte');
const RecordScreen = () => import('./screens/records/RecordScreen.svelte');
const RuleList = () => import('./screens/rules/RuleList.svelte');
const RuleScreen = () => import('./screens/rules/RuleScreen.svelte');
const MailRoomScreen = () => import('./screens/inbound/MailRoomScreen.svelte');
const CalendarScreen = () => import('./screens/library/CalendarScreen.svelte');
const EndpointScreen = () => import('./screens/outbound/EndpointScreen.svelte');
const HookScreen = () => import('./screens/inbound/HookScreen.svelte');
const InStepScreen = () => import('./screens/outbound/InStepScreen.svelte');
const LadderScreen = () => import('./screens/library/LadderScreen.svelte');
const LetterScreen = () => import('./screens/library/LetterScreen.svelte');
const NamedScreen = () => import('./screens/library/NamedScreen.svelte');
const PeopleScreen = () => import('./screens/people/PeopleScreen.svelte');
const RolesScreen = () => import('./screens/access/RolesScreen.svelte');
const RouteScreen = () => import('./screens/library/RouteScreen.svelte');
const SetupScreen = () => import('./screens/setup/SetupScreen.svelte');
const SlipFormScreen = () => import('./screens/slips/SlipFormScreen.svelte');
const SlipScreen = () => import('./screens/slips/SlipScreen.svelte');
const ApiScreen = () => import('./screens/setup/ApiScreen.svelte');
const CarryScreen = () => import('./screens/setup/CarryScreen.svelte');
const SignOffScreen = () => import('./screens/signoffs/SignOffScreen.svelte');
const TaskScreen = () => import('./screens/tasks/TaskScreen.svelte');
const TypeScreen = () => import('./screens/types/TypeScreen.svelte');
const TodayScreen = () => import('./screens/today/TodayScreen.svelte');
const ImportScreen = () => import('./screens/import/ImportScreen.svelte');
const PartsScreen = () => import('./screens/parts/PartsScreen.svelte');
import Missing from './parts/Missing.svelte';

const router = createRouter({
    '/': TodayScreen,
    '/records/:type': RecordList,
    '/records/:type/new': RecordScreen,
    '/records/:type/import': ImportScreen,
    '/records/:type/:id': RecordScreen,
    '/rules': RuleList,
    '/rules/:id': RuleScreen,
    '/tasks': TaskScreen,
    '/sign-offs': SignOffScreen,
    '/slips': SlipScreen,
    '/ledger': LedgerScreen,
    '/ledger/:number': LedgerScreen,
    '/setup': SetupScreen,
    '/setup/calendars': CalendarScreen,
    '/setup/ladders': LadderScreen,
    '/setup/letters': LetterScreen,
    '/setup/letters/:id': LetterScreen,
    '/setup/conditions': NamedScreen,
    '/setup/people': PeopleScreen,
    '/setup/types': TypeScreen,
    '/setup/roles': RolesScreen,
    '/setup/routes': RouteScreen,
    '/setup/systems': EndpointScreen,
    '/setup/hooks': HookScreen,
    '/setup/api': ApiScreen,
    '/setup/carry': CarryScreen,
    '/setup/in-step': InStepScreen,
    '/setup/slips': SlipFormScreen,
    '/mail-room': MailRoomScreen,
    '/mail-room/:id': MailRoomScreen,
    '/profile': ProfileScreen,
    '/parts': PartsScreen,
    '*': Missing,
});
export const { navigate, route } = router;

/** Brings in the screen of an address beforehand, while other things are waited for. */
export function preload(path: string): Promise<void> {
    return router.preload(path as Parameters<typeof router.preload>[0]).catch(() => undefined);
}

/** Goes to an address of the application that is put together at run time. */
export function go(path: string): void {
    (navigate as unknown as (to: string) => unknown)(path);
}
