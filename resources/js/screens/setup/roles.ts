/** What the roles may do, in a few words. */
export const ROLES = {
    member: 'works on records and their own tasks',
    manager: 'does everybody’s tasks as well',
    administrator: 'writes the rules, and sets everything up',
    auditor: 'reads everything and changes nothing',
} as const;
